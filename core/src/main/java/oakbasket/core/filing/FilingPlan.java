package oakbasket.core.filing;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import oakbasket.core.filing.FilingDecision.Target;
import oakbasket.core.naming.NameField;
import oakbasket.core.naming.NamingPattern;
import org.jspecify.annotations.Nullable;

/**
 * The rules of a round, those of the office after them, and the patterns of the round for whatever no rule places. The same file is always decided in the same
 * way.
 */
public final class FilingPlan {

    private record Ready(RuleRef ref, FilingRule rule, List<Check> checks, @Nullable ReadyPlacement place, List<ReadyPlacement> copies) {
    }

    private record ReadyPlacement(long root, @Nullable NamingPattern folder, @Nullable NamingPattern name) {
        static ReadyPlacement of(Placement typed) {
            return new ReadyPlacement(Math.max(Place.FIRST_ROOT, typed.root()), typed.folder().isBlank() ? null : NamingPattern.folders(typed.folder()),
                    typed.name().isBlank() ? null : NamingPattern.fileName(typed.name()));
        }

        boolean uses(NameField field) {
            return folder != null && folder.uses(field) || name != null && name.uses(field);
        }
    }

    private final List<Ready> rules = new ArrayList<>();
    private final NamingPattern folders;
    private final NamingPattern name;
    private final FoldedFacts.Memory memory = new FoldedFacts.Memory();

    /**
     * Makes the rules ready.
     *
     * @throws oakbasket.core.fault.FaultyValue when one of them cannot be used; {@link RulesCheck} tells which and why
     */
    public FilingPlan(List<FilingRule> ofRound, List<FilingRule> ofOffice, NamingPattern folders, NamingPattern name) {
        this.folders = folders;
        this.name = name;
        add(RuleRef.Level.ROUND, ofRound);
        add(RuleRef.Level.OFFICE, ofOffice);
    }

    private void add(RuleRef.Level level, List<FilingRule> given) {
        for (int i = 0; i < given.size(); i++) {
            FilingRule rule = given.get(i);
            if (rule.active()) {
                rules.add(new Ready(new RuleRef(level, i + 1, rule.name()), rule, rule.conditions().stream().map(Check::of).toList(), rule.place() == null ? null : ReadyPlacement.of(rule.place()),
                        rule.copies().stream().map(ReadyPlacement::of).toList()));
            }
        }
    }

    /** Whether a field stands in any of the patterns; what costs much to find out need not be found out otherwise. */
    public boolean uses(NameField field) {
        return folders.uses(field) || name.uses(field) || rules.stream().anyMatch(rule -> rule.place() != null && rule.place().uses(field) || rule.copies().stream().anyMatch(copy -> copy.uses(field)));
    }

    /** Decides where a file goes. */
    public FilingDecision decide(FilingFacts facts) {
        FoldedFacts file = new FoldedFacts(facts, memory);
        Ready placing = null;
        List<Ready> adding = new ArrayList<>();
        for (Ready rule : rules) {
            if (rule.rule().also() ? holds(rule, file) : placing == null && holds(rule, file)) {
                if (!rule.rule().also()) {
                    placing = rule;
                }
                adding.add(rule);
            }
        }
        Target target = target(placing == null ? null : placing.place(), facts);
        Map<Target, FilingDecision.Copied> copies = new LinkedHashMap<>();
        Set<String> marks = new LinkedHashSet<>();
        Set<String> tells = new LinkedHashSet<>();
        for (Ready rule : adding) {
            for (ReadyPlacement copy : rule.copies()) {
                Target to = target(copy, facts);
                copies.putIfAbsent(to, new FilingDecision.Copied(to, rule.ref(), because(rule, file)));
            }
            marks.add(rule.rule().mark());
            tells.add(rule.rule().tell());
        }
        marks.remove("");
        tells.remove("");
        copies.remove(target);
        RuleRef ref = placing == null ? null : placing.ref();
        return new FilingDecision(ref, placing == null ? List.of() : because(placing, file), target, placing != null && placing.rule().tray(), List.copyOf(copies.values()), List.copyOf(marks),
                List.copyOf(tells), adding.stream().map(Ready::ref).filter(one -> !Objects.equals(one, ref)).toList());
    }

    /** Where a file goes that no rule is asked about. */
    public Target unruled(FilingFacts facts) {
        return target(null, facts);
    }

    /** How the conditions of a rule are joined. */
    public FilingRule.Join joinOf(RuleRef ref) {
        return rules.stream().filter(rule -> rule.ref().equals(ref)).map(rule -> rule.rule().join()).findFirst().orElse(FilingRule.Join.ALL);
    }

    private Target target(@Nullable ReadyPlacement place, FilingFacts facts) {
        NamingPattern into = place == null || place.folder() == null ? folders : place.folder();
        NamingPattern called = place == null || place.name() == null ? name : place.name();
        return new Target(place == null ? Place.FIRST_ROOT : place.root(), into.render(facts.names()), called.render(facts.names()));
    }

    private static boolean holds(Ready rule, FoldedFacts file) {
        List<Check> checks = rule.checks();
        boolean all = rule.rule().join() == FilingRule.Join.ALL || checks.isEmpty();
        for (Check check : checks) {
            if (check.holds(file) != all) {
                return !all;
            }
        }
        return all;
    }

    private static List<Condition> because(Ready rule, FoldedFacts file) {
        return rule.checks().stream().filter(check -> check.holds(file)).map(Check::condition).toList();
    }
}
