package oakbasket.core.filing;

import java.util.List;
import java.util.function.Predicate;
import java.util.stream.Stream;

/** Which conditions follow from others. Where it cannot be told, nothing follows: a rule is then not called idle. */
final class Implication {

    private Implication() {
    }

    /** Whether an earlier rule holds for every file for which a later one does. */
    static boolean implies(FilingRule.Join later, List<Check> laterChecks, FilingRule.Join earlier, List<Check> earlierChecks) {
        if (earlierChecks.isEmpty()) {
            return true;
        }
        if (laterChecks.isEmpty()) {
            return false;
        }
        Predicate<List<Check>> follows = given -> earlier == FilingRule.Join.ALL
                ? earlierChecks.stream().allMatch(wanted -> follows(given, wanted))
                : earlierChecks.stream().anyMatch(wanted -> follows(given, wanted)) || coveredTogether(given, earlierChecks);
        return later == FilingRule.Join.ALL ? follows.test(laterChecks) : laterChecks.stream().allMatch(one -> follows.test(List.of(one)));
    }

    /** Whether a condition holds wherever all of these do. */
    private static boolean follows(List<Check> given, Check wanted) {
        List<Check> same = given.stream().filter(check -> check.subject() == wanted.subject()).toList();
        if (!wanted.subject().choices().isEmpty()) {
            return !same.isEmpty() && left(same).allMatch(wanted::fits);
        }
        return same.stream().anyMatch(check -> check.subject() == Subject.SIZE ? sizeFollows(check, wanted) : textFollows(check, wanted));
    }

    /** Whether alternatives about one choice leave nothing out that is possible. */
    private static boolean coveredTogether(List<Check> given, List<Check> alternatives) {
        return alternatives.stream().map(Check::subject).distinct().filter(subject -> !subject.choices().isEmpty()).anyMatch(subject -> {
            List<Check> known = given.stream().filter(check -> check.subject() == subject).toList();
            return (known.isEmpty() ? subject.choices().stream() : left(known))
                    .allMatch(value -> alternatives.stream().anyMatch(check -> check.subject() == subject && check.fits(value)));
        });
    }

    private static Stream<String> left(List<Check> ofOneChoice) {
        return ofOneChoice.get(0).subject().choices().stream().filter(value -> ofOneChoice.stream().allMatch(check -> check.fits(value)));
    }

    private static boolean sizeFollows(Check given, Check wanted) {
        return given.test() == wanted.test() && (given.test() == Test.AT_LEAST ? given.kib() >= wanted.kib() : given.kib() <= wanted.kib());
    }

    private static boolean textFollows(Check given, Check wanted) {
        if (given.test() == wanted.test() && given.folded().equals(wanted.folded())) {
            return true;
        }
        if (given.test() == Test.MATCHES || wanted.test() == Test.MATCHES) {
            return false;
        }
        // Somebody may be in several groups, so that one name says nothing of the others.
        boolean manyValued = given.subject() == Subject.GROUP;
        return switch (given.test()) {
            case IS -> !(manyValued && wanted.negative()) && wanted.fits(given.folded());
            case BEGINS -> wanted.test() == Test.BEGINS && given.folded().startsWith(wanted.folded()) || wanted.test() == Test.CONTAINS && given.folded().contains(wanted.folded());
            case ENDS -> wanted.test() == Test.ENDS && given.folded().endsWith(wanted.folded()) || wanted.test() == Test.CONTAINS && given.folded().contains(wanted.folded());
            case CONTAINS -> wanted.test() == Test.CONTAINS && given.folded().contains(wanted.folded());
            case CONTAINS_NOT -> wanted.test() == Test.CONTAINS_NOT && wanted.folded().contains(given.folded()) || wanted.test() == Test.IS_NOT && wanted.folded().contains(given.folded());
            default -> false;
        };
    }

    /** Whether no file can meet all of these conditions on one subject. */
    static boolean excludesAll(List<Check> ofOneSubject) {
        Subject subject = ofOneSubject.get(0).subject();
        if (!subject.choices().isEmpty()) {
            return left(ofOneSubject).findAny().isEmpty();
        }
        if (subject == Subject.SIZE) {
            long least = ofOneSubject.stream().filter(check -> check.test() == Test.AT_LEAST).mapToLong(Check::kib).max().orElse(0);
            long most = ofOneSubject.stream().filter(check -> check.test() == Test.AT_MOST).mapToLong(Check::kib).min().orElse(Long.MAX_VALUE);
            return least > most;
        }
        return ofOneSubject.stream().anyMatch(one -> ofOneSubject.stream().anyMatch(other -> exclude(one, other)));
    }

    private static boolean exclude(Check one, Check other) {
        if (one.test() == Test.MATCHES || other.test() == Test.MATCHES) {
            return false;
        }
        if (one.subject() == Subject.GROUP && !other.negative()) {
            return false;
        }
        return switch (one.test()) {
            case IS -> !other.fits(one.folded());
            case BEGINS -> other.test() == Test.BEGINS && !one.folded().startsWith(other.folded()) && !other.folded().startsWith(one.folded()) || denies(other, one);
            case ENDS -> other.test() == Test.ENDS && !one.folded().endsWith(other.folded()) && !other.folded().endsWith(one.folded()) || denies(other, one);
            case CONTAINS -> denies(other, one);
            default -> false;
        };
    }

    private static boolean denies(Check other, Check one) {
        return other.test() == Test.CONTAINS_NOT && one.folded().contains(other.folded());
    }
}
