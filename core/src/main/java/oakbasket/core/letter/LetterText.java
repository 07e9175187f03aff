package oakbasket.core.letter;

import java.util.Optional;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import oakbasket.core.fault.Fault;
import oakbasket.core.fault.FaultyValue;

/**
 * The text of a letter as a coordinator writes it, with fields in braces. It is checked when it is typed: a text that exists can be sent.
 *
 * @param subject one line
 * @param body plain text
 */
public record LetterText(String subject, String body) {

    /** The longest subject in characters, before fields are filled in. */
    public static final int LONGEST_SUBJECT = 150;
    /** The longest body in characters, before fields are filled in. */
    public static final int LONGEST_BODY = 5_000;
    /** A line of a mail header has at most 998 characters (RFC 5322, 2.1.1); this leaves room for its coding. */
    private static final int LONGEST_SUBJECT_SENT = 250;
    private static final Pattern FIELD = Pattern.compile("\\{([^{}\\n]*)}");

    /** What keeps a text from being used; empty when nothing does. */
    public static Optional<Fault> fault(String subject, String body) {
        if (subject.isBlank() || subject.length() > LONGEST_SUBJECT) {
            return Optional.of(subject.isBlank() ? Fault.of("subject", "subject-missing") : Fault.of("subject", "longest", LONGEST_SUBJECT));
        }
        if (subject.chars().anyMatch(Character::isISOControl)) {
            return Optional.of(Fault.of("subject", "subject-one-line"));
        }
        if (body.isBlank() || body.length() > LONGEST_BODY) {
            return Optional.of(body.isBlank() ? Fault.of("body", "body-missing") : Fault.of("body", "longest", LONGEST_BODY));
        }
        Optional<Fault> unknown = unknown("subject", subject).or(() -> unknown("body", body));
        if (unknown.isPresent()) {
            return unknown;
        }
        if (names(subject, LetterField.PAPERS)) {
            return Optional.of(Fault.of("subject", "subject-field-long", LetterField.PAPERS.written(), LetterField.ROUND.written()));
        }
        return names(body, LetterField.PAPERS) ? Optional.empty()
                : Optional.of(Fault.of("body", "body-without-papers", LetterField.PAPERS.written()));
    }

    public LetterText {
        fault(subject, body).ifPresent(fault -> {
            throw new FaultyValue(fault.remark());
        });
    }

    /** The subject as it goes out: one line without control characters, whatever the fields hold. */
    public String subjectFor(LetterFacts facts) {
        String line = filled(subject, facts::of).replaceAll("[\\p{Cc}\\p{Cf}\\p{Z}\\s]+", " ").strip();
        return line.length() <= LONGEST_SUBJECT_SENT ? line : line.substring(0, LONGEST_SUBJECT_SENT - 1).strip() + "…";
    }

    /** The body as it goes out. What the fields hold is text and never read as fields again. */
    public String bodyFor(LetterFacts facts) {
        return filled(body, facts::of);
    }

    private static String filled(String text, Function<LetterField, String> value) {
        return FIELD.matcher(text).replaceAll(found -> Matcher.quoteReplacement(value.apply(LetterField.find(found.group(1)).orElseThrow())));
    }

    private static boolean names(String text, LetterField field) {
        return FIELD.matcher(text).results().anyMatch(found -> LetterField.find(found.group(1)).orElse(null) == field);
    }

    private static Optional<Fault> unknown(String where, String text) {
        return FIELD.matcher(text).results().map(found -> found.group(1)).filter(name -> LetterField.find(name).isEmpty()).findFirst()
                .map(name -> Fault.of(where, "no-such-field", "{" + name + "}", LetterField.allWritten()));
    }
}
