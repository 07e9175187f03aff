package oakbasket.server.parcel;

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
 */
public record ParcelFile(long id, long parcelId, int number, String fileName, long sizeBytes, long offsetBytes, @Nullable String bytesId, @Nullable Long receivedFileId, State state, String trouble,
        byte @Nullable [] sha256, long crc32, String mediaType, boolean unchecked) {

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
