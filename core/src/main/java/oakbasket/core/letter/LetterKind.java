package oakbasket.core.letter;

/** What a letter is for. */
public enum LetterKind {
    /** The first letter of a round: what is asked, by when, and the personal link. */
    INVITATION,
    /** Before or on the day of the deadline, to those who still owe. */
    REMINDER,
    /** After the deadline, to those who still owe. */
    OVERDUE,
    /** A paper was sent back: why, and that it is owed again. */
    RETURN
}
