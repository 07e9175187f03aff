package oakbasket.core.filing;

/**
 * Names a rule.
 *
 * @param number its place in the list, from 1
 * @param name as it is called; may be empty
 */
public record RuleRef(Level level, int number, String name) {

    /** Whose rules they are. */
    public enum Level {
        ROUND,
        OFFICE
    }
}
