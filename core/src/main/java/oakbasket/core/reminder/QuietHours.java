package oakbasket.core.reminder;

import java.time.LocalDateTime;
import java.time.LocalTime;
import oakbasket.core.deadline.WorkingDays.Shift;

/**
 * Hours of the night in which nobody is written to. Both ends are still allowed; equal ends mean that there are none.
 *
 * @param from local time from which it is quiet
 * @param to local time until which it is, on the next day where it is not later than {@code from}
 */
public record QuietHours(LocalTime from, LocalTime to) {

    /** From eight in the evening to seven in the morning. */
    public static final QuietHours NIGHT = new QuietHours(LocalTime.of(20, 0), LocalTime.of(7, 0));

    /** Whether it is quiet at this local time. */
    public boolean at(LocalTime time) {
        return from.isBefore(to) ? time.isAfter(from) && time.isBefore(to) : !from.equals(to) && (time.isAfter(from) || time.isBefore(to));
    }

    /** The moment itself where it is not quiet, else the nearest end of the quiet in the direction of the shift; keeping means later. */
    public LocalDateTime moved(LocalDateTime moment, Shift shift) {
        LocalTime time = moment.toLocalTime();
        if (!at(time)) {
            return moment;
        }
        boolean afterMidnight = !time.isAfter(from);
        if (shift == Shift.EARLIER) {
            return moment.toLocalDate().minusDays(afterMidnight ? 1 : 0).atTime(from);
        }
        return moment.toLocalDate().plusDays(time.isBefore(to) ? 0 : 1).atTime(to);
    }
}
