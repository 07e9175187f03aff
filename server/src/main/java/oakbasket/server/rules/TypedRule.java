package oakbasket.server.rules;

import java.util.ArrayList;
import java.util.List;
import oakbasket.core.filing.Condition;
import oakbasket.core.filing.FilingRule;
import oakbasket.core.filing.FilingRuleBuilder;
import oakbasket.core.filing.Placement;
import oakbasket.core.filing.RulesCheck;
import oakbasket.core.filing.Subject;
import oakbasket.core.filing.Test;
import oakbasket.server.problem.Problem;
import org.jspecify.annotations.Nullable;

/** A rule as typed; what is missing is empty. */
public record TypedRule(@Nullable String name, @Nullable Boolean active, FilingRule.@Nullable Join join, @Nullable List<TypedCondition> conditions, @Nullable Boolean also, @Nullable TypedPlacement place,
        @Nullable Boolean tray, @Nullable List<TypedPlacement> copies, @Nullable String mark, @Nullable String tell) {

    /** A condition as typed. */
    public record TypedCondition(@Nullable Subject subject, @Nullable Test test, @Nullable String value) {
    }

    /** A place as typed. */
    public record TypedPlacement(@Nullable Long root, @Nullable String folder, @Nullable String name) {
    }

    /**
     * Reads a list of rules.
     *
     * @throws Problem with status 400 when it is none, or much too long
     */
    public static List<FilingRule> read(List<TypedRule> typed) {
        List<FilingRule> read = new ArrayList<>();
        for (TypedRule rule : typed) {
            if (rule == null || read.size() > RulesCheck.MOST_RULES) {
                throw Problem.unreadable("unreadable");
            }
            read.add(rule.rule());
        }
        return read;
    }

    private FilingRule rule() {
        return FilingRuleBuilder.builder().name(text(name)).active(active == null || active).join(join == null ? FilingRule.Join.ALL : join)
                .conditions(or(conditions).stream().map(TypedRule::condition).toList()).also(also != null && also).place(place == null ? null : placement(place)).tray(tray != null && tray)
                .copies(or(copies).stream().map(TypedRule::placement).toList()).mark(text(mark)).tell(text(tell)).build();
    }

    private static Condition condition(@Nullable TypedCondition typed) {
        if (typed == null || typed.subject() == null || typed.test() == null) {
            throw Problem.unreadable("unreadable");
        }
        return new Condition(typed.subject(), typed.test(), text(typed.value()));
    }

    private static Placement placement(@Nullable TypedPlacement typed) {
        if (typed == null) {
            throw Problem.unreadable("unreadable");
        }
        return new Placement(typed.root() == null ? 0 : typed.root(), text(typed.folder()), text(typed.name()));
    }

    private static String text(@Nullable String given) {
        return given == null ? "" : given.strip();
    }

    private static <T> List<T> or(@Nullable List<T> given) {
        return given == null ? List.of() : given;
    }
}
