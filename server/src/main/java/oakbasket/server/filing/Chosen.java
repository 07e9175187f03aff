package oakbasket.server.filing;

import oakbasket.core.filing.FilingDecision;
import oakbasket.server.journal.Why;
import org.jspecify.annotations.Nullable;

/**
 * Where a file goes.
 *
 * @param place a free place
 * @param waits why it cannot lie where it should, so that it waits elsewhere; null when it can
 * @param wanted where it should lie
 * @param decision what else the rules want; null for what counts for nothing yet
 */
public record Chosen(String place, @Nullable String waits, String wanted, Why why, @Nullable FilingDecision decision) {

    /** The same for a file that has its place already. */
    public Chosen at(String known) {
        return new Chosen(known, waits, wanted, why, decision);
    }

    /** Whether it waits in the tray. */
    public boolean tray() {
        return decision != null && decision.tray();
    }
}
