package oakbasket.core.deadline;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;

/**
 * The deadline that holds for one basket.
 *
 * @param roundDeadline the round's own deadline
 * @param extension this basket's own deadline, which goes before the round's; null when it has none
 * @param warning how long before the deadline a basket counts as due soon
 * @param grace how long after the deadline a basket is not yet late
 */
public record DeadlineTerms(Instant roundDeadline, @Nullable Instant extension, Duration warning, Duration grace) {

    public DeadlineTerms {
        if (warning.isNegative() || grace.isNegative()) {
            throw new IllegalArgumentException("Warning and grace cannot be negative: " + warning + ", " + grace);
        }
    }

    /** The deadline that counts: the extension where there is one. */
    public Instant effective() {
        return extension == null ? roundDeadline : extension;
    }

    /** The last instant within grace. */
    public Instant graceEnd() {
        return effective().plus(grace);
    }

    /** The instants after which an unfinished basket stands differently though nothing came: the warning begins, the deadline passes, grace ends. */
    public Set<Instant> moments() {
        return new TreeSet<>(List.of(effective().minus(warning), effective(), graceEnd()));
    }
}
