package oakbasket.core.parcel;

import java.time.Duration;
import java.time.Instant;
import oakbasket.core.link.LinkWindow;

/** How a parcel stands for the coordinator. */
public enum ParcelState {
    /** It was not handed out yet. */
    DRAFT,
    /** Its window has not begun. */
    WAITING,
    /** It can be taken away. */
    LIVE,
    /** Somebody stopped it; it can be let go on. */
    STOPPED,
    /** Its window is over; it can be renewed while its files are kept. */
    ENDED,
    /** Its files were destroyed. */
    PURGED;

    /** The state now; the first that applies. */
    public static ParcelState of(ParcelTerms terms, Instant now) {
        if (terms.purgedAt() != null) {
            return PURGED;
        }
        if (terms.handedOutAt() == null) {
            return DRAFT;
        }
        if (terms.stoppedAt() != null) {
            return STOPPED;
        }
        if (terms.window().ended(now)) {
            return ENDED;
        }
        return terms.window().waiting(now) ? WAITING : LIVE;
    }

    /** Whether a live parcel ends within {@link LinkWindow#WARNING} of its end or half of its life, whichever is shorter: one of 7 days does not warn from its first day. */
    public static boolean endsSoon(ParcelTerms terms, Instant now) {
        LinkWindow window = terms.window();
        Duration half = Duration.between(window.setAt(), window.end()).dividedBy(2);
        Duration warning = half.compareTo(LinkWindow.WARNING) < 0 ? half : LinkWindow.WARNING;
        return of(terms, now) == LIVE && !now.isBefore(window.end().minus(warning));
    }
}
