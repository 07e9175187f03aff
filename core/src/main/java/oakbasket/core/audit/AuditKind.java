package oakbasket.core.audit;

/** What somebody did. */
public enum AuditKind {
    /** Signed in or out, or was kept from it. */
    SIGNED,
    CHANGED,
    SAW,
    /** Took a copy away. */
    TOOK,
    /** Tried what they may not. */
    REFUSED
}
