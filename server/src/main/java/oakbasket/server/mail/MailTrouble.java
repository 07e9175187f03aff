package oakbasket.server.mail;

import oakbasket.core.fault.Remark;
import org.jspecify.annotations.Nullable;

/** A letter was not taken. */
public final class MailTrouble extends Exception {

    /** What can be done about it. */
    public enum Kind {
        /** This letter will never be taken, such as one to an address that does not exist. */
        REFUSED,
        /** This letter may be taken later. */
        LATER,
        /** No letter is taken now: the server does not answer or does not let us in. */
        UNREACHABLE,
        /** The letter was handed over and the server did not say whether it took it. */
        UNCERTAIN
    }

    private static final int LONGEST = 300;

    private final Kind kind;
    private final transient Remark reason;

    MailTrouble(Kind kind, String code, Object... arguments) {
        super(code);
        this.kind = kind;
        this.reason = Remark.of(code, arguments);
    }

    /**
     * Trouble that the other side told in words of its own.
     *
     * @param reply what it said; null when nothing
     */
    static MailTrouble told(Kind kind, @Nullable String reply) {
        return new MailTrouble(kind, "mail-reply", brief(reply));
    }

    /** Trouble on the way to the server. */
    static MailTrouble remarked(Remark reason) {
        return new MailTrouble(Kind.UNREACHABLE, reason.code(), reason.arguments().toArray());
    }

    static String brief(@Nullable String reply) {
        String plain = String.valueOf(reply).strip();
        return plain.length() <= LONGEST ? plain : plain.substring(0, LONGEST) + "…";
    }

    /** Why, for the coordinator. */
    public Remark reason() {
        return reason;
    }

    /** What can be done about it. */
    public Kind kind() {
        return kind;
    }
}
