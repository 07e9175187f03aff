package oakbasket.core.arrival;

import oakbasket.core.filekind.FileKind;
import oakbasket.core.naming.SafeName;

/** What an item does with a ZIP that is sent for it. */
public enum Archives {
    /** It is a file like any other. */
    AS_SENT,
    /** Its files are taken out, and each is judged, filed and counted as if it had been sent by itself; the ZIP is dropped. */
    OPENED,
    /** The same, and the ZIP lies beside its files; it counts for nothing. */
    OPENED_AND_KEPT;

    /** Whether a file of this name is opened on arrival. */
    public boolean open(String fileName) {
        return this != AS_SENT && FileKind.endingOf(SafeName.of(fileName)).equals("zip");
    }
}
