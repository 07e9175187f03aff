package oakbasket.server.round;

/** Says whether anything came for an item; implemented by the capability that keeps received files. */
public interface ItemUse {

    /** How many files came for an item, whatever became of them. */
    int filesOf(long itemId);
}
