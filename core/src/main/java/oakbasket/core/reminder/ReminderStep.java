package oakbasket.core.reminder;

import java.time.LocalDate;
import java.time.LocalTime;
import oakbasket.core.deadline.WorkingDays;
import oakbasket.core.letter.LetterKind;

/**
 * One step of a reminder plan.
 *
 * @param days how many days from the day of the effective deadline; negative is before, 0 is the day itself
 * @param unit which days are counted
 * @param at the local time of sending
 */
public record ReminderStep(int days, Unit unit, LocalTime at) {

    /** Which days are counted. */
    public enum Unit { CALENDAR, WORKING }

    /** The farthest a step may be from the deadline, in days. */
    public static final int FARTHEST = 180;

    public ReminderStep {
        if (Math.abs(days) > FARTHEST) {
            throw new IllegalArgumentException("A step is at most " + FARTHEST + " days from the deadline, not " + days);
        }
    }

    /** Which letter goes: a reminder up to the day of the deadline, an overdue notice after it. */
    public LetterKind letter() {
        return days > 0 ? LetterKind.OVERDUE : LetterKind.REMINDER;
    }

    LocalDate date(LocalDate deadline, WorkingDays working) {
        return unit == Unit.CALENDAR ? deadline.plusDays(days) : working.plus(deadline, days);
    }
}
