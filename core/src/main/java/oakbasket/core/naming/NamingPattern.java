package oakbasket.core.naming;

import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;

/**
 * A pattern that makes folder or file names, such as {@code {round}/{group}/{person}} or
 * {@code {person} - {item} - {received:yyyy-MM-dd}{ext}}. It is checked when it is typed: a pattern that exists can be used.
 */
public final class NamingPattern {

    /** The longest pattern in characters. */
    public static final int LONGEST = 300;
    private static final int MOST_FOLDERS = 8;
    private static final String DEFAULT_DATE = "yyyy-MM-dd";

    private sealed interface Part {
    }

    private record Literal(String text) implements Part {
    }

    private record Value(NameField field, String format) implements Part {
    }

    private final String text;
    private final List<List<Part>> segments;

    private NamingPattern(String text, List<List<Part>> segments) {
        this.text = text;
        this.segments = segments;
    }

    /**
     * Reads a pattern for folders: segments between slashes, relative to the root of all folders.
     *
     * @throws PatternProblem when it has an unknown field, leaves the root, or has an empty folder
     */
    public static NamingPattern folders(String text) {
        checkLength(text);
        if (text.startsWith("/") || text.matches("[A-Za-z]:.*")) {
            throw new PatternProblem(0, "pattern-root");
        }
        List<List<Part>> segments = new ArrayList<>();
        int at = 0;
        for (String segment : text.split("/", -1)) {
            if (segment.isBlank()) {
                throw new PatternProblem(at, "pattern-empty-folder");
            }
            if (segment.strip().matches("\\.+")) {
                throw new PatternProblem(at, "pattern-leads-out", segment.strip());
            }
            segments.add(parse(segment, at));
            at += segment.length() + 1;
        }
        if (segments.size() > MOST_FOLDERS) {
            throw new PatternProblem(0, "pattern-deep", MOST_FOLDERS, segments.size());
        }
        return new NamingPattern(text, segments);
    }

    /**
     * Reads a pattern for file names. Where it does not say {@code {ext}}, the extension is added at the end.
     *
     * @throws PatternProblem when it has an unknown field or a slash, or would give every file the same name
     */
    public static NamingPattern fileName(String text) {
        checkLength(text);
        int slash = text.indexOf('/');
        if (slash >= 0) {
            throw new PatternProblem(slash, "pattern-slash-in-name");
        }
        List<Part> parts = new ArrayList<>(parse(text, 0));
        if (parts.stream().noneMatch(part -> part instanceof Value value && value.field() != NameField.EXT)) {
            throw new PatternProblem(0, "pattern-one-name");
        }
        if (parts.stream().noneMatch(part -> part instanceof Value value && value.field() == NameField.EXT)) {
            parts.add(new Value(NameField.EXT, ""));
        }
        return new NamingPattern(text, List.of(parts));
    }

    /** The safe path for one file: segments joined by slashes, each as {@link SafeName#of} makes it. */
    public String render(NameFacts facts) {
        return segments.stream()
                .map(parts -> SafeName.of(parts.stream().map(part -> text(part, facts)).collect(Collectors.joining())))
                .collect(Collectors.joining("/"));
    }

    /** Whether a field stands in the pattern. */
    public boolean uses(NameField field) {
        return segments.stream().flatMap(List::stream).anyMatch(part -> part instanceof Value value && value.field() == field);
    }

    /** Whether the extension was added at the end because the pattern as typed has none. */
    public boolean completed() {
        return uses(NameField.EXT) && !text.contains("{" + NameField.EXT.written());
    }

    /** As typed. */
    @Override
    public String toString() {
        return text;
    }

    private static void checkLength(String text) {
        if (text.isBlank()) {
            throw new PatternProblem(0, "pattern-missing");
        }
        if (text.length() > LONGEST) {
            throw new PatternProblem(LONGEST, "pattern-long", LONGEST, text.length());
        }
    }

    private static List<Part> parse(String text, int offset) {
        List<Part> parts = new ArrayList<>();
        int at = 0;
        while (at < text.length()) {
            int open = text.indexOf('{', at);
            String literal = text.substring(at, open < 0 ? text.length() : open);
            checkLiteral(literal, offset + at);
            if (!literal.isEmpty()) {
                parts.add(new Literal(literal));
            }
            if (open < 0) {
                break;
            }
            int close = text.indexOf('}', open);
            if (close < 0) {
                throw new PatternProblem(offset + open, "pattern-unclosed");
            }
            parts.add(value(text.substring(open + 1, close), offset + open));
            at = close + 1;
        }
        return List.copyOf(parts);
    }

    private static void checkLiteral(String literal, int at) {
        int brace = literal.indexOf('}');
        if (brace >= 0) {
            throw new PatternProblem(at + brace, "pattern-unopened");
        }
        for (int i = 0; i < literal.length(); i++) {
            if ("<>:\"\\|?*".indexOf(literal.charAt(i)) >= 0 || Character.isISOControl(literal.charAt(i))) {
                throw new PatternProblem(at + i, "pattern-character", String.valueOf(literal.charAt(i)));
            }
        }
    }

    private static Value value(String inside, int at) {
        int colon = inside.indexOf(':');
        String name = (colon < 0 ? inside : inside.substring(0, colon)).strip();
        NameField field = NameField.find(name).orElseThrow(() -> new PatternProblem(at,
                "no-such-field", "{" + name + "}", NameField.allWritten()));
        if (!field.isDate()) {
            if (colon >= 0) {
                throw new PatternProblem(at, "pattern-format-not-taken", "{" + name + "}");
            }
            return new Value(field, "");
        }
        String format = colon < 0 ? DEFAULT_DATE : inside.substring(colon + 1).strip();
        try {
            DateTimeFormatter readable = formatter(format);
            if (readable.format(LocalDateTime.of(2027, 3, 28, 13, 30)).isEmpty()) {
                throw new DateTimeException(format);
            }
        } catch (IllegalArgumentException | DateTimeException wrong) {
            throw new PatternProblem(at, "pattern-date-format", format);
        }
        return new Value(field, format);
    }

    private static DateTimeFormatter formatter(String format) {
        if (format.isEmpty()) {
            throw new IllegalArgumentException("empty");
        }
        return DateTimeFormatter.ofPattern(format, Locale.ROOT);
    }

    private static String text(Part part, NameFacts facts) {
        if (part instanceof Literal literal) {
            return literal.text();
        }
        Value value = (Value) part;
        return switch (value.field()) {
            case ROUND -> facts.round();
            case GROUP -> facts.group();
            case PERSON -> facts.person();
            case ORGANISATION -> facts.organisation();
            case EMAIL -> facts.email();
            case REFERENCE -> facts.reference();
            case ITEM -> facts.item();
            case ORIGINAL -> SafeName.stem(facts.original());
            case EXT -> SafeName.extension(facts.original());
            case RECEIVED -> date(facts.received(), value.format(), facts);
            case DEADLINE -> date(facts.deadline(), value.format(), facts);
            case RECEIPT -> facts.receipt();
            case NUMBER -> Integer.toString(facts.number());
        };
    }

    private static String date(Instant instant, String format, NameFacts facts) {
        return formatter(format).format(instant.atZone(facts.zone()));
    }
}
