package oakbasket.core.filing;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import oakbasket.core.naming.Folded;

/** Supposes whose a paper is that came without a link, by the words of a name that stand in what it is called or where it lay (common practice, no source). */
public final class PersonGuess {

    /**
     * Somebody it may be of.
     *
     * @param id of whatever the caller keeps for this person
     */
    public record Person(long id, String name) {
    }

    /**
     * What is supposed.
     *
     * @param words the words of the name that were found
     */
    public record Guess(long person, List<String> words) {
    }

    private static final int SHORTEST_WORD = 2;

    private final Map<String, List<Guess>> byLastWord = new HashMap<>();

    /** Prepares for these people. */
    public PersonGuess(Collection<Person> people) {
        for (Person person : people) {
            List<String> words = words(person.name());
            if (!words.isEmpty()) {
                byLastWord.computeIfAbsent(words.get(words.size() - 1), word -> new ArrayList<>()).add(new Guess(person.id(), words));
            }
        }
    }

    /** The one person all of whose name stands in the text, or failing that the one whose last name does; empty when that is nobody or not one alone. */
    public Optional<Guess> of(String text) {
        Set<String> there = Set.copyOf(words(text));
        List<Guess> named = there.stream().flatMap(word -> byLastWord.getOrDefault(word, List.of()).stream()).toList();
        // Of “Ann Mere” and “Ann Lee Mere” the longer name says more.
        int longest = named.stream().filter(guess -> there.containsAll(guess.words())).mapToInt(guess -> guess.words().size()).max().orElse(0);
        List<Guess> best = longest > 0 ? named.stream().filter(guess -> guess.words().size() == longest && there.containsAll(guess.words())).toList()
                : named.stream().map(guess -> new Guess(guess.person(), guess.words().subList(guess.words().size() - 1, guess.words().size()))).toList();
        return best.stream().map(Guess::person).collect(Collectors.toSet()).size() == 1 ? Optional.of(best.get(0)) : Optional.empty();
    }

    private static List<String> words(String text) {
        return Arrays.stream(Folded.of(text).split("[^\\p{L}\\p{N}]+")).filter(word -> word.codePointCount(0, word.length()) >= SHORTEST_WORD).toList();
    }
}
