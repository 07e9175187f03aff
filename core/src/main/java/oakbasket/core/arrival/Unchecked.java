package oakbasket.core.arrival;

/** What an item does with files that could not be checked for malware, because the scanner was away or could not read them. */
public enum Unchecked {
    /** They are received and kept apart until the scanner is back or a coordinator lets them in. */
    WAIT,
    /** They are filed with a mark that says so. */
    PASS
}
