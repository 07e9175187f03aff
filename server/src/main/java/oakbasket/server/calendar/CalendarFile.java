package oakbasket.server.calendar;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.temporal.Temporal;
import java.time.temporal.TemporalAmount;
import java.util.List;
import java.util.TreeMap;
import net.fortuna.ical4j.data.CalendarBuilder;
import net.fortuna.ical4j.data.ParserException;
import net.fortuna.ical4j.model.Calendar;
import net.fortuna.ical4j.model.Component;
import net.fortuna.ical4j.model.Period;
import net.fortuna.ical4j.model.component.VEvent;
import net.fortuna.ical4j.model.property.DtStart;
import oakbasket.server.web.Problem;

/**
 * Days read from an iCalendar file (RFC 5545): whole-day events, those that recur for the next years, each day of an event that lasts several.
 *
 * @param passedOver how many events were no whole days
 */
record CalendarFile(List<ClosingDay> days, int passedOver) {

    private static final int YEARS_AHEAD = 3;
    private static final int MOST_DAYS = 2_000;

    static CalendarFile read(byte[] content, LocalDate today) {
        TreeMap<LocalDate, ClosingDay> days = new TreeMap<>();
        int passedOver = 0;
        try {
            Calendar calendar = new CalendarBuilder().build(new ByteArrayInputStream(content));
            for (Object component : calendar.getComponents(Component.VEVENT)) {
                VEvent event = (VEvent) component;
                DtStart<Temporal> start = event.<Temporal>getDateTimeStart();
                if (start == null || !(start.getDate() instanceof LocalDate)) {
                    passedOver++;
                    continue;
                }
                String name = event.getSummary() == null || event.getSummary().getValue().isBlank() ? "Closed" : event.getSummary().getValue().strip();
                String brief = name.length() <= 200 ? name : name.substring(0, 200);
                Period<LocalDate> ahead = new Period<>(today.minusYears(1), today.plusYears(YEARS_AHEAD));
                event.<LocalDate>calculateRecurrenceSet(ahead).forEach(period -> each(period, day -> days.put(day, new ClosingDay(day, brief))));
                if (days.size() > MOST_DAYS) {
                    throw Problem.refused("too-many-closing-days", MOST_DAYS);
                }
            }
        } catch (ParserException | IOException | DateTimeException | IllegalArgumentException notACalendar) {
            throw Problem.refused("not-a-calendar");
        }
        return new CalendarFile(List.copyOf(days.values()), passedOver);
    }

    private static void each(Period<LocalDate> period, java.util.function.Consumer<LocalDate> day) {
        LocalDate end = period.getEnd();
        TemporalAmount length = period.getDuration();
        LocalDate last = end != null ? end : length != null ? period.getStart().plus(length) : period.getStart().plusDays(1);
        LocalDate from = period.getStart();
        do {
            day.accept(from);
            from = from.plusDays(1);
        } while (from.isBefore(last));
    }
}
