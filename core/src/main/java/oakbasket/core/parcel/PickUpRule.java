package oakbasket.core.parcel;

import java.time.Duration;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * Says to which pick-up of a file a request belongs. A pick-up is told as taken when the last of its bytes has left, and counts against a limit as soon as nearly all have; a request that goes on with one, after a line that
 * broke or beside others of the same download, is not a second one.
 */
public final class PickUpRule {

    /** How long what broke off can be gone on with. */
    public static final Duration GOES_ON = Duration.ofHours(24);
    /** How long one that broke off takes up a place where they are limited. */
    public static final Duration UNDER_WAY = Duration.ofHours(1);

    /**
     * A pick-up that was begun before, of the same file through the same link.
     *
     * @param caller who began it
     * @param wholeAt when the last byte left; null while some are missing
     * @param lastAt when bytes left last
     */
    public record Before(long id, String caller, Taken taken, @Nullable Instant wholeAt, Instant lastAt) {
    }

    /** What follows for a request. */
    public sealed interface Decision {
    }

    /** It goes on with this pick-up. */
    public record GoesOn(long id) implements Decision {
    }

    /** It begins another one. */
    public record Begins() implements Decision {
    }

    /** As many as are allowed were taken, or are under way. */
    public record UsedUp() implements Decision {
    }

    private PickUpRule() {
    }

    /**
     * Decides.
     *
     * @param before those that were begun, in any order
     * @param from the first byte that is asked for
     * @param bytes how long the file is
     * @param most how many are allowed; null where that is not limited
     */
    public static Decision decide(List<Before> before, long from, long bytes, String caller, @Nullable Integer most, Instant now) {
        Instant since = now.minus(GOES_ON);
        List<Before> newest = before.stream().filter(one -> one.lastAt().isAfter(since)).sorted(Comparator.comparing(Before::lastAt).reversed()).toList();
        Optional<Before> goesOn = newest.stream().filter(one -> unfinished(one, from, bytes) && one.caller().equals(caller)).findFirst();
        if (goesOn.isEmpty() && from > 0) {
            // A telephone that changes from one network to another asks from elsewhere for what is missing.
            goesOn = newest.stream().filter(one -> unfinished(one, from, bytes) && Math.abs(from - one.taken().firstMissing()) <= Taken.ON_THE_LINE)
                    .findFirst()
                    .or(() -> newest.stream().filter(one -> one.caller().equals(caller) && (unfinished(one, from, bytes) || from >= bytes - bytes / Taken.NEARLY_WHOLE_PART)).findFirst());
        }
        if (goesOn.isPresent()) {
            return new GoesOn(goesOn.get().id());
        }
        return most != null && used(before, bytes, now) >= most ? new UsedUp() : new Begins();
    }

    /** Whether a request can go on with a pick-up: with one that is nearly whole only by asking for its end, else everything but the last byte could be had again and again. */
    private static boolean unfinished(Before one, long from, long bytes) {
        return one.wholeAt() == null && (!one.taken().nearlyWhole(bytes) || from >= one.taken().firstMissing() - bytes / Taken.NEARLY_WHOLE_PART);
    }

    /**
     * How many pick-ups count where they are limited: those that are whole or nearly so, those under way, and one more for each time that what left in pieces of others adds up to nearly a whole file, from whatever addresses
     * it was asked for.
     */
    static long used(List<Before> before, long bytes, Instant now) {
        long counted = 0;
        long pieces = 0;
        for (Before one : before) {
            if (one.wholeAt() != null || one.taken().nearlyWhole(bytes) || one.lastAt().isAfter(now.minus(UNDER_WAY))) {
                counted++;
            } else {
                pieces += one.taken().bytes();
            }
        }
        long nearly = Math.max(1, bytes - bytes / Taken.NEARLY_WHOLE_PART);
        return counted + pieces / nearly;
    }
}
