package oakbasket.core.filing;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.LongPredicate;
import oakbasket.core.fault.Fault;
import oakbasket.core.fault.FaultyValue;
import oakbasket.core.fault.Remark;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.naming.Folded;
import oakbasket.core.naming.NamingPattern;
import oakbasket.core.naming.PatternProblem;
import org.jspecify.annotations.Nullable;

/** Says of a list of rules what keeps it from being used, field by field, and which of them can never act. */
public final class RulesCheck {

    /** The most rules of a list. */
    public static final int MOST_RULES = 200;

    /**
     * What is known where the rules are to be used.
     *
     * @param items the titles of the items there are; null where rules are for every round
     * @param roots whether there is a folder root of this number
     */
    public record Context(@Nullable List<String> items, LongPredicate roots) {
    }

    /**
     * A rule that can never act.
     *
     * @param number its place in the list, from 1
     * @param shadowedBy the earlier rule that always comes first; null where its own conditions exclude each other
     */
    public record Idle(int number, @Nullable RuleRef shadowedBy, Remark why) {
    }

    /** The outcome. */
    public record Outcome(List<Fault> errors, List<Idle> idle) {
    }

    private final List<Fault> errors = new ArrayList<>();
    private final Context context;

    private RulesCheck(Context context) {
        this.context = context;
    }

    /**
     * Checks a list.
     *
     * @param before rules that are asked earlier: those of the round, where the list is the office's in a round
     */
    public static Outcome check(List<FilingRule> rules, RuleRef.Level level, List<FilingRule> before, Context context) {
        RulesCheck check = new RulesCheck(context);
        if (rules.size() > MOST_RULES) {
            return new Outcome(List.of(Fault.of("rules", "rules-many", MOST_RULES, rules.size())), List.of());
        }
        for (int i = 0; i < rules.size(); i++) {
            check.rule("rules[" + i + "]", rules.get(i));
        }
        return new Outcome(List.copyOf(check.errors), check.errors.isEmpty() ? check.idle(rules, level, before) : List.of());
    }

    private void rule(String at, FilingRule rule) {
        longest(at + ".name", rule.name(), FilingRule.LONGEST_NAME);
        longest(at + ".mark", rule.mark(), FilingRule.LONGEST_MARK);
        if (rule.conditions().size() > FilingRule.MOST_CONDITIONS) {
            errors.add(Fault.of(at + ".conditions", "conditions-many", FilingRule.MOST_CONDITIONS));
            return;
        }
        for (int i = 0; i < rule.conditions().size(); i++) {
            condition(at + ".conditions[" + i + "]", rule.conditions().get(i));
        }
        if (rule.place() != null) {
            placement(at + ".place", rule.place(), true);
        }
        if (rule.copies().size() > FilingRule.MOST_COPIES) {
            errors.add(Fault.of(at + ".copies", "copies-many", FilingRule.MOST_COPIES));
            return;
        }
        for (int i = 0; i < rule.copies().size(); i++) {
            placement(at + ".copies[" + i + "]", rule.copies().get(i), false);
        }
        if (!rule.tell().isBlank()) {
            try {
                MailAddress.parse(rule.tell());
            } catch (FaultyValue wrong) {
                errors.add(wrong.at(at + ".tell"));
            }
        }
        boolean adds = !rule.copies().isEmpty() || !rule.mark().isBlank() || !rule.tell().isBlank();
        if (rule.also() ? !adds || rule.decides() : !rule.decides()) {
            errors.add(Fault.of(at + ".effects", rule.also() ? "rule-adds-nothing" : "rule-places-nothing"));
        } else if (rule.tray() && rule.place() != null) {
            errors.add(Fault.of(at + ".effects", "rule-tray-and-folder"));
        }
    }

    private void condition(String at, Condition condition) {
        try {
            Check.of(condition);
        } catch (FaultyValue wrong) {
            errors.add(wrong.at(at + ".value"));
        }
    }

