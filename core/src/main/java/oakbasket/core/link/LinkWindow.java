package oakbasket.core.link;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.Optional;
import oakbasket.core.fault.Fault;
import org.jspecify.annotations.Nullable;

/**
 * From when to when a link admits.
 *
 * @param setAt when this window was given: when the link was made or renewed
 * @param beginsAt when it starts to admit; null means at once
 * @param endsAt when it stops; null means while the round gathers, and {@link #LONGEST_LIFE} at most
 */
public record LinkWindow(Instant setAt, @Nullable Instant beginsAt, @Nullable Instant endsAt) {

    /** The longest life of a link (common practice, no source): 180 days. */
    public static final Duration LONGEST_LIFE = Duration.ofDays(180);
    /** How long before its end a link warns. */
    public static final Duration WARNING = Duration.ofDays(14);
    /** How far ahead a link may begin. */
    public static final Duration FARTHEST_BEGIN = Duration.ofDays(365);

    /** A window without limits of its own. */
    public static LinkWindow whileGathering(Instant setAt) {
        return new LinkWindow(setAt, null, null);
    }

    /**
     * A window of some days from its beginning, to the same time of the clock in the zone.
     *
     * @param days from 1 to 180
     */
    public static LinkWindow ofDays(Instant setAt, @Nullable Instant beginsAt, int days, ZoneId zone) {
        Instant begin = beginsAt == null ? setAt : beginsAt;
        Instant end = begin.atZone(zone).plusDays(days).toInstant();
        Instant longest = begin.plus(LONGEST_LIFE);
        // An hour more or less by the change of clocks is no reason to refuse the longest life.
        return new LinkWindow(setAt, beginsAt, end.isAfter(longest) && days <= LONGEST_LIFE.toDays() ? longest : end);
    }

    /** The latest instant at which any window with this beginning ends. */
    public Instant cap() {
        return begin().plus(LONGEST_LIFE);
    }

    /** The first instant at which the link no longer admits anybody. */
    public Instant end() {
        return endsAt == null || endsAt.isAfter(cap()) ? cap() : endsAt;
    }

    /** Whether it has not begun. */
    public boolean waiting(Instant now) {
        return beginsAt != null && now.isBefore(beginsAt);
    }

    /** Whether it is over. */
    public boolean ended(Instant now) {
        return !now.isBefore(end());
    }

    /** What keeps a window from being given; empty when nothing does. */
    public Optional<Fault> fault(Instant now) {
        if (beginsAt != null && beginsAt.isAfter(now.plus(FARTHEST_BEGIN))) {
            return Optional.of(Fault.of("begins", "link-begin-far", FARTHEST_BEGIN.toDays()));
        }
        if (endsAt == null) {
            return Optional.empty();
        }
        if (!endsAt.isAfter(now) || !endsAt.isAfter(begin())) {
            return Optional.of(Fault.of("ends", endsAt.isAfter(now) ? "link-end-before-begin" : "link-end-past"));
        }
        return endsAt.isAfter(cap()) ? Optional.of(Fault.of("ends", "link-end-far", LONGEST_LIFE.toDays())) : Optional.empty();
    }

    private Instant begin() {
        return beginsAt != null && beginsAt.isAfter(setAt) ? beginsAt : setAt;
    }
}
