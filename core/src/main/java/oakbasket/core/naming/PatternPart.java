package oakbasket.core.naming;

import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/** The smallest part of a pattern: text that stands for itself, or a field. */
sealed interface PatternPart {

    /** Text that stands for itself. */
    record Literal(String text) implements PatternPart {
    }

    /**
     * A field.
     *
     * @param dates how a date is written; null for what is no date
     * @param digits how many digits a number has at least
     */
    record Value(NameField field, @Nullable DateTimeFormatter dates, int digits) implements PatternPart {
    }

    String DEFAULT_DATE = "yyyy-MM-dd";
    int MOST_DIGITS = 9;

    /** Reads literal text. */
    static Literal literal(String text, int at) {
        int brace = text.indexOf('}');
        if (brace >= 0) {
            throw new PatternProblem(at + brace, "pattern-unopened");
        }
        for (int i = 0; i < text.length(); i++) {
            if (":\"\\|?*/".indexOf(text.charAt(i)) >= 0 || Character.isISOControl(text.charAt(i))) {
                throw new PatternProblem(at + i, "pattern-character", String.valueOf(text.charAt(i)));
            }
        }
        return new Literal(text);
    }

    /** Reads what stands between braces. */
    static Value value(String inside, int at) {
        int colon = inside.indexOf(':');
        String name = (colon < 0 ? inside : inside.substring(0, colon)).strip();
        NameField field = NameField.find(name).orElseThrow(() -> new PatternProblem(at, "no-such-field", "{" + name + "}", NameField.allWritten()));
        if (colon >= 0 && !field.takesFormat()) {
            throw new PatternProblem(at, "pattern-format-not-taken", "{" + name + "}");
        }
        String format = colon < 0 ? "" : inside.substring(colon + 1).strip();
        if (field == NameField.NUMBER) {
            if (colon >= 0 && !format.matches("0{1," + MOST_DIGITS + "}")) {
                throw new PatternProblem(at, "pattern-number-format", format);
            }
            return new Value(field, null, Math.max(1, format.length()));
        }
        return new Value(field, field.isDate() ? dates(colon < 0 ? DEFAULT_DATE : format, at) : null, 1);
    }

    private static DateTimeFormatter dates(String format, int at) {
        try {
            DateTimeFormatter readable = DateTimeFormatter.ofPattern(format, Locale.ROOT);
            if (format.isEmpty() || readable.format(LocalDateTime.of(2027, 3, 28, 13, 30)).isEmpty()) {
                throw new DateTimeException(format);
            }
            return readable;
        } catch (IllegalArgumentException | DateTimeException wrong) {
            throw new PatternProblem(at, "pattern-date-format", format);
        }
    }

    /** What it becomes for a file; raw. */
    static String raw(PatternPart part, NameFacts facts) {
        if (part instanceof Literal literal) {
            return literal.text();
        }
        Value value = (Value) part;
        return switch (value.field()) {
            case ROUND -> facts.round();
            case GROUP -> facts.group();
            case PERSON -> facts.person();
            case FIRST -> PersonName.of(facts.person()).first();
            case LAST -> PersonName.of(facts.person()).last();
            case ORGANISATION -> facts.organisation();
            case EMAIL -> facts.email();
            case REFERENCE -> facts.reference();
            case SENDER -> facts.sender();
            case ITEM -> facts.item();
            case KIND -> facts.kind();
            case ORIGINAL -> SafeName.stem(facts.original());
            case EXT -> SafeName.extension(facts.original());
            case RECEIVED -> date(facts.received(), value, facts);
            case DEADLINE -> date(facts.deadline(), value, facts);
            case RECEIPT -> facts.receipt();
            case NUMBER -> String.format(Locale.ROOT, "%0" + value.digits() + "d", facts.number());
        };
    }

    private static String date(Instant instant, Value value, NameFacts facts) {
        DateTimeFormatter dates = value.dates();
        return dates == null ? "" : dates.format(instant.atZone(facts.zone()));
    }
}
