package oakbasket.core.filing;

import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import oakbasket.core.filekind.FileKind;
import oakbasket.core.naming.Folded;
import oakbasket.core.naming.SafeName;

/** Supposes which item of a checklist a file is meant for, by words its name shares with the title and by its kind (common practice, no source). */
public final class ItemGuess {

    /** An item; without kinds it takes any. */
    public record Item(long id, String title, Set<FileKind> kinds) {
    }

    /**
     * What is supposed.
     *
     * @param words the words that name and title share; none when only the kind tells
     */
    public record Guess(long item, List<String> words) {
    }

    private static final int SHORTEST_WORD = 3;

    private ItemGuess() {
    }

    /** The item that shares most words with the name, among those that take its kind; else the only one that names its kind. Empty when nothing tells. */
    public static Optional<Guess> of(String fileName, List<Item> items) {
        List<Item> taking = items.stream().filter(item -> item.kinds().isEmpty() || item.kinds().stream().anyMatch(kind -> kind.named(fileName))).toList();
        Set<String> named = words(SafeName.stem(fileName));
        Optional<Guess> byWords = taking.stream().map(item -> new Guess(item.id(), words(item.title()).stream().filter(named::contains).sorted().toList())).filter(guess -> !guess.words().isEmpty())
                .max(Comparator.comparingInt((Guess guess) -> guess.words().size()).thenComparing(Guess::item, Comparator.reverseOrder()));
        if (byWords.isPresent()) {
            return byWords;
        }
        List<Item> ofKind = taking.stream().filter(item -> !item.kinds().isEmpty()).toList();
        return ofKind.size() == 1 ? Optional.of(new Guess(ofKind.get(0).id(), List.of())) : Optional.empty();
    }

    private static Set<String> words(String text) {
        return Arrays.stream(Folded.of(text).split("[^\\p{L}\\p{N}]+")).filter(word -> word.codePointCount(0, word.length()) >= SHORTEST_WORD).collect(Collectors.toSet());
    }
}
