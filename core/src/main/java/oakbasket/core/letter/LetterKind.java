package oakbasket.core.letter;

/** What a letter is for. */
public enum LetterKind {
    /** The first letter of a round: what is asked, by when, and the personal link. */
    INVITATION(0),
    /** After a sending: what came, and the code of the receipt. */
    RECEIPT(0),
    /** Everything has come. */
    THANKS(0),
    /** Somebody was given more time: until when, and what is still owed. */
    EXTENSION(1),
    /** Before or on the day of the deadline, to those who still owe. */
    REMINDER(1),
    /** After the deadline, to those who still owe. */
    OVERDUE(2),
    /** The last reminder there is: only what is left. */
    LAST_CALL(3),
    /** A paper was sent back: why, and that it is owed again. */
    RETURN(4),
    /** Files are handed out: which, until when, and the personal link. */
    PARCEL(0),
    /** Files that were handed out have not been taken away. */
    PICK_UP(1),
    /** A place in which papers go in both directions: what lies there, until when, and the personal link. */
    EXCHANGE(0);

    private final int gravity;

    LetterKind(int gravity) {
        this.gravity = gravity;
    }

    /** Whether it tells of what came, to somebody who may owe nothing any more; every other kind asks for something. */
    public boolean tellsOfReceived() {
        return this == RECEIPT || this == THANKS;
    }

    /** Whether it brings the personal link of a basket to whoever may not have it yet. */
    public boolean bringsLink() {
        return this == INVITATION || this == EXCHANGE;
    }

    /** Whether it is about files that are handed out; every other kind is about a round. */
    public boolean ofParcel() {
        return this == PARCEL || this == PICK_UP;
    }

    /** The graver of two kinds, which one letter has that is about both. */
    public static LetterKind graver(LetterKind one, LetterKind other) {
        return one.gravity >= other.gravity ? one : other;
    }
}
