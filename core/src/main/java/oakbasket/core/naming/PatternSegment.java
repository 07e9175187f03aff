package oakbasket.core.naming;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;

/** What stands between two slashes of a pattern: parts that always stand, and bracketed ones that disappear with an empty field of theirs. */
final class PatternSegment {

    /** Parts that stand or disappear together. */
    private record Run(boolean optional, List<PatternPart> parts) {
        boolean disappears(NameFacts facts) {
            return optional && parts.stream().anyMatch(part -> part instanceof PatternPart.Value && PatternPart.raw(part, facts).isBlank());
        }
    }

    private final List<Run> runs;

    private PatternSegment(List<Run> runs) {
        this.runs = List.copyOf(runs);
    }

    /**
     * Reads it.
     *
     * @param offset where it begins in the whole pattern
     */
    static PatternSegment read(String text, int offset) {
        List<Run> runs = new ArrayList<>();
        List<PatternPart> parts = new ArrayList<>();
        int bracket = -1;
        int literal = 0;
        for (int at = 0; at < text.length(); at++) {
            char c = text.charAt(at);
            if (c != '{' && c != '<' && c != '>') {
                continue;
            }
            if (at > literal) {
                parts.add(PatternPart.literal(text.substring(literal, at), offset + literal));
            }
            if (c == '{') {
                int close = text.indexOf('}', at);
                if (close < 0) {
                    throw new PatternProblem(offset + at, "pattern-unclosed");
                }
                parts.add(PatternPart.value(text.substring(at + 1, close), offset + at));
                at = close;
            } else if (c == '<' == bracket >= 0) {
                throw new PatternProblem(offset + at, c == '<' ? "pattern-part-in-part" : "pattern-part-unopened");
            } else {
                add(runs, c == '>', parts, offset + bracket);
                parts = new ArrayList<>();
                bracket = c == '<' ? at : -1;
            }
            literal = at + 1;
        }
        if (bracket >= 0) {
            throw new PatternProblem(offset + bracket, "pattern-part-unclosed");
        }
        if (text.length() > literal) {
            parts.add(PatternPart.literal(text.substring(literal), offset + literal));
        }
        add(runs, false, parts, offset);
        return new PatternSegment(runs);
    }

    private static void add(List<Run> runs, boolean optional, List<PatternPart> parts, int at) {
        if (optional && parts.stream().noneMatch(PatternPart.Value.class::isInstance)) {
            throw new PatternProblem(at, "pattern-part-plain");
        }
        if (!parts.isEmpty()) {
            runs.add(new Run(optional, List.copyOf(parts)));
        }
    }

    PatternSegment with(NameField field) {
        return new PatternSegment(Stream.concat(runs.stream(), Stream.of(new Run(false, List.of(new PatternPart.Value(field, null, 1))))).toList());
    }

    Stream<NameField> fields() {
        return runs.stream().flatMap(run -> run.parts().stream()).filter(PatternPart.Value.class::isInstance).map(part -> ((PatternPart.Value) part).field());
    }

    boolean uses(NameField field) {
        return fields().anyMatch(one -> one == field);
    }

    /** Whether it holds nothing but parts that may disappear. */
    boolean mayDisappear() {
        return runs.stream().allMatch(Run::optional);
    }

    boolean disappears(NameFacts facts) {
        return runs.stream().allMatch(run -> run.disappears(facts));
    }

    /** Its text, raw; of an empty group where it stands stays what is said of those in none. */
    String render(NameFacts facts) {
        StringBuilder made = new StringBuilder();
        for (Run run : runs) {
            if (!run.disappears(facts)) {
                for (PatternPart part : run.parts()) {
                    String raw = PatternPart.raw(part, facts);
                    made.append(raw.isBlank() && part instanceof PatternPart.Value value && value.field() == NameField.GROUP ? facts.groupless() : raw);
                }
            }
        }
        return made.toString();
    }
}
