package oakbasket.server.parcel;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * People got a link to a parcel, or are to be written to again; told within the transaction that makes it so.
 *
 * @param reminder whether it is a reminder of what they have not taken away
 * @param account null when a plan does
 */
public record ParcelHandedOut(List<ParcelLink> links, boolean reminder, @Nullable Long account) {
}
