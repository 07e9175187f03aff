package oakbasket.server.decode.work;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.temporal.Temporal;
import java.time.temporal.TemporalAmount;
import java.util.List;
import java.util.Locale;
import java.util.TreeMap;
import net.fortuna.ical4j.data.CalendarBuilder;
import net.fortuna.ical4j.data.ParserException;
import net.fortuna.ical4j.model.Calendar;
import net.fortuna.ical4j.model.Component;
import net.fortuna.ical4j.model.Period;
import net.fortuna.ical4j.model.Property;
import net.fortuna.ical4j.model.component.VEvent;
import net.fortuna.ical4j.model.property.DtStart;
import oakbasket.server.problem.Problem;

/**
 * Days read from an iCalendar file (RFC 5545): whole-day events, those that recur for the next years, each day of an event that lasts several.
 *
 * @param passedOver how many events were no whole days
 */
public record CalendarFile(List<Day> days, int passedOver) {

    /** A day, and what it is called. */
    public record Day(LocalDate day, String name) {
    }

    private static final int YEARS_AHEAD = 3;
    private static final int MOST_DAYS = 2_000;
    private static final int MOST_LINES = 50_000;
    private static final int MOST_RULES = 500;
    private static final int MOST_YEARS_BACK = 30;

    static CalendarFile read(byte[] content, LocalDate today) {
        TreeMap<LocalDate, Day> days = new TreeMap<>();
        int passedOver = 0;
        try {
            checkBounds(content);
            LocalDate first = today.minusYears(1);
            LocalDate end = today.plusYears(YEARS_AHEAD);
            Calendar calendar = new CalendarBuilder().build(new ByteArrayInputStream(content));
            for (Object component : calendar.getComponents(Component.VEVENT)) {
                VEvent event = (VEvent) component;
                DtStart<Temporal> start = event.<Temporal>getDateTimeStart();
                if (start == null || !(start.getDate() instanceof LocalDate)) {
                    passedOver++;
                    continue;
                }
                if (((LocalDate) start.getDate()).isBefore(today.minusYears(MOST_YEARS_BACK)) || tooFrequent(event)) {
                    passedOver++;
                    continue;
                }
                String name = event.getSummary() == null || event.getSummary().getValue().isBlank() ? "Closed" : event.getSummary().getValue().strip();
                String brief = name.length() <= 200 ? name : name.substring(0, 200);
                event.<LocalDate>calculateRecurrenceSet(new Period<>(first, end)).forEach(period ->
                        each(period, first, end, day -> days.put(day, new Day(day, brief))));
                if (days.size() > MOST_DAYS) {
                    throw Problem.refused("too-many-closing-days", MOST_DAYS);
                }
            }
        } catch (ParserException | IOException | DateTimeException | IllegalArgumentException notACalendar) {
            throw Problem.refused("not-a-calendar");
        }
        return new CalendarFile(List.copyOf(days.values()), passedOver);
    }

    private static void each(Period<LocalDate> period, LocalDate first, LocalDate end, java.util.function.Consumer<LocalDate> day) {
        LocalDate until = period.getEnd();
        TemporalAmount length = period.getDuration();
        LocalDate last = until != null ? until : length != null ? period.getStart().plus(length) : period.getStart().plusDays(1);
        LocalDate from = period.getStart();
        if (!last.isAfter(from)) {
            last = from.plusDays(1);
        }
        // An event may last for centuries; only what lies in the window is gone through.
        LocalDate to = last.isBefore(end) ? last : end;
        for (from = from.isBefore(first) ? first : from; from.isBefore(to); from = from.plusDays(1)) {
            day.accept(from);
        }
    }

    /** What recurs by the hour is no whole day, whatever it says of itself, and would be gone through hour by hour. */
    private static boolean tooFrequent(VEvent event) {
        return event.getProperties(Property.RRULE).stream().map(Property::getValue).map(String::toUpperCase)
                .anyMatch(rule -> rule.contains("SECONDLY") || rule.contains("MINUTELY") || rule.contains("HOURLY"));
    }

    /** Counted on the raw bytes: each line and each date of a list becomes objects, and each rule is gone through year by year. */
    private static void checkBounds(byte[] content) {
        int lines = 0;
        int commas = 0;
        for (byte b : content) {
            lines += b == '\n' ? 1 : 0;
            commas += b == ',' ? 1 : 0;
        }
        int rules = new String(content, StandardCharsets.ISO_8859_1).toUpperCase(Locale.ROOT).split("RRULE", -1).length - 1;
        if (lines > MOST_LINES || commas > MOST_LINES || rules > MOST_RULES) {
            throw Problem.refused("calendar-too-long", MOST_LINES, MOST_RULES);
        }
    }
}
