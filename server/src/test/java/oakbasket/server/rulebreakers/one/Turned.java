package oakbasket.server.rulebreakers.one;

/** An interface that another package implements. */
public interface Turned {
    void turn();
}
