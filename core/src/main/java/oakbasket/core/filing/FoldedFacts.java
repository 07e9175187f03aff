package oakbasket.core.filing;

import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.ConcurrentHashMap;
import oakbasket.core.naming.Folded;
import oakbasket.core.naming.NameFacts;
import org.jspecify.annotations.Nullable;

/** A file as conditions see it. Texts are folded when they are first asked for; many files share theirs, so they are remembered for a run. */
final class FoldedFacts {

    private static final int KIB = 1_024;
    private static final int MOST_REMEMBERED = 20_000;

    /** Folded texts that were asked for. */
    static final class Memory {
        private final Map<String, String> known = new ConcurrentHashMap<>();

        String of(String text) {
            if (known.size() > MOST_REMEMBERED) {
                known.clear();
            }
            return known.computeIfAbsent(text, Folded::of);
        }
    }

    private final FilingFacts facts;
    private final Memory memory;
    private final @Nullable String[] texts = new @Nullable String[Subject.values().length];
    private @Nullable List<String> groups;

    FoldedFacts(FilingFacts facts, Memory memory) {
        this.facts = facts;
        this.memory = memory;
    }

    FilingFacts facts() {
        return facts;
    }

    List<String> groups() {
        List<String> made = groups;
        if (made == null) {
            made = facts.groups().stream().map(memory::of).toList();
            groups = made;
        }
        return made;
    }

    long kibibytes() {
        return (facts.sizeBytes() + KIB - 1) / KIB;
    }

    String folded(Subject subject) {
        String made = texts[subject.ordinal()];
        if (made == null) {
            // Names differ from file to file and would only fill the memory.
            made = subject == Subject.NAME ? Folded.of(raw(subject)) : memory.of(raw(subject));
            texts[subject.ordinal()] = made;
        }
        return made;
    }

    String raw(Subject subject) {
        NameFacts names = facts.names();
        return switch (subject) {
            case ROUND -> names.round();
            case ITEM -> names.item();
            case PERSON -> names.person();
            case EMAIL -> names.email();
            case ORGANISATION -> names.organisation();
            case REFERENCE -> names.reference();
            case NAME -> names.original();
            default -> throw new IllegalArgumentException(subject.name());
        };
    }

    String choice(Subject subject) {
        return switch (subject) {
            case KIND -> facts.kind() == null ? Subject.NO_KIND : Objects.requireNonNull(facts.kind()).name();
            case IDENTITY -> facts.identity().name();
            case SOURCE -> facts.source().name();
            case LATE -> facts.late() ? Subject.YES : Subject.NO;
            default -> throw new IllegalArgumentException(subject.name());
        };
    }
}
