package oakbasket.server.rulebreakers.one;

/** A table that anybody can reach. */
public class OpenTable {
    int rows() {
        return 0;
    }
}
