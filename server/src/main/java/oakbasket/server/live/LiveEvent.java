package oakbasket.server.live;

import org.jspecify.annotations.Nullable;

/**
 * Something an open desk wants to know.
 *
 * @param type what happened: {@code arrival}, {@code basket}, {@code round}, {@code contact}, {@code letter}, {@code link}, {@code held}, {@code filing}, {@code parcel}, {@code taken}, {@code team}, {@code presence} or {@code moment}
 * @param roundId the round; 0 for contacts, parcels, the team and who sees which
 * @param basketId whose basket; null when the whole round changed
 */
public record LiveEvent(String type, long roundId, @Nullable Long basketId) {

    /** Letters changed, and nothing that standings depend on. */
    public static final String LETTER = "letter";

    /** The terms of links changed, and nothing that standings depend on. */
    public static final String LINK = "link";

    /** Something came into the quarantine or left it. */
    public static final String HELD = "held";

    /** Where files lie, or are to lie, changed, and nothing that standings depend on. */
    public static final String FILING = "filing";

    /** Nothing was done, but time passed a point from which baskets of a round stand differently. */
    public static final String MOMENT = "moment";

    /** Parcels changed. */
    public static final LiveEvent PARCELS = new LiveEvent("parcel", 0, null);

    /** Something of a parcel was taken away, and nothing else of it changed. */
    public static final LiveEvent TAKEN = new LiveEvent("taken", 0, null);

    /** Who looks at a round changed, and nothing else. */
    public static final String PRESENCE = "presence";

    /** Who belongs to the office changed, or what they are. */
    public static final LiveEvent TEAM = new LiveEvent("team", 0, null);

    /** Who sees which rounds changed; told to everybody, since it says of no round, and who no longer sees one has to look again. */
    public static final LiveEvent SHARED = new LiveEvent("round", 0, null);

    /** Contacts changed, whichever. */
    public static final LiveEvent CONTACTS = new LiveEvent("contact", 0, null);
}
