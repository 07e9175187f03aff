package oakbasket.server.refiling;

import oakbasket.server.journal.Why;
import org.jspecify.annotations.Nullable;

/**
 * One file of a batch.
 *
 * @param problem why it was not moved, by its code; empty when it was, or still waits
 * @param undoes the entry of the journal that is taken back; null when none
 */
record RefilingStep(int number, long fileId, String fromPlace, String toPlace, Why why, State state, String problem, @Nullable Long undoes) {

    enum State {
        WAITS,
        DONE,
        FAILED
    }
}
