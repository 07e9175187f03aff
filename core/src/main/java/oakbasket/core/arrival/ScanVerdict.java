package oakbasket.core.arrival;

/** What a malware scanner said of a file. */
public enum ScanVerdict {
    CLEAN,
    FOUND,
    /** It gave no answer, or none that means anything. */
    UNCHECKED;

    /** What becomes of a file. */
    public enum Next {
        FILED,
        /** Filed with the mark that nobody checked it. */
        FILED_WITH_MARK,
        /** Received and kept apart until it is checked. */
        WAITS,
        /** Refused and kept apart until a coordinator decides. */
        QUARANTINED
    }

    /** What becomes of a file of an item after this was said of it. */
    public Next next(Unchecked policy) {
        return switch (this) {
            case CLEAN -> Next.FILED;
            case FOUND -> Next.QUARANTINED;
            case UNCHECKED -> policy == Unchecked.PASS ? Next.FILED_WITH_MARK : Next.WAITS;
        };
    }
}
