package oakbasket.core.standing;

/** What the coordinator said of a received file. */
public enum Review { NONE, ACCEPTED, RETURNED }
