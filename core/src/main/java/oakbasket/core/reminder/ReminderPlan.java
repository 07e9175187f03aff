package oakbasket.core.reminder;

import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import oakbasket.core.deadline.LocalDeadline;
import oakbasket.core.deadline.WorkingDays;
import oakbasket.core.deadline.WorkingDays.Shift;
import oakbasket.core.letter.LetterKind;
import org.jspecify.annotations.Nullable;

/**
 * When those who still owe are written to.
 *
 * @param steps in any order
 * @param repeat whether the latest step comes again; null when it does not
 * @param shift where a step goes that falls on a day nobody works or into the quiet hours
 */
public record ReminderPlan(List<ReminderStep> steps, @Nullable Repeat repeat, Shift shift, QuietHours quiet) {

    /**
     * The latest step comes again.
     *
     * @param everyWorkingDays how many working days lie between two
     * @param atMost how many times at most
     */
    public record Repeat(int everyWorkingDays, int atMost) {
        public Repeat {
            if (everyWorkingDays < 1 || everyWorkingDays > MOST_REPEAT_DAYS || atMost < 1 || atMost > MOST_REPEATS) {
                throw new IllegalArgumentException("Every 1 to " + MOST_REPEAT_DAYS + " working days, 1 to " + MOST_REPEATS + " times");
            }
        }
    }

    /** The most steps of a plan. */
    public static final int MOST_STEPS = 8;
    /** The most repetitions. */
    public static final int MOST_REPEATS = 20;
    /** How many working days lie between two repetitions at most. */
    public static final int MOST_REPEAT_DAYS = 60;
    /** Nobody is written to unasked. */
    public static final ReminderPlan NONE = new ReminderPlan(List.of(), null, Shift.EARLIER, QuietHours.NIGHT);

    public ReminderPlan {
        steps = List.copyOf(steps);
        if (steps.size() > MOST_STEPS) {
            throw new IllegalArgumentException("A plan has at most " + MOST_STEPS + " steps, not " + steps.size());
        }
    }

    /**
     * The moments this plan means for one person, the earliest first; where two fall together the later step stays.
     *
     * @param deadline the day of the effective deadline
     * @param zone the zone of the person
     */
    public List<PlannedLetter> letters(LocalDate deadline, ZoneId zone, WorkingDays working) {
        List<PlannedLetter> letters = new ArrayList<>();
        List<ReminderStep> ordered = steps.stream().sorted(Comparator.comparing((ReminderStep step) -> step.date(deadline, working)).thenComparing(ReminderStep::at)).toList();
        for (ReminderStep step : ordered) {
            add(letters, step.letter(), step.date(deadline, working).atTime(step.at()), zone, working);
        }
        if (repeat != null && !ordered.isEmpty()) {
            ReminderStep last = ordered.get(ordered.size() - 1);
            LocalDate date = last.date(deadline, working);
            for (int n = 0; n < repeat.atMost(); n++) {
                date = working.plus(date, repeat.everyWorkingDays());
                add(letters, date.isAfter(deadline) ? LetterKind.OVERDUE : LetterKind.REMINDER, date.atTime(last.at()), zone, working);
            }
        }
        return letters;
    }

    /** The same plan with other quiet hours. */
    public ReminderPlan within(QuietHours hours) {
        return new ReminderPlan(steps, repeat, shift, hours);
    }

    /** The moment itself where people may be written to, else the next one at which they may: what was missed in a standstill waits for the morning. */
    public Instant allowed(Instant moment, ZoneId zone, WorkingDays working) {
        LocalDateTime local = LocalDateTime.ofInstant(moment, zone);
        LocalDateTime awake = quiet.moved(local, Shift.LATER);
        LocalDate open = shift == Shift.KEEP ? awake.toLocalDate() : working.shifted(awake.toLocalDate(), Shift.LATER);
        if (awake.equals(local) && open.equals(local.toLocalDate())) {
            return moment;
        }
        boolean otherDay = !open.equals(awake.toLocalDate());
        return new LocalDeadline(open, otherDay && !quiet.from().equals(quiet.to()) ? quiet.to() : awake.toLocalTime(), zone).instant();
    }

    private void add(List<PlannedLetter> letters, LetterKind kind, LocalDateTime typed, ZoneId zone, WorkingDays working) {
        LocalDateTime moment = quiet.moved(typed, shift);
        LocalDate open = working.shifted(moment.toLocalDate(), shift);
        PlannedLetter letter = new PlannedLetter(kind, new LocalDeadline(open, moment.toLocalTime(), zone).instant());
        letters.removeIf(other -> !other.at().isBefore(letter.at()));
        letters.add(letter);
    }
}
