package oakbasket.core.letter;

/** What a letter is for. */
public enum LetterKind {
    /** The first letter of a round: what is asked, by when, and the personal link. */
    INVITATION(0),
    /** Somebody was given more time: until when, and what is still owed. */
    EXTENSION(1),
    /** Before or on the day of the deadline, to those who still owe. */
    REMINDER(1),
    /** After the deadline, to those who still owe. */
    OVERDUE(2),
    /** A paper was sent back: why, and that it is owed again. */
    RETURN(3);

    private final int gravity;

    LetterKind(int gravity) {
        this.gravity = gravity;
    }

    /** The graver of two kinds, which one letter has that is about both. */
    public static LetterKind graver(LetterKind one, LetterKind other) {
        return one.gravity >= other.gravity ? one : other;
    }
}
