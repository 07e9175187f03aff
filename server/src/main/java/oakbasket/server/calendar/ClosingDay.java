package oakbasket.server.calendar;

import java.time.LocalDate;

/** A day on which an office is closed, and why. */
public record ClosingDay(LocalDate day, String name) {
}
