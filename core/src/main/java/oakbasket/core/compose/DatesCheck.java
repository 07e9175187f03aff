package oakbasket.core.compose;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import oakbasket.core.deadline.LocalDeadline;
import oakbasket.core.deadline.ThreeClocks;
import org.jspecify.annotations.Nullable;

/** Reads the three clocks of a sheet: deadline, closing and retention date. */
final class DatesCheck {

    private static final int LAST_YEAR = 9999;

    /**
     * The dates that could be read.
     *
     * @param deadline null when it could not be read
     * @param closing null when there is none, or it could not be read
     * @param keepUntil null when there is none, or it could not be read
     */
    record Dates(@Nullable LocalDeadline deadline, @Nullable LocalDeadline closing, @Nullable LocalDate keepUntil) {
    }

    private final RoundSheet sheet;
    private final SheetContext context;
    private final Findings found;

    DatesCheck(RoundSheet sheet, SheetContext context, Findings found) {
        this.sheet = sheet;
        this.context = context;
        this.found = found;
    }

    Dates read() {
        LocalDeadline deadline = deadline();
        LocalDeadline closing = closing();
        LocalDate keepUntil = sheet.keepUntil().isBlank() ? null : date("keepUntil", sheet.keepUntil());
        if (deadline != null) {
            new ThreeClocks(deadline.instant(), closing == null ? null : closing.instant(), keepUntil).fault(deadline.zone()).ifPresent(found::add);
        }
        return new Dates(deadline, closing, keepUntil);
    }

    private @Nullable LocalDeadline deadline() {
        LocalDate date = sheet.deadlineDate().isBlank() ? missing() : date("deadlineDate", sheet.deadlineDate());
        LocalTime time = time("deadlineTime", sheet.deadlineTime());
        ZoneId zone = found.parse("zone", sheet.zone(), DatesCheck::region, "not-a-zone");
        if (date == null || zone == null) {
            return null;
        }
        LocalDeadline deadline = new LocalDeadline(date, time, zone);
        if (!context.changing() && !deadline.instant().isAfter(context.now())) {
            found.error("deadlineDate", "deadline-past");
        }
        String closed = context.closedBecause().apply(sheet.calendarId(), date);
        if (closed != null) {
            found.odd("deadlineDate", "deadline-closed-day", closed);
        }
        return deadline;
    }

    private @Nullable LocalDeadline closing() {
        if (sheet.closingDate().isBlank()) {
            return null;
        }
        LocalDate date = date("closingDate", sheet.closingDate());
        LocalTime time = time("closingTime", sheet.closingTime());
        return date == null || !ZoneId.getAvailableZoneIds().contains(sheet.zone().strip()) ? null : new LocalDeadline(date, time, ZoneId.of(sheet.zone().strip()));
    }

    private @Nullable LocalDate missing() {
        found.error("deadlineDate", "deadline-missing");
        return null;
    }

    private @Nullable LocalDate date(String field, String text) {
        return found.parse(field, text, DatesCheck::ordinaryDate, "not-a-date");
    }

    private @Nullable LocalTime time(String field, String text) {
        return text.isBlank() ? null : found.parse(field, text, LocalTime::parse, "not-a-time");
    }

    /** A date within the years that calendars and people write with four digits. */
    private static LocalDate ordinaryDate(String text) {
        LocalDate date = LocalDate.parse(text);
        if (date.getYear() > LAST_YEAR) {
            throw new DateTimeException("year");
        }
        return date;
    }

    private static ZoneId region(String text) {
        if (!ZoneId.getAvailableZoneIds().contains(text)) {
            throw new DateTimeException("zone");
        }
        return ZoneId.of(text);
    }
}
