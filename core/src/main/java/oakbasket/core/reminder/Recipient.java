package oakbasket.core.reminder;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * What decides whether one person is written to about one basket.
 *
 * @param gathering whether the round gathers
 * @param asked whether the invitation went or the link was handed over
 * @param finishedAt when the last required item became satisfied; null while something is owed
 * @param reachable whether the address took the last letter sent to it
 * @param lastLetter when the last letter went to this person, of whatever round; null when none did
 * @param gap the least time between two letters to one person that nobody sent by hand
 */
public record Recipient(boolean gathering, boolean removed, boolean walkIn, boolean waived, @Nullable Instant finishedAt, boolean paused, boolean asked,
        boolean reachable, @Nullable Instant lastLetter, Duration gap) {

    /** The gap where the office sets no other. */
    public static final Duration MINIMUM_GAP = Duration.ofHours(20);

    /** Why somebody is not written to. */
    public enum Reason { ROUND_NOT_GATHERING, REMOVED, WALK_IN, EXCUSED, COMPLETE, PAUSED, NOT_ASKED, UNREACHABLE, TOO_SOON, SKIPPED, HELD }

    /** Somebody of an office that sets no gap of its own. */
    public Recipient(boolean gathering, boolean removed, boolean walkIn, boolean waived, @Nullable Instant finishedAt, boolean paused, boolean asked, boolean reachable,
            @Nullable Instant lastLetter) {
        this(gathering, removed, walkIn, waived, finishedAt, paused, asked, reachable, lastLetter, MINIMUM_GAP);
    }

    /** The same after a letter that went at this moment. */
    public Recipient after(@Nullable Instant letter) {
        return spaced(gap, letter);
    }

    /** The same with another gap, after a letter that went at this moment. */
    public Recipient spaced(Duration least, @Nullable Instant letter) {
        return new Recipient(gathering, removed, walkIn, waived, finishedAt, paused, asked, reachable, letter, least);
    }

    /** Why no reminder goes at that moment; empty when one does. The first that applies. */
    public Optional<Reason> against(Instant at) {
        return againstOwing().or(() -> Optional.ofNullable(
                paused ? Reason.PAUSED
                : !asked ? Reason.NOT_ASKED
                : !reachable ? Reason.UNREACHABLE
                : lastLetter != null && at.isBefore(lastLetter.plus(gap)) ? Reason.TOO_SOON : null));
    }

    /** Why a letter sent by hand goes only when that is wanted all the same; empty when nothing speaks against it. */
    public Optional<Reason> againstByHand(Instant at) {
        return Optional.ofNullable(paused ? Reason.PAUSED : lastLetter != null && at.isBefore(lastLetter.plus(gap)) ? Reason.TOO_SOON : null);
    }

    /** Why not even a letter sent by hand goes: nothing is owed. Empty when something is. */
    public Optional<Reason> againstOwing() {
        return Optional.ofNullable(
                !gathering ? Reason.ROUND_NOT_GATHERING
                : removed ? Reason.REMOVED
                : walkIn ? Reason.WALK_IN
                : waived ? Reason.EXCUSED
                : finishedAt != null ? Reason.COMPLETE : null);
    }
}
