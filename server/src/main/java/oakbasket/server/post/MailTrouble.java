package oakbasket.server.post;

/** A letter was not taken. */
public final class MailTrouble extends Exception {

    /** What can be done about it. */
    public enum Kind {
        /** This letter will never be taken, such as one to an address that does not exist. */
        REFUSED,
        /** This letter may be taken later. */
        LATER,
        /** No letter is taken now: the server does not answer or does not let us in. */
        UNREACHABLE
    }

    private static final int LONGEST = 300;

    private final Kind kind;

    MailTrouble(Kind kind, String words) {
        super(words.strip().length() <= LONGEST ? words.strip() : words.strip().substring(0, LONGEST) + "…");
        this.kind = kind;
    }

    /** What can be done about it. */
    public Kind kind() {
        return kind;
    }
}