    private void placement(String at, Placement place, boolean mayRenameOnly) {
        if (place.root() != 0 && !context.roots().test(place.root())) {
            errors.add(Fault.of(at + ".root", "root-gone"));
        }
        if (place.folder().isBlank() && (!mayRenameOnly || place.name().isBlank() && place.root() <= Place.FIRST_ROOT)) {
            errors.add(Fault.of(at + ".folder", "pattern-missing"));
        }
        pattern(at + ".folder", place.folder(), NamingPattern::folders);
        pattern(at + ".name", place.name(), NamingPattern::fileName);
    }

    private void pattern(String at, String typed, Consumer<String> reading) {
        if (!typed.isBlank()) {
            try {
                reading.accept(typed);
            } catch (PatternProblem problem) {
                errors.add(problem.at(at));
            }
        }
    }

    private void longest(String at, String typed, int most) {
        if (typed.length() > most) {
            errors.add(Fault.of(at, "longest", most));
        }
    }

    private List<Idle> idle(List<FilingRule> rules, RuleRef.Level level, List<FilingRule> before) {
        List<Idle> idle = new ArrayList<>();
        List<Earlier> earlier = new ArrayList<>();
        for (int i = 0; i < before.size(); i++) {
            earlier(before.get(i), new RuleRef(RuleRef.Level.ROUND, i + 1, before.get(i).name())).ifPresent(earlier::add);
        }
        for (int i = 0; i < rules.size(); i++) {
            FilingRule rule = rules.get(i);
            RuleRef ref = new RuleRef(level, i + 1, rule.name());
            if (!rule.active()) {
                continue;
            }
            List<Check> checks = rule.conditions().stream().map(Check::of).toList();
            Optional<Remark> never = never(rule, checks);
            Optional<Earlier> shadow = rule.also() ? Optional.empty() : earlier.stream().filter(one -> Implication.implies(rule.join(), checks, one.rule().join(), one.checks())).findFirst();
            if (never.isPresent()) {
                idle.add(new Idle(i + 1, null, never.get()));
            } else if (shadow.isPresent()) {
                RuleRef by = shadow.get().ref();
                idle.add(new Idle(i + 1, by, Remark.of(by.level() == level ? "rule-shadowed" : "rule-shadowed-by-round", by.number(), by.name())));
            }
            if (never.isEmpty()) {
                earlier(rule, ref).ifPresent(earlier::add);
            }
        }
        return idle;
    }

    private record Earlier(FilingRule rule, RuleRef ref, List<Check> checks) {
    }

    private static Optional<Earlier> earlier(FilingRule rule, RuleRef ref) {
        return rule.also() || !rule.active() ? Optional.empty() : Optional.of(new Earlier(rule, ref, rule.conditions().stream().map(Check::of).toList()));
    }

    private Optional<Remark> never(FilingRule rule, List<Check> checks) {
        if (checks.isEmpty()) {
            return Optional.empty();
        }
        if (rule.join() == FilingRule.Join.ALL) {
            Set<Subject> asked = new HashSet<>();
            checks.forEach(check -> asked.add(check.subject()));
            for (Subject subject : asked) {
                if (Implication.excludesAll(checks.stream().filter(check -> check.subject() == subject).toList())) {
                    return Optional.of(Remark.of("conditions-exclude"));
                }
            }
        }
        List<String> items = context.items();
        List<Check> ofItems = checks.stream().filter(check -> check.subject() == Subject.ITEM).toList();
        boolean all = rule.join() == FilingRule.Join.ALL;
        if (items != null && !ofItems.isEmpty() && (all || ofItems.size() == checks.size())
                && items.stream().map(item -> new ItemText(item)).noneMatch(item -> all ? ofItems.stream().allMatch(item::fits) : ofItems.stream().anyMatch(item::fits))) {
            return Optional.of(Remark.of("rule-no-item"));
        }
        return Optional.empty();
    }

    private record ItemText(String title) {
        boolean fits(Check check) {
            return check.fits(check.test() == Test.MATCHES ? title : Folded.of(title));
        }
    }
}
