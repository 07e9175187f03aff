package oakbasket.core.link;

import java.time.Duration;
import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * The window and limits of one request link.
 *
 * @param createdAt when it was made
 * @param beginsAt when it starts to admit; null means at once
 * @param endsAt when it stops; null means {@link #LONGEST_LIFE} after {@code createdAt}
 * @param pausedAt when it was paused; null while it is not
 * @param withdrawnAt when it was withdrawn for good; null while it is not
 * @param useLimit how many submissions it takes; null means any number
 * @param uses how many submissions came through it
 */
public record LinkTerms(Instant createdAt, @Nullable Instant beginsAt, @Nullable Instant endsAt, @Nullable Instant pausedAt,
        @Nullable Instant withdrawnAt, @Nullable Integer useLimit, int uses) {

    /** The longest life of a link that was left without an end (common practice, no source): 180 days. */
    public static final Duration LONGEST_LIFE = Duration.ofDays(180);
    /** How long before its end a link warns. */
    public static final Duration WARNING = Duration.ofDays(14);

    /** The first instant at which the link no longer admits anybody. */
    public Instant end() {
        Instant cap = createdAt.plus(LONGEST_LIFE);
        return endsAt == null || endsAt.isAfter(cap) ? cap : endsAt;
    }

    /** Whether the window has not begun. */
    public boolean waiting(Instant now) {
        return beginsAt != null && now.isBefore(beginsAt);
    }

    /** Whether the window is over. */
    public boolean ended(Instant now) {
        return !now.isBefore(end());
    }

    /** Whether all allowed submissions have come. */
    public boolean usedUp() {
        return useLimit != null && uses >= useLimit;
    }
}
