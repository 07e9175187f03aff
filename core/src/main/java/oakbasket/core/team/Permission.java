package oakbasket.core.team;

/** What an operation of the desk needs. */
public enum Permission {
    /** To see, and to take away a copy. */
    SEE,
    /** To change what is only one's own: password, second factor, how one is told. */
    OWN,
    /** To change rounds, contacts, papers and letters. */
    CHANGE,
    /** To make a link that anybody who holds it can use. */
    OPEN_LINK,
    /** To hand files out. */
    HAND_OUT,
    /** To set up what holds for the whole office. */
    SET_UP,
    /** To say who belongs to the office, and to read who did what. */
    ADMINISTER
}
