package oakbasket.server.journal;

/** What can be done to a file. */
public enum Act {
    /** It got its first place. */
    PLACED,
    MOVED,
    RENAMED,
    COPIED,
    /** It went to the bin. */
    REMOVED,
    RESTORED,
    /** It was destroyed for good. */
    PURGED,
    /** Somebody changed it by hand on the disk, and that was taken over. */
    RECONCILED
}
