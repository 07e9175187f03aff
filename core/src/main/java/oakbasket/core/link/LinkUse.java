package oakbasket.core.link;

/**
 * What came through a link.
 *
 * @param uses submissions that brought something
 */
public record LinkUse(int uses, int files, long bytes) {

    /** Nothing yet. */
    public static final LinkUse NONE = new LinkUse(0, 0, 0);
}
