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
 * @param lastCall whether it is the last call; never null, though a plan of an earlier version does not say
 */
public record ReminderStep(int days, Unit unit, LocalTime at, Boolean lastCall) {

    /** Which days are counted. */
    public enum Unit { CALENDAR, WORKING }

    /** The farthest a step may be from the deadline, in days. */
    public static final int FARTHEST = 180;

    public ReminderStep {
        lastCall = lastCall != null && lastCall;
        if (Math.abs(days) > FARTHEST) {
            throw new IllegalArgumentException("A step is at most " + FARTHEST + " days from the deadline, not " + days);
        }
    }

    /** A step that is not the last call. */
    public ReminderStep(int days, Unit unit, LocalTime at) {
        this(days, unit, at, false);
    }

    /** Which letter goes: a reminder up to the day of the deadline, an overdue notice after it, or at any time the last call. */
    public LetterKind letter() {
        return lastCall ? LetterKind.LAST_CALL : days > 0 ? LetterKind.OVERDUE : LetterKind.REMINDER;
    }

    LocalDate date(LocalDate deadline, WorkingDays working) {
        return unit == Unit.CALENDAR ? deadline.plusDays(days) : working.plus(deadline, days);
    }
}
