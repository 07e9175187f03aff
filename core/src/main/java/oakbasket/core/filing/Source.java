package oakbasket.core.filing;

/** How a file came. */
public enum Source {
    /** Through a link of one person alone. */
    PERSONAL_LINK,
    /** Through a link that anybody may have. */
    OPEN_LINK,
    /** Put in at the desk. */
    DESK,
    /** Sent by mail. */
    MAIL
}
