package oakbasket.server.parcel;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * What was done with a parcel.
 *
 * @param accountId null when the program did
 * @param said what it was done to, such as a person's name; empty when it was the whole
 */
record ParcelAct(long id, @Nullable Long accountId, Instant at, Kind kind, String said) {

    /** What can be done. */
    enum Kind {
        MADE,
        HANDED_OUT,
        /** Its title, message, files' terms, or anything else that was typed changed after it was handed out. */
        CHANGED,
        PERSON_ADDED,
        PERSON_WITHDRAWN,
        PERSON_GIVEN_BACK,
        NEW_ADDRESS,
        RENEWED,
        /** Other people of the office see it, or somebody else owns it. */
        SHARED,
        STOPPED,
        WENT_ON,
        SENT_AGAIN,
        PURGED,
        FILE_PUT,
        FILE_TAKEN_BACK,
        FILE_PUT_BACK,
        /** What its person may do there changed. */
        RIGHTS,
        WRITTEN,
        ACCEPTED,
        DECLINED
    }
}
