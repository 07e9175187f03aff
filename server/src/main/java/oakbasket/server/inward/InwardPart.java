package oakbasket.server.inward;

import org.jspecify.annotations.Nullable;

/**
 * Something that was attached to a message, and what became of it.
 *
 * @param why why it was not filed; empty where it was
 * @param item the title of the item it was filed for; empty where it was not
 * @param looseId the paper in the tray it became
 * @param fileId the received file it became
 * @param sha256 of what it holds, by which the same picture is known again; null where that was not looked at
 */
public record InwardPart(long messageId, int partNo, String name, long sizeBytes, Outcome outcome, String why, String item, @Nullable Long looseId, @Nullable Long fileId, byte @Nullable [] sha256) {

    /** What became of it. */
    public enum Outcome {
        FILED,
        /** It waits in the tray. */
        TRAY,
        /** It was not taken, and the sender was told why. */
        REFUSED,
        /** It is no paper, such as a signature or a picture in the text; it stays in the message. */
        LEFT_OUT
    }
}
