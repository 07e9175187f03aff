package oakbasket.server.parcel;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * The way of one person to a parcel.
 *
 * @param contactId null for the link of anybody who holds it
 * @param withdrawnAt when it was taken back; null while it works
 * @param seenAt when the page behind it was first seen; null when it was not
 */
public record ParcelLink(long id, long parcelId, @Nullable Long contactId, byte[] tokenSealed, Instant madeAt, @Nullable Instant withdrawnAt, @Nullable Instant seenAt) {
}
