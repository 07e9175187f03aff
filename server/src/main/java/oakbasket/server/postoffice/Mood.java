package oakbasket.server.postoffice;

/** What the pretend post office does with letters to an address. */
enum Mood {
    /** It takes them. */
    TAKE,
    /** It refuses them for good, as if there were no such mailbox. */
    REFUSE,
    /** It asks to try again later. */
    DEFER,
    /** It takes them, and reports afterwards that they cannot be delivered. */
    BOUNCE
}
