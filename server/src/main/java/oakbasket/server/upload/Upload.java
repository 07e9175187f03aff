package oakbasket.server.upload;

import java.time.Instant;

/**
 * A file on its way in.
 *
 * @param id random, the last part of its tus URL
 * @param metadata what the client said of it when it began, as it was said
 * @param offsetBytes how many bytes are flushed to disk
 * @param touchedAt when something last came
 */
record Upload(String id, long submissionId, long itemId, String fileName, long lengthBytes, long offsetBytes, State state, Instant touchedAt, String metadata) {

    /** The states, in the order of a file's way. */
    enum State {
        /** Bytes are coming. */
        OPEN,
        /** In its folder and recorded. */
        DONE,
        /** Its content was not acceptable; the sender was told. */
        REFUSED,
        /** Received, and kept apart until it can be checked for malware. */
        WAITING,
        /** Malware was found in it; the sender was told, and it is kept apart. */
        FOUND,
        /** An archive whose files were taken out; it is none itself. */
        OPENED;

        /** Whether its sender can still ask about it. */
        boolean known() {
            return this != REFUSED && this != FOUND;
        }
    }
}
