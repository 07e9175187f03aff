package oakbasket.core.link;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * The terms of one request link, on top of those of its round.
 *
 * @param pausedAt when it was paused; null while it is not
 * @param withdrawnAt when it was withdrawn; null while it is not
 * @param uses how many submissions through it brought something
 */
public record LinkTerms(LinkWindow window, @Nullable Instant pausedAt, @Nullable Instant withdrawnAt, LinkLimits limits, int uses) {

    /** The terms of a link that was just made. */
    public static LinkTerms fresh(Instant now) {
        return new LinkTerms(LinkWindow.whileGathering(now), null, null, LinkLimits.NONE, 0);
    }

    /** The same with another window. */
    public LinkTerms with(LinkWindow other) {
        return new LinkTerms(other, pausedAt, withdrawnAt, limits, uses);
    }

    /** The same with other limits. */
    public LinkTerms with(LinkLimits other) {
        return new LinkTerms(window, pausedAt, withdrawnAt, other, uses);
    }

    /** The same paused, or not where {@code at} is null. What is paused stays paused since when it was. */
    public LinkTerms paused(@Nullable Instant at) {
        return new LinkTerms(window, at == null || pausedAt == null ? at : pausedAt, withdrawnAt, limits, uses);
    }

    /** The same withdrawn, or not where {@code at} is null. */
    public LinkTerms withdrawn(@Nullable Instant at) {
        return new LinkTerms(window, pausedAt, at == null || withdrawnAt == null ? at : withdrawnAt, limits, uses);
    }

    /** Whether all allowed submissions have come. */
    public boolean usedUp() {
        return limits.uses() != null && uses >= limits.uses();
    }
}
