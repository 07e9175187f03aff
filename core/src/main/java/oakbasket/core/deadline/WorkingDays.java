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

    /** Lateness in working days: those begun after the day of the deadline, counted in the given zone. */
    public int late(Instant deadline, Instant actual, ZoneId zone) {
        return between(LocalDate.ofInstant(deadline, zone), LocalDate.ofInstant(actual, zone));
    }
}
