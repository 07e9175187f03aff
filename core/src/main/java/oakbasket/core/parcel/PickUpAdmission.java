package oakbasket.core.parcel;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/** Decides whether somebody may take a parcel away now. The order of the checks is part of the rule. */
public enum PickUpAdmission {
    ADMITTED,
    /** Also for what was stopped or taken back from this person: strangers cannot tell them apart. */
    UNKNOWN,
    NOT_YET_BEGUN,
    ENDED,
    PASSCODE_NEEDED;

    /**
     * Decides.
     *
     * @param terms those of the parcel; null when no such link exists
     * @param withdrawn whether the link of this person was withdrawn
     * @param passcodeGiven whether the passcode was given rightly, or none is asked
     */
    public static PickUpAdmission decide(@Nullable ParcelTerms terms, boolean withdrawn, boolean passcodeGiven, Instant now) {
        if (terms == null || withdrawn) {
            return UNKNOWN;
        }
        return switch (ParcelState.of(terms, now)) {
            case DRAFT, STOPPED -> UNKNOWN;
            case WAITING -> NOT_YET_BEGUN;
            case ENDED, PURGED -> ENDED;
            case LIVE -> passcodeGiven ? ADMITTED : PASSCODE_NEEDED;
        };
    }
}
