package oakbasket.core.filing;

/**
 * One condition of a rule, as typed.
 *
 * @param value what is compared with; for {@link Test#MATCHES} a regular expression, for a choice one of {@link Subject#choices}
 */
public record Condition(Subject subject, Test test, String value) {

    /** The longest value in characters. */
    public static final int LONGEST = 300;
}
