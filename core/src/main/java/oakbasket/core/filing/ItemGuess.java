package oakbasket.core.filing;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import oakbasket.core.filekind.FileKind;
import oakbasket.core.naming.Folded;
import oakbasket.core.naming.SafeName;

/**
 * Supposes which item of a checklist a file is meant for, by words and numbers its name shares with the title and by its kind (common practice, no source). Only words that fit one item better than any other are sure enough to
 * file by: a tie is no decision, and neither is a kind.
 */
public final class ItemGuess {

    /** An item; without kinds it takes any. */
    public record Item(long id, String title, Set<FileKind> kinds) {
    }

    /**
     * What is supposed.
     *
     * @param item the first of those that fit best
     * @param words the words that name and title share; none when only the kind tells
     * @param alike all that fit equally well, that one included, in the order they were given
     * @param sure whether a file may be filed by it without anybody looking
     */
    public record Guess(long item, List<String> words, List<Long> alike, boolean sure) {
    }

    private static final int SHORTEST_WORD = 3;
    private static final Predicate<String> IS_NUMBER = word -> word.chars().allMatch(Character::isDigit);

    private ItemGuess() {
    }

    /** An item with what its title shares with a name. @param against whether both have numbers, and the title one that the name lacks, as "Payslip 1" has beside {@code payslip 2.pdf} */
    private record Fit(Item item, List<String> words, boolean against) {
        long weight() {
            return words.size() * 2L - (against ? 1 : 0);
        }
    }

    /** The items that share most with the name, among those that take its kind; else those that name its kind. Empty when nothing tells. */
    public static Optional<Guess> of(String fileName, List<Item> items) {
        List<Item> taking = items.stream().filter(item -> item.kinds().isEmpty() || item.kinds().stream().anyMatch(kind -> kind.named(fileName))).toList();
        Set<String> named = words(SafeName.stem(fileName));
        List<Fit> fits = taking.stream().map(item -> fit(item, named)).filter(fit -> fit.words().stream().anyMatch(IS_NUMBER.negate())).toList();
        if (!fits.isEmpty()) {
            long most = fits.stream().mapToLong(Fit::weight).max().orElseThrow();
            List<Fit> best = fits.stream().filter(fit -> fit.weight() == most).toList();
            return Optional.of(new Guess(best.get(0).item().id(), best.get(0).words(), best.stream().map(fit -> fit.item().id()).toList(), best.size() == 1 && !best.get(0).against()));
        }
        List<Long> ofKind = taking.stream().filter(item -> !item.kinds().isEmpty()).map(Item::id).toList();
        return ofKind.isEmpty() ? Optional.empty() : Optional.of(new Guess(ofKind.get(0), List.of(), ofKind, false));
    }

    private static Fit fit(Item item, Set<String> named) {
        Set<String> title = words(item.title());
        boolean against = named.stream().anyMatch(IS_NUMBER) && title.stream().anyMatch(word -> IS_NUMBER.test(word) && !named.contains(word));
        return new Fit(item, title.stream().filter(named::contains).sorted().toList(), against);
    }

    /** Words of three letters and more; numbers of any length, without zeros in front. A number written onto such a word stands for itself, as in {@code payslip2}; a short name with one, as {@code P60}, is one word. */
    private static Set<String> words(String text) {
        return Arrays.stream(Folded.of(text).split("[^\\p{L}\\p{N}]+|(?<=\\p{L}{3})(?=\\p{N})")).filter(word -> !word.isEmpty()).filter(word -> IS_NUMBER.test(word) || word.codePointCount(0, word.length()) >= SHORTEST_WORD)
                .map(word -> IS_NUMBER.test(word) ? word.replaceFirst("^0+(?=.)", "") : word).collect(Collectors.toSet());
    }
}
