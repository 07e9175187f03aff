package oakbasket.core.arrival;

/**
 * How much may come out of one archive, counted while it comes: what an archive says of itself proves nothing. An archive of a few kilobytes can hold
 * petabytes (D. Fifield, "A better zip bomb", WOOT 2019; deflate alone reaches 1,032 to 1).
 */
public final class ArchiveBudget {

    /** Entries of one archive, folders included. */
    public static final int MOST_ENTRIES = 5_000;
    /** How many times larger than the archive its content may be. */
    public static final long MOST_RATIO = 200;
    /** What may come out of any archive, however small, in bytes. */
    public static final long ALWAYS_BYTES = 1L << 20;

    private final long most;
    private long taken;

    /**
     * For one archive.
     *
     * @param archiveBytes its length
     * @param mostBytes what may come out of it at most, however large it is
     */
    public ArchiveBudget(long archiveBytes, long mostBytes) {
        this.most = Math.min(mostBytes, Math.max(ALWAYS_BYTES, archiveBytes * MOST_RATIO));
    }

    /** Takes bytes that came out; false when they are too many. */
    public boolean take(long bytes) {
        taken += bytes;
        return taken <= most;
    }

    /** What may still come out. */
    public long left() {
        return Math.max(0, most - taken);
    }
}
