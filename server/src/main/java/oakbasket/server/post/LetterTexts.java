package oakbasket.server.post;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import oakbasket.core.letter.LetterKind;
import oakbasket.core.letter.LetterText;
import oakbasket.server.problem.Problem;
import oakbasket.server.storage.Transactions;
import oakbasket.server.words.Words;
import org.springframework.stereotype.Service;

/** The words of each kind of letter: the office's own where it wrote some, else those that ship. */
@Service
class LetterTexts {

    /**
     * The text of a kind of letter.
     *
     * @param version 0 for the text that ships; a change names the version it was made from
     */
    record KeptText(LetterKind kind, String subject, String body, int version) {
        LetterText text() {
            return new LetterText(subject, body);
        }
    }

    private final LetterTextTable table;
    private final Transactions transactions;
    private final Words words;

    LetterTexts(LetterTextTable table, Transactions transactions, Words words) {
        this.table = table;
        this.transactions = transactions;
        this.words = words;
    }

    List<KeptText> all(Locale language) {
        return Arrays.stream(LetterKind.values()).map(kind -> of(kind, language)).toList();
    }

    /** The text of a kind of letter in a language: the office's own where it wrote one, else the one that ships in this language. */
    KeptText of(LetterKind kind, Locale language) {
        return table.of(kind, language.getLanguage()).map(own -> new KeptText(kind, own.subject(), own.body(), own.version())).orElseGet(() -> shipped(kind, language));
    }

    /**
     * Keeps the office's own words.
     *
     * @throws Problem with status 422 naming the field, or 409 when the text was changed since {@code version}
     */
    KeptText save(LetterKind kind, Locale language, int version, String subject, String body) {
        check(subject, body);
        if (transactions.durably(() -> table.save(kind, language.getLanguage(), version, subject, body)) != 1) {
            throw Problem.conflict("changed-elsewhere");
        }
        return of(kind, language);
    }

    /** Goes back to the words that ship. */
    KeptText reset(LetterKind kind, Locale language) {
        transactions.durably(() -> table.delete(kind, language.getLanguage()));
        return shipped(kind, language);
    }

    LetterText check(String subject, String body) {
        LetterText.fault(subject, body).ifPresent(fault -> {
            throw Problem.refused("fields").at(fault);
        });
        return new LetterText(subject, body);
    }

    private KeptText shipped(LetterKind kind, Locale language) {
        Words spoken = words.in(language);
        return new KeptText(kind, spoken.of("letter." + kind + ".subject"), spoken.of("letter." + kind + ".body"), 0);
    }
}
