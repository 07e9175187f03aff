package oakbasket.core.parcel;

import java.time.Instant;
import oakbasket.core.link.LinkWindow;
import org.jspecify.annotations.Nullable;

/**
 * On which terms a parcel can be taken away.
 *
 * @param handedOutAt when it was handed out; null while it is a draft
 * @param window from when to when; its end is capped as that of every link
 * @param stoppedAt when it was stopped; null while it is not
 * @param purgedAt when its own files were destroyed; null while they are there
 */
public record ParcelTerms(@Nullable Instant handedOutAt, LinkWindow window, @Nullable Instant stoppedAt, @Nullable Instant purgedAt) {

    /** How long a parcel can be taken away where nobody says otherwise (common practice, no source): 14 days. */
    public static final int USUAL_DAYS = 14;
    /** How often each person may take each file away, where that is limited, at most. */
    public static final int MOST_PICK_UPS = 1_000;
    /** For how many days the files of a parcel are kept after its end, at most. */
    public static final int MOST_KEPT_DAYS = 365;
    /** For how many days the files of a parcel are kept after its end where nobody says otherwise. */
    public static final int USUAL_KEPT_DAYS = 30;
}
