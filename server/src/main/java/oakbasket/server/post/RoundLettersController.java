package oakbasket.server.post;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import oakbasket.core.letter.LetterKind;
import oakbasket.server.Settings;
import oakbasket.server.account.Account;
import oakbasket.server.basket.Basket;
import oakbasket.server.basket.Baskets;
import oakbasket.server.board.Board;
import oakbasket.server.problem.Problem;
import oakbasket.server.round.Drafts;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The letters of a round: those that went, those that will, and those a coordinator sends. */
@RestController
class RoundLettersController {

    private static final int MOST_AT_ONCE = 50_000;
    private static final Duration AHEAD = Duration.ofDays(120);
    private static final int DAYS = 14;

    /** Letters of one kind on one day of the round's zone, as the ruler shows them. */
    record LetterTick(LetterKind kind, Instant at, int letters, boolean planned) {
    }

    record Chosen(List<Long> baskets) {
    }

    /** The letters about one basket, and the next that the plan means; {@code next.reason} says why there will be none. */
    record BasketLetters(List<LetterList.ListedLetter> letters, PlannedLetters.Next next, boolean planned) {
    }

    /** Letters that will go on one day of the office. */
    record ComingLetters(LocalDate date, long roundId, String round, LetterKind kind, int letters) {
    }

    record LetterLook(String subject, String body) {
    }

    private final Letters letters;
    private final LetterList list;
    private final Drafts drafts;
    private final LetterWriter writer;
    private final PlannedLetters planned;
    private final Rounds rounds;
    private final Baskets baskets;
    private final Board board;
    private final Settings settings;
    private final Clock clock;

    RoundLettersController(Letters letters, LetterList list, Drafts drafts, LetterWriter writer, PlannedLetters planned, Rounds rounds, Baskets baskets, Board board, Settings settings,
            Clock clock) {
        this.letters = letters;
        this.list = list;
        this.drafts = drafts;
        this.writer = writer;
        this.planned = planned;
        this.rounds = rounds;
        this.baskets = baskets;
        this.board = board;
        this.settings = settings;
        this.clock = clock;
    }

    /** When letters of a round went and will go. */
    @GetMapping("/api/rounds/{id}/letters")
    List<LetterTick> ticks(@PathVariable long id) {
        Board.Judged judged = board.judge(id);
        List<LetterTick> ticks = new ArrayList<>();
        letters.went(id).forEach(went -> ticks.add(new LetterTick(went.kind(), went.hour(), went.letters(), false)));
        planned.coming(judged, judged.now().plus(AHEAD)).forEach(coming -> ticks.add(new LetterTick(coming.kind(), coming.at(), coming.letters(), true)));
        return byDay(ticks, judged.round());
    }

    /** Says what sending to these people would mean; sends nothing. */
    @PostMapping("/api/rounds/{id}/letters/preview")
    Letters.Sending preview(@PathVariable long id, @RequestBody Chosen chosen) {
        return letters.preview(id, checked(chosen));
    }

    /** Sends a letter to each of these people who owes something. */
    @PostMapping("/api/rounds/{id}/letters")
    Letters.Sending send(@PathVariable long id, @RequestBody Chosen chosen, @AuthenticationPrincipal Account account) {
        return letters.send(id, checked(chosen), account.id());
    }

    @GetMapping("/api/baskets/{id}/letters")
    BasketLetters ofBasket(@PathVariable long id) {
        Basket basket = baskets.byId(id);
        Round round = rounds.opened(basket.roundId());
        return new BasketLetters(list.ofBasket(id), planned.next(round, board.judgeBasket(id), clock.instant()), !round.letters().reminders().steps().isEmpty());
    }

    /** The letters of the next two weeks, as things stand. */
    @GetMapping("/api/letters/coming")
    List<ComingLetters> coming() {
        LocalDate today = LocalDate.ofInstant(clock.instant(), settings.zone());
        Instant until = today.plusDays(DAYS).atStartOfDay(settings.zone()).toInstant();
        List<ComingLetters> coming = new ArrayList<>();
        PlannedLetters.Look look = planned.look(clock.instant());
        for (Board.Judged judged : board.judge(rounds.gathering())) {
            Round round = judged.round();
            Map<LocalDate, Map<LetterKind, Integer>> days = new TreeMap<>();
            planned.coming(look, judged, until).forEach(one -> days.computeIfAbsent(LocalDate.ofInstant(one.at(), settings.zone()), day -> new EnumMap<>(LetterKind.class))
                    .merge(one.kind(), one.letters(), Integer::sum));
            days.forEach((date, kinds) -> kinds.forEach((kind, count) -> coming.add(new ComingLetters(date, round.id(), round.title(), kind, count))));
        }
        return coming;
    }

    /** The letter of a round that may still be a draft, with a made-up name. */
    @GetMapping("/api/rounds/{id}/letter-example")
    LetterLook example(@PathVariable long id, @RequestParam(defaultValue = "INVITATION") LetterKind kind) {
        Drafts.Rehearsed rehearsed = drafts.rehearse(id);
        LetterWriter.Written written = writer.draft(kind, rehearsed.round(), rehearsed.items());
        return new LetterLook(written.subject(), written.body());
    }

    private static List<LetterTick> byDay(List<LetterTick> ticks, Round round) {
        record Key(LetterKind kind, LocalDate day, boolean planned) {
        }
        Map<Key, LetterTick> days = new LinkedHashMap<>();
        ticks.forEach(tick -> days.merge(new Key(tick.kind(), LocalDate.ofInstant(tick.at(), round.zone()), tick.planned()), tick,
                (one, other) -> new LetterTick(one.kind(), one.at().isBefore(other.at()) ? one.at() : other.at(), one.letters() + other.letters(), one.planned())));
        return days.values().stream().sorted(Comparator.comparing(LetterTick::at)).toList();
    }

    private static List<Long> checked(Chosen chosen) {
        List<Long> ids = chosen.baskets();
        if (ids == null || ids.isEmpty() || ids.size() > MOST_AT_ONCE || ids.contains(null)) {
            throw Problem.field("baskets", "choose-people", MOST_AT_ONCE);
        }
        return ids;
    }
}
