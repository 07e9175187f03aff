package oakbasket.server.sharing;

import java.util.List;
import oakbasket.core.team.Role;

/**
 * How a round or a parcel is shared.
 *
 * @param mayChange whether whoever asks may change it
 * @param colleagues everybody who belongs to the office
 */
public record SharingView(long owner, String ownerName, boolean wholeOffice, List<Long> with, boolean mayChange, List<Colleague> colleagues) {

    /** A colleague with whom something can be shared, or who can own it. */
    public record Colleague(long id, String name, Role role) {
    }
}
