package oakbasket.core.deadline;

import java.time.Duration;
import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * How a basket stands against its effective deadline.
 *
 * @param state the judgement
 * @param by how far past the deadline, for {@code OVERDUE} and {@code LATE}; zero otherwise
 */
public record Timeliness(State state, Duration by) {

    /** The judgements; the first four are for unfinished baskets save {@code IN_GRACE}, which is for both. */
    public enum State { AHEAD, DUE_SOON, IN_GRACE, OVERDUE, ON_TIME, LATE }

    /**
     * Judges a basket. At the very instant of the deadline, and of the end of grace, it is still in time.
     *
     * @param finishedAt when the last required item became satisfied; null while unfinished
     */
    public static Timeliness of(DeadlineTerms terms, @Nullable Instant finishedAt, Instant now) {
        return finishedAt == null ? unfinished(terms, now) : finished(terms, finishedAt);
    }

    private static Timeliness unfinished(DeadlineTerms terms, Instant now) {
        Instant deadline = terms.effective();
        if (now.isAfter(terms.graceEnd())) {
            return new Timeliness(State.OVERDUE, Duration.between(deadline, now));
        }
        if (now.isAfter(deadline)) {
            return plain(State.IN_GRACE);
        }
        return plain(now.isBefore(deadline.minus(terms.warning())) ? State.AHEAD : State.DUE_SOON);
    }

    private static Timeliness finished(DeadlineTerms terms, Instant finishedAt) {
        if (finishedAt.isAfter(terms.graceEnd())) {
            return new Timeliness(State.LATE, Duration.between(terms.effective(), finishedAt));
        }
        return plain(finishedAt.isAfter(terms.effective()) ? State.IN_GRACE : State.ON_TIME);
    }

    private static Timeliness plain(State state) {
        return new Timeliness(state, Duration.ZERO);
    }
}
