package oakbasket.server.storage;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.function.Function;

/**
 * Asks the database about many ids in small portions. With as many ids as the table has rows, H2 reads the whole table and compares each row with each id, which
 * at 50,000 takes ten seconds; in portions it goes by the index.
 */
public final class IdChunks {

    private static final int MOST = 1_000;

    private IdChunks() {
    }

    /** The answers to all portions, one after another, the ids in ascending order. */
    public static <T> List<T> ask(Collection<Long> ids, Function<Long[], List<T>> question) {
        Long[] sorted = ids.stream().distinct().sorted().toArray(Long[]::new);
        List<T> answers = new ArrayList<>();
        for (int from = 0; from < sorted.length; from += MOST) {
            answers.addAll(question.apply(Arrays.copyOfRange(sorted, from, Math.min(sorted.length, from + MOST))));
        }
        return answers;
    }
}
