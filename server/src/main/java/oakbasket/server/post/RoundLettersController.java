package oakbasket.server.post;

import java.time.Clock;
import java.util.List;
import oakbasket.core.letter.LetterKind;
import oakbasket.core.team.Permission;
import oakbasket.server.account.Account;
import oakbasket.server.basket.Basket;
import oakbasket.server.basket.Baskets;
import oakbasket.server.board.Board;
import oakbasket.server.problem.Problem;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import oakbasket.server.security.Needs;
import oakbasket.server.words.SenderLanguages;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The letters of a round: those that went, those that will, and those a coordinator sends. */
@RestController
@Needs(Permission.CHANGE)
class RoundLettersController {

    private static final int MOST_AT_ONCE = 50_000;

    /**
     * Who is written to.
     *
     * @param allTheSame whether also those who are not chased, or who got a letter less than a day ago
     */
    record Chosen(List<Long> baskets, boolean allTheSame) {
    }

    /** The letters about one basket, and the next that the plan means; {@code next.reason} says why there will be none. */
    record BasketLetters(List<LetterList.ListedLetter> letters, PlannedLetters.Next next, boolean planned) {
    }

    record LetterLook(String subject, String body, String language) {
    }

    private final Letters letters;
    private final LetterList list;
    private final LetterDays days;
    private final LetterPreviews previews;
    private final PlannedLetters planned;
    private final Rounds rounds;
    private final Baskets baskets;
    private final Board board;
    private final Clock clock;

    RoundLettersController(Letters letters, LetterList list, LetterDays days, LetterPreviews previews, PlannedLetters planned, Rounds rounds, Baskets baskets, Board board,
            Clock clock) {
        this.letters = letters;
        this.list = list;
        this.days = days;
        this.previews = previews;
        this.planned = planned;
        this.rounds = rounds;
        this.baskets = baskets;
        this.board = board;
        this.clock = clock;
    }

    /** When letters of a round went and will go. */
    @GetMapping("/api/rounds/{id}/letters")
    List<LetterDays.LetterTick> ticks(@PathVariable long id) {
        return days.ofRound(id);
    }

    /** Says what sending to these people would mean; sends nothing. */
    @PostMapping("/api/rounds/{id}/letters/preview")
    Letters.Sending preview(@PathVariable long id, @RequestBody Chosen chosen) {
        return letters.preview(id, checked(chosen), chosen.allTheSame());
    }

    /** Sends a letter to each of these people who owes something. */
    @PostMapping("/api/rounds/{id}/letters")
    Letters.Sending send(@PathVariable long id, @RequestBody Chosen chosen, @AuthenticationPrincipal Account account) {
        return letters.send(id, checked(chosen), chosen.allTheSame(), account.id());
    }

    @GetMapping("/api/baskets/{id}/letters")
    BasketLetters ofBasket(@PathVariable long id) {
        Basket basket = baskets.byId(id);
        Round round = rounds.opened(basket.roundId());
        return new BasketLetters(list.ofBasket(id), planned.next(round, board.judgeBasket(id), clock.instant()), !round.letters().reminders().steps().isEmpty());
    }

    /** The letters of the next two weeks, as things stand. */
    @GetMapping("/api/letters/coming")
    List<LetterDays.ComingLetters> coming() {
        return days.coming();
    }

    /** The letter of a round that may still be a draft, with the name of somebody who is asked, or a made-up one where nobody is yet. */
    @GetMapping("/api/rounds/{id}/letter-example")
    LetterLook example(@PathVariable long id, @RequestParam(defaultValue = "INVITATION") LetterKind kind,
            @RequestParam(defaultValue = "en") String language) {
        return previews.ofRound(id, kind, SenderLanguages.ofTag(language).orElseThrow(() -> Problem.field("language", "no-such-language")));
    }

    private static List<Long> checked(Chosen chosen) {
        List<Long> ids = chosen.baskets();
        if (ids == null || ids.isEmpty() || ids.size() > MOST_AT_ONCE || ids.contains(null)) {
            throw Problem.field("baskets", "choose-people", MOST_AT_ONCE);
        }
        return ids;
    }
}
