package oakbasket.core.arrival;

/** What an item does with files as they arrive. */
public record ArrivalPlan(Archives archives, Unchecked unchecked) {

    /** An archive is a file, and what nobody could check waits. */
    public static final ArrivalPlan USUAL = new ArrivalPlan(Archives.AS_SENT, Unchecked.WAIT);
}
