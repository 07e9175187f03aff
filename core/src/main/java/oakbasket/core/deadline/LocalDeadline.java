package oakbasket.core.deadline;

import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import org.jspecify.annotations.Nullable;

/**
 * A deadline as people write it: a date, perhaps a time, in a zone.
 *
 * @param date the calendar date
 * @param time the wall-clock time; null means the end of that date
 * @param zone an IANA zone
 */
public record LocalDeadline(LocalDate date, @Nullable LocalTime time, ZoneId zone) {

    /**
     * The instant this deadline falls on. A local time skipped by clocks going forward moves forward by the gap; one that
     * exists twice means the later instant, in the sender's favour.
     */
    public Instant instant() {
        if (time == null) {
            ZonedDateTime end = date.plusDays(1).atStartOfDay(zone).minusNanos(1);
            if (end.toLocalDate().equals(date)) {
                return end.toInstant();
            }
        }
        // A given time, or the end of a date that the zone skipped as a whole.
        LocalDateTime local = date.atTime(time == null ? LocalTime.MAX : time);
        return ZonedDateTime.of(local, zone).withLaterOffsetAtOverlap().toInstant();
    }

    /** Whether only a date was given. */
    public boolean dateOnly() {
        return time == null;
    }
}
