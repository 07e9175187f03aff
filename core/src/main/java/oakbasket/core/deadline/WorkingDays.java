package oakbasket.core.deadline;

import java.time.DayOfWeek;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Set;

/**
 * A calendar of working days.
 *
 * @param weekend the days of the week on which nobody works
 * @param closed further single dates on which nobody works, such as public holidays
 */
public record WorkingDays(Set<DayOfWeek> weekend, Set<LocalDate> closed) {

    /** What to do with a date that falls on a closed day. */
    public enum Shift { KEEP, EARLIER, LATER }

    /** After so many closed days in a row a date is left where it is. */
    private static final int MOST_SHIFTED_DAYS = 60;

    /** Saturday and Sunday off, no holidays. */
    public static final WorkingDays MONDAY_TO_FRIDAY = new WorkingDays(Set.of(DayOfWeek.SATURDAY, DayOfWeek.SUNDAY), Set.of());

    public WorkingDays {
        weekend = Set.copyOf(weekend);
        closed = Set.copyOf(closed);
        if (weekend.size() == 7) {
            throw new IllegalArgumentException("A week needs at least one working day");
        }
    }

    /** Whether people work on this date. */
    public boolean isWorking(LocalDate date) {
        return !weekend.contains(date.getDayOfWeek()) && !closed.contains(date);
    }

    /** How many working days lie after {@code from} up to and including {@code to}; 0 when {@code to} is not later. */
    public int between(LocalDate from, LocalDate to) {
        return (int) from.plusDays(1).datesUntil(to.isAfter(from) ? to.plusDays(1) : from.plusDays(1)).filter(this::isWorking).count();
    }

    /** The date itself when people work on it, else the nearest working day in the direction of the shift. */
    public LocalDate shifted(LocalDate date, Shift shift) {
        int step = shift == Shift.EARLIER ? -1 : 1;
        LocalDate moved = date;
        for (int i = 0; shift != Shift.KEEP && i < MOST_SHIFTED_DAYS; i++, moved = moved.plusDays(step)) {
            if (isWorking(moved)) {
                return moved;
            }
        }
        return date;
    }

    /** The date so many working days later, or earlier where the number is negative; the date itself for 0. */
    public LocalDate plus(LocalDate date, int days) {
        int step = Integer.signum(days);
        LocalDate moved = date;
        // A calendar that is closed for months counts every day from then on, rather than looking forever.
        for (int left = Math.abs(days), closedInARow = 0; left > 0;) {
            moved = moved.plusDays(step);
            closedInARow = isWorking(moved) ? 0 : closedInARow + 1;
            left -= closedInARow == 0 || closedInARow > MOST_SHIFTED_DAYS ? 1 : 0;
        }
        return moved;
    }

    /** Lateness in working days: those begun after the day of the deadline, counted in the given zone. */
    public int late(Instant deadline, Instant actual, ZoneId zone) {
        return between(LocalDate.ofInstant(deadline, zone), LocalDate.ofInstant(actual, zone));
    }
}
