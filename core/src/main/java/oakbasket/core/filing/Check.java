package oakbasket.core.filing;

import com.google.re2j.Pattern;
import com.google.re2j.PatternSyntaxException;
import java.util.List;
import java.util.function.Predicate;
import oakbasket.core.fault.FaultyValue;
import oakbasket.core.naming.Folded;

/** A condition made ready to be asked many times. */
final class Check {

    private static final long LARGEST_KIB = 1L << 40;

    private final Condition condition;
    private final String folded;
    private final long amount;
    private final Predicate<String> text;

    private Check(Condition condition, String folded, long amount, Predicate<String> text) {
        this.condition = condition;
        this.folded = folded;
        this.amount = amount;
        this.text = text;
    }

    /**
     * Reads a condition.
     *
     * @throws FaultyValue when it asks what cannot be asked
     */
    static Check of(Condition condition) {
        if (!condition.subject().tests().contains(condition.test())) {
            throw new FaultyValue("condition-test");
        }
        String value = condition.value().strip();
        if (value.isEmpty()) {
            throw new FaultyValue("condition-value");
        }
        if (value.length() > Condition.LONGEST) {
            throw new FaultyValue("longest", Condition.LONGEST);
        }
        if (!condition.subject().isText()) {
            return condition.subject() == Subject.SIZE ? new Check(condition, value, amount(value), any -> true) : choice(condition, value);
        }
        if (condition.test() == Test.MATCHES) {
            return new Check(condition, value, 0, expression(value));
        }
        String wanted = Folded.of(value);
        return new Check(condition, wanted, 0, switch (condition.test()) {
            case IS -> wanted::equals;
            case IS_NOT -> given -> !given.equals(wanted);
            case CONTAINS -> given -> given.contains(wanted);
            case CONTAINS_NOT -> given -> !given.contains(wanted);
            case BEGINS -> given -> given.startsWith(wanted);
            default -> given -> given.endsWith(wanted);
        });
    }

    private static Check choice(Condition condition, String value) {
        if (!condition.subject().choices().contains(value)) {
            throw new FaultyValue("condition-choice");
        }
        boolean is = condition.test() == Test.IS;
        return new Check(condition, value, 0, given -> given.equals(value) == is);
    }

    private static long amount(String value) {
        if (!value.matches("\\d{1,13}") || Long.parseLong(value) > LARGEST_KIB) {
            throw new FaultyValue("condition-size");
        }
        return Long.parseLong(value);
    }

    private static Predicate<String> expression(String value) {
        try {
            Pattern pattern = Pattern.compile(value, Pattern.CASE_INSENSITIVE);
            return pattern::matches;
        } catch (PatternSyntaxException wrong) {
            throw new FaultyValue("condition-expression", wrong.getDescription());
        }
    }

    Condition condition() {
        return condition;
    }

    Subject subject() {
        return condition.subject();
    }

    Test test() {
        return condition.test();
    }

    String folded() {
        return folded;
    }

    long kib() {
        return amount;
    }

    boolean negative() {
        return test() == Test.IS_NOT || test() == Test.CONTAINS_NOT;
    }

    /** Whether a text or choice fits; of a text in its folded form, but for an expression. */
    boolean fits(String value) {
        return text.test(value);
    }

    /** Whether it holds for a file. */
    boolean holds(FoldedFacts file) {
        return switch (subject()) {
            case SIZE -> test() == Test.AT_LEAST ? file.kibibytes() >= amount : file.kibibytes() <= amount;
            case GROUP -> ofGroups(test() == Test.MATCHES ? file.facts().groups() : file.groups());
            case KIND, IDENTITY, SOURCE, LATE -> fits(file.choice(subject()));
            default -> fits(test() == Test.MATCHES ? file.raw(subject()) : file.folded(subject()));
        };
    }

    private boolean ofGroups(List<String> groups) {
        return negative() ? groups.stream().allMatch(text) : groups.stream().anyMatch(text);
    }
}
