package oakbasket.core.filing;

/**
 * Where a file lies: a root and a path below it, written as one text. Paths of the first root are written as they are; of another as {@code :2/folder/name}, since
 * no folder may hold a colon.
 */
public final class Place {

    /** The root that every office has. */
    public static final long FIRST_ROOT = 1;

    private Place() {
    }

    /** The text for a path in a root. */
    public static String of(long root, String path) {
        return root <= FIRST_ROOT ? path : ":" + root + "/" + path;
    }

    /**
     * The root of a place.
     *
     * @throws IllegalArgumentException when it is not written so
     */
    public static long root(String place) {
        if (!place.startsWith(":")) {
            return FIRST_ROOT;
        }
        int slash = place.indexOf('/');
        if (slash < 0) {
            throw new IllegalArgumentException(place);
        }
        return Long.parseLong(place.substring(1, slash));
    }

    /** The path below the root. */
    public static String path(String place) {
        return place.startsWith(":") ? place.substring(place.indexOf('/') + 1) : place;
    }

    /** The place without its last segment; empty for what lies directly in the first root. */
    public static String folder(String place) {
        int slash = place.lastIndexOf('/');
        return slash < 0 ? "" : place.substring(0, slash);
    }

    /** The last segment. */
    public static String name(String place) {
        return place.substring(place.lastIndexOf('/') + 1);
    }
}
