package oakbasket.server.parcel;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * A file of a parcel.
 *
 * @param number its place among them, from 1; it stays when others go
 * @param offsetBytes how many of its bytes have come
 * @param bytesId where its own bytes lie; null for a received file
 * @param receivedFileId the received file that it is; null where it has bytes of its own
 * @param trouble why it cannot be handed out, as the code of a word; empty when it can, or is not looked at yet
 * @param sha256 null while it was not looked at
 * @param unchecked whether nobody could check it for malware
 * @param takenBackAt when it was taken back from the exchange it lay in; null while it lies there
 * @param answersId the received file that it answers, such as a corrected form; null when none
 * @param answers the name under which that was sent; empty when none
 */
public record ParcelFile(long id, long parcelId, int number, String fileName, long sizeBytes, long offsetBytes, @Nullable String bytesId, @Nullable Long receivedFileId, State state, String trouble,
        byte @Nullable [] sha256, long crc32, String mediaType, boolean unchecked,
        @Nullable Instant takenBackAt, @Nullable Long answersId, String answers) {

    /** How far it is. */
    public enum State {
        /** Its bytes are coming. */
        COMING,
        /** It is being read, compared and looked at for malware. */
        CHECKING,
        /** It can be handed out. */
        READY,
        /** It cannot. */
        REFUSED
    }
}
