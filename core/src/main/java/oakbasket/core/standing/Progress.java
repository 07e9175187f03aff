package oakbasket.core.standing;

/** How far a basket has come. */
public enum Progress {
    /** No invitation sent and no link handed over. */
    NOT_ASKED,
    ASKED,
    /** The sender has seen the page. */
    OPENED,
    /** Something has come, something is still owed. */
    PART,
    /** Every required item arrived, accepted or waived. */
    COMPLETE,
    /** Every required item accepted or waived. */
    CHECKED;

    /** Whether nothing more is owed. */
    public boolean finished() {
        return this == COMPLETE || this == CHECKED;
    }
}
