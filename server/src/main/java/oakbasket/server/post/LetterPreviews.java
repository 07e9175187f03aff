package oakbasket.server.post;

import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import oakbasket.core.letter.LetterKind;
import oakbasket.core.letter.LetterText;
import oakbasket.core.round.RoundState;
import oakbasket.server.account.Account;
import oakbasket.server.basket.Basket;
import oakbasket.server.basket.Baskets;
import oakbasket.server.board.Board;
import oakbasket.server.contact.Contacts;
import oakbasket.server.problem.Problem;
import oakbasket.server.round.Drafts;
import oakbasket.server.round.Rounds;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Letters to look at before any goes. */
@Component
class LetterPreviews {

    private final LetterWriter writer;
    private final Baskets baskets;
    private final Rounds rounds;
    private final Drafts drafts;
    private final Board board;
    private final Contacts contacts;

    LetterPreviews(LetterWriter writer, Baskets baskets, Rounds rounds, Drafts drafts, Board board, Contacts contacts) {
        this.writer = writer;
        this.baskets = baskets;
        this.rounds = rounds;
        this.drafts = drafts;
        this.board = board;
        this.contacts = contacts;
    }

    /**
     * A text as one person would read it, with what they owe now; links stand for themselves.
     *
     * @param contactId null for somebody made up
     * @throws Problem when the person is in no round that was opened
     */
    RoundLettersController.LetterLook filledIn(LetterText text, LetterKind kind, Locale language, @Nullable Long contactId, Account account) {
        if (contactId == null) {
            return look(writer.example(text, kind, account, language));
        }
        if (kind.ofParcel() || kind == LetterKind.EXCHANGE) {
            // Whoever was handed nothing out yet cannot be filled in; the rest of the text reads the same for everybody.
            return look(writer.example(text, kind, account, language));
        }
        List<Long> all = contacts.withMerged(contacts.byId(contactId).id());
        Basket basket = baskets.ofContacts(all).stream().filter(one -> !one.removed())
                .max(Comparator.comparing((Basket one) -> rounds.head(one.roundId()).state() == RoundState.GATHERING).thenComparing(Basket::id))
                .orElseThrow(() -> Problem.field("contactId", "person-without-round"));
        return look(writer.write(text, kind, List.of(new LetterWriter.Told(basket.roundId(), board.judgeBasket(basket.id()))), null, "", language));
    }

    /** The letter of a round that may still be a draft, with the name of somebody who is asked, or a made-up one where nobody is yet. */
    RoundLettersController.LetterLook ofRound(long id, LetterKind kind, Locale language) {
        Drafts.Rehearsed rehearsed = drafts.rehearse(id);
        return look(writer.draft(kind, rehearsed.round(), rehearsed.items(), rehearsed.person(), language));
    }

    private static RoundLettersController.LetterLook look(LetterWriter.Written written) {
        return new RoundLettersController.LetterLook(written.subject(), written.body().replaceAll("\uE000\\d+\uE001", "https://…/b/…"), written.language().getLanguage());
    }
}
