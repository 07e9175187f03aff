package oakbasket.server.start;

import oakbasket.server.OakBasketApplication;
import oakbasket.server.audit.CheckAudit;

/** Starts Oak Basket, or checks the trail of a data folder that no server works on. */
public final class Start {

    private Start() {
    }

    /** What begins. */
    public static void main(String[] args) {
        if (args.length > 0 && args[0].equals(CheckAudit.COMMAND)) {
            System.exit(CheckAudit.run(args));
        }
        OakBasketApplication.main(args);
    }
}
