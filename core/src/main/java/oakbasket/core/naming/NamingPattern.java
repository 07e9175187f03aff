package oakbasket.core.naming;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;

/**
 * A pattern that makes folder or file names, such as {@code {round}/{group}/{person}} or
 * {@code {person} - {item}< - {organisation}> - {received:yyyy-MM-dd}{ext}}. A part in angle brackets disappears with its empty field, and a folder of which
 * nothing else is left disappears too. It is checked when it is typed: a pattern that exists can be used.
 */
public final class NamingPattern {

    /** The longest pattern in characters. */
    public static final int LONGEST = 300;
    private static final int MOST_FOLDERS = 8;

    private final String text;
    private final List<PatternSegment> segments;

    private NamingPattern(String text, List<PatternSegment> segments) {
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
        List<PatternSegment> segments = new ArrayList<>();
        int at = 0;
        for (String segment : text.split("/", -1)) {
            if (segment.isBlank()) {
                throw new PatternProblem(at, "pattern-empty-folder");
            }
            if (segment.strip().matches("\\.+")) {
                throw new PatternProblem(at, "pattern-leads-out", segment.strip());
            }
            segments.add(PatternSegment.read(segment, at));
            at += segment.length() + 1;
        }
        if (segments.size() > MOST_FOLDERS) {
            throw new PatternProblem(0, "pattern-deep", MOST_FOLDERS, segments.size());
        }
        if (segments.stream().allMatch(PatternSegment::mayDisappear)) {
            throw new PatternProblem(0, "pattern-all-optional");
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
        PatternSegment name = PatternSegment.read(text, 0);
        if (name.fields().allMatch(field -> field == NameField.EXT)) {
            throw new PatternProblem(0, "pattern-one-name");
        }
        return new NamingPattern(text, List.of(name.uses(NameField.EXT) ? name : name.with(NameField.EXT)));
    }

    /** The safe path for one file: segments joined by slashes, each as {@link SafeName#of} makes it. */
    public String render(NameFacts facts) {
        if (segments.size() == 1) {
            return SafeName.of(segments.get(0).render(facts));
        }
        return segments.stream().filter(segment -> !segment.disappears(facts)).map(segment -> SafeName.of(segment.render(facts))).collect(Collectors.joining("/"));
    }

    /** Whether a field stands in the pattern. */
    public boolean uses(NameField field) {
        return segments.stream().anyMatch(segment -> segment.uses(field));
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
}
