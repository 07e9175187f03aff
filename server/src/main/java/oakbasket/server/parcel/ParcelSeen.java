package oakbasket.server.parcel;

/** Somebody looks at the page behind the link of a person to a parcel. Told after it was noted. */
public record ParcelSeen(long linkId) {
}
