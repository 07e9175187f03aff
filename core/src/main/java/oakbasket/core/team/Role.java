package oakbasket.core.team;

/** What somebody of the office is. */
public enum Role {
    /** Also says who belongs to the office and how it is set up; sees every round. */
    ADMINISTRATOR,
    /** Collects: changes the rounds that they own or that are shared with them. */
    COORDINATOR,
    /** Sees and takes away, changes nothing. */
    READER;

    /** Whether somebody of this role may do what needs a permission, as the office has settled it. */
    public boolean may(Permission permission, TeamTerms terms) {
        return switch (permission) {
            case SEE, OWN -> true;
            case CHANGE -> this != READER;
            case OPEN_LINK -> this == ADMINISTRATOR || this == COORDINATOR && terms.coordinatorsMakeOpenLinks();
            case HAND_OUT -> this == ADMINISTRATOR || this == COORDINATOR && terms.coordinatorsHandOut();
            case SET_UP, ADMINISTER -> this == ADMINISTRATOR;
        };
    }
}
