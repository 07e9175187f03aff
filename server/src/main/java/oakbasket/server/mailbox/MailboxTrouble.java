package oakbasket.server.mailbox;

import oakbasket.core.fault.Remark;

/** The mailbox cannot be read. */
public final class MailboxTrouble extends Exception {

    private final transient Remark reason;

    MailboxTrouble(Remark reason, Throwable cause) {
        super(reason.code(), cause);
        this.reason = reason;
    }

    /** Why, for the coordinator. */
    public Remark reason() {
        return reason;
    }
}
