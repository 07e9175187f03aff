package oakbasket.core.filing;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Predicate;
import oakbasket.core.naming.ClashNumber;

/** What rules would do to files that lie somewhere already: who moves where, which names clash, how many files each folder then has. Nothing is moved. */
public final class TrialRun {

    /** The most numbers that are tried for one name. */
    private static final int MOST_NUMBERS = 1_000_000;

    /**
     * A file that lies somewhere.
     *
     * @param from its place
     * @param folder the folder that the rules put it in, as {@link Place} writes it
     * @param name what they call it
     */
    public record Candidate(long file, String from, String folder, String name) {
    }

    /**
     * A file that would move.
     *
     * @param clash whether its name was taken, so that it got a number
     */
    public record Move(long file, String from, String to, boolean clash) {
    }

    /** How many files of those looked at a folder has. */
    public record FolderCount(String folder, int before, int after) {
    }

    /** The outcome. @param unchanged how many files stay where they are */
    public record Outcome(List<Move> moves, int unchanged, int clashes, List<FolderCount> folders) {
    }

    private TrialRun() {
    }

    /**
     * Tries. A file that has the name it should have, or that name with a number, stays, so trying again after the moves changes nothing. A place that becomes
     * free is not given to another in the same run: moves then do not depend on each other and each can be taken back by itself.
     *
     * @param files in the order in which they get their names
     * @param taken whether something else lies at a place
     */
    public static Outcome of(List<Candidate> files, Predicate<String> taken) {
        Set<String> occupied = new HashSet<>(files.size() * 2);
        for (Candidate file : files) {
            occupied.add(ClashNumber.key(file.from()));
        }
        Map<String, Integer> next = new HashMap<>();
        Map<String, int[]> folders = new TreeMap<>();
        List<Move> moves = new ArrayList<>();
        int clashes = 0;
        for (Candidate file : files) {
            String to = stays(file) ? file.from() : free(file.folder(), file.name(), occupied, next, taken);
            folders.computeIfAbsent(Place.folder(file.from()), name -> new int[2])[0]++;
            folders.computeIfAbsent(Place.folder(to), name -> new int[2])[1]++;
            if (!to.equals(file.from())) {
                boolean clash = !Place.name(to).equals(file.name());
                clashes += clash ? 1 : 0;
                moves.add(new Move(file.file(), file.from(), to, clash));
            }
        }
        return new Outcome(moves, files.size() - moves.size(), clashes, folders.entrySet().stream().map(one -> new FolderCount(one.getKey(), one.getValue()[0], one.getValue()[1])).toList());
    }

    private static boolean stays(Candidate file) {
        return Place.folder(file.from()).equals(file.folder()) && ClashNumber.isNumbered(Place.name(file.from()), file.name());
    }

    private static String free(String folder, String name, Set<String> occupied, Map<String, Integer> next, Predicate<String> taken) {
        String plain = ClashNumber.key(folder + "/" + name);
        for (int attempt = next.getOrDefault(plain, 1); attempt < MOST_NUMBERS; attempt++) {
            String place = folder + "/" + ClashNumber.on(name, attempt);
            String key = attempt == 1 ? plain : ClashNumber.key(place);
            if (!occupied.contains(key) && !taken.test(place)) {
                occupied.add(key);
                next.put(plain, attempt + 1);
                return place;
            }
        }
        throw new IllegalStateException("No number left");
    }
}
