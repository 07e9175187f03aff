package oakbasket.server.journal;

import java.util.List;
import oakbasket.core.filing.Condition;
import oakbasket.core.filing.FilingRule;
import oakbasket.core.filing.RuleRef;
import org.jspecify.annotations.Nullable;

/**
 * Why something was done to a file.
 *
 * @param code names the reason; its words stand under {@code why.} in the message files
 * @param rule the rule that decided; null when none did
 * @param because the conditions of that rule that held
 * @param note what somebody wrote beside it; null when nothing
 */
public record Why(String code, @Nullable RuleRef rule, @Nullable List<Condition> because, FilingRule.@Nullable Join join, @Nullable String note) {

    /** A reason that is nobody's rule. */
    public static Why of(String code) {
        return new Why(code, null, null, null, null);
    }

    /** A reason with a note. */
    public static Why noted(String code, String note) {
        return new Why(code, null, null, null, note);
    }
}
