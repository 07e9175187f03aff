package oakbasket.core.recurrence;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import oakbasket.core.fault.FaultyValue;
import org.dmfs.rfc5545.DateTime;
import org.dmfs.rfc5545.recur.Freq;
import org.dmfs.rfc5545.recur.InvalidRecurrenceRuleException;
import org.dmfs.rfc5545.recur.RecurrenceRule;
import org.dmfs.rfc5545.recur.RecurrenceRuleIterator;
import org.jspecify.annotations.Nullable;

/**
 * A recurrence rule of RFC 5545 §3.3.10 whose occurrences are dates. The dates themselves are computed by a kept library; a rule that never ends is
 * asked for a few dates at a time, and one that never fires is refused when it is read.
 *
 * @param rule the rule's text, such as {@code FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1}
 */
public record Recurrence(String rule) {

    /** The longest rule in characters. */
    public static final int LONGEST_RULE = 500;
    /** How far ahead dates are looked for, in years. */
    private static final int FARTHEST_YEARS = 100;
    /** How many occurrences are passed over at most while looking for later ones. */
    private static final int MOST_PASSED = 50_000;

    public Recurrence {
        rule = rule.strip().toUpperCase(Locale.ROOT);
        if (rule.startsWith("RRULE:")) {
            rule = rule.substring("RRULE:".length());
        }
        // Occurrences are dates, so the end is one too (RFC 5545 §3.3.10 wants both to be of one kind).
        rule = rule.replaceAll("(UNTIL=\\d{8})T\\d{6}Z?", "$1");
        if (rule.isEmpty() || rule.length() > LONGEST_RULE) {
            throw new FaultyValue("rule-missing");
        }
        RecurrenceRule read = read(rule);
        if (read.getFreq() == Freq.HOURLY || read.getFreq() == Freq.MINUTELY || read.getFreq() == Freq.SECONDLY) {
            throw new FaultyValue("rule-too-often");
        }
        if (rule.matches(".*BY(HOUR|MINUTE|SECOND)=.*")) {
            throw new FaultyValue("rule-times-of-day");
        }
        if (dates(rule, LocalDate.of(2024, 1, 1), null, 1).isEmpty() && read.getUntil() == null) {
            throw new FaultyValue("rule-never");
        }
    }

    /**
     * The occurrences from a start on.
     *
     * @param after only dates later than this; null means from the start on
     * @param most how many at most
     * @return dates in order; empty when there are no more within 100 years
     */
    public List<LocalDate> dates(LocalDate start, @Nullable LocalDate after, int most) {
        return dates(rule, start, after, most);
    }

    /** The rule taken apart, to be said in words. */
    public RecurrenceRule parts() {
        return read(rule);
    }

    private static List<LocalDate> dates(String rule, LocalDate start, @Nullable LocalDate after, int most) {
        List<LocalDate> dates = new ArrayList<>();
        LocalDate farthest = (after == null || after.isBefore(start) ? start : after).plusYears(FARTHEST_YEARS);
        try {
            RecurrenceRuleIterator all = read(rule).iterator(new DateTime(start.getYear(), start.getMonthValue() - 1, start.getDayOfMonth()));
            for (int passed = 0; all.hasNext() && dates.size() < most && passed < MOST_PASSED; passed++) {
                DateTime next = all.nextDateTime();
                LocalDate date = LocalDate.of(next.getYear(), next.getMonth() + 1, next.getDayOfMonth());
                if (date.isAfter(farthest)) {
                    break;
                }
                if (after == null || date.isAfter(after)) {
                    dates.add(date);
                }
            }
        } catch (IllegalArgumentException neverFires) {
            // The library gives up on a rule without any date by this exception.
            return dates;
        }
        return dates;
    }

    private static RecurrenceRule read(String rule) {
        try {
            return new RecurrenceRule(rule, RecurrenceRule.RfcMode.RFC5545_STRICT);
        } catch (InvalidRecurrenceRuleException | RuntimeException wrong) {
            throw new FaultyValue("rule-unreadable");
        }
    }
}
