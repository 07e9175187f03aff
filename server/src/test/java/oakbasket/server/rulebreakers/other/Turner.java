package oakbasket.server.rulebreakers.other;

import oakbasket.server.rulebreakers.one.Turned;

/** Turns an arrow round. */
public class Turner implements Turned {
    @Override
    public void turn() {
        // Breaking the rule is all it does.
    }
}
