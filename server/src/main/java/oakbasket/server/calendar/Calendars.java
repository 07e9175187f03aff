package oakbasket.server.calendar;

import java.time.Clock;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import oakbasket.core.deadline.WorkingDays;
import oakbasket.server.problem.Problem;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.Transactions;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Keeps calendars and makes them into working days. */
@Service
public class Calendars {

    static final int LONGEST_REASON = 200;
    private static final int MOST_CLOSING_DAYS = 2_000;
    static final int LONGEST_NAME = 100;
    private static final int YEARS_BACK = 3;
    private static final int YEARS_AHEAD = 5;

    private final CalendarTable table;
    private final Holidays holidays;
    private final Transactions transactions;
    private final Clock clock;
    private final Map<Long, WorkingDays> remembered = new ConcurrentHashMap<>();
    private volatile int rememberedYear;

    Calendars(CalendarTable table, Holidays holidays, Transactions transactions, Clock clock) {
        this.table = table;
        this.holidays = holidays;
        this.transactions = transactions;
        this.clock = clock;
    }

    /** All calendars, the default first. */
    public List<WorkCalendar> all() {
        return table.all();
    }

    /** Whether there is such a calendar. */
    public boolean exists(long id) {
        return table.byId(id).isPresent();
    }

    /** The working days of a calendar, or of the default one where {@code id} is null or gone; holidays reach three years back and five ahead. */
    public WorkingDays days(@Nullable Long id) {
        int year = LocalDate.ofInstant(clock.instant(), ZoneOffset.UTC).getYear();
        if (year != rememberedYear) {
            remembered.clear();
            rememberedYear = year;
        }
        return remembered.computeIfAbsent(id == null ? 0L : id, key -> {
            List<WorkCalendar> all = table.all();
            WorkCalendar calendar = all.stream().filter(one -> one.id() == key).findFirst().orElse(all.get(0));
            Set<LocalDate> closed = new HashSet<>();
            calendar.closingDays().forEach(day -> closed.add(day.day()));
            for (int y = year - YEARS_BACK; !calendar.country().isEmpty() && y <= year + YEARS_AHEAD; y++) {
                holidays.of(calendar.country(), calendar.region(), y).forEach(day -> closed.add(day.day()));
            }
            return new WorkingDays(calendar.weekend(), closed);
        });
    }

    /** Why nobody works on a date, such as the name of a holiday; null when people do. */
    public @Nullable String closedBecause(@Nullable Long id, LocalDate date) {
        if (days(id).isWorking(date)) {
            return null;
        }
        List<WorkCalendar> all = table.all();
        WorkCalendar calendar = all.stream().filter(one -> id != null && one.id() == id).findFirst().orElse(all.get(0));
        List<ClosingDay> named = new ArrayList<>(calendar.closingDays());
        if (!calendar.country().isEmpty()) {
            named.addAll(holidays.of(calendar.country(), calendar.region(), date.getYear()));
        }
        return named.stream().filter(day -> day.day().equals(date)).map(ClosingDay::name).findFirst().orElse("a weekend");
    }

    WorkCalendar byId(long id) {
        return table.byId(id).orElseThrow(() -> Problem.notFound("no-calendar"));
    }

    WorkCalendar add(String name, Set<DayOfWeek> weekend, String country, String region) {
        check(0, name, weekend, country, region);
        long id = transactions.durably(() -> table.insert(name.strip(), weekend, country, region));
        return byId(id);
    }

    /**
     * Changes a calendar.
     *
     * @throws Problem naming the field that cannot be kept, or with status 409 when it was changed since {@code version}
     */
    public WorkCalendar change(long id, int version, String name, Set<DayOfWeek> weekend, String country, String region) {
        byId(id);
        check(id, name, weekend, country, region);
        if (transactions.durably(() -> table.update(id, version, name.strip(), weekend, country, region)) != 1) {
            throw Problem.conflict("changed-elsewhere");
        }
        remembered.clear();
        return byId(id);
    }

    WorkCalendar makeDefault(long id) {
        byId(id);
        transactions.durably(() -> table.makeDefault(id));
        remembered.clear();
        return byId(id);
    }

    void discard(long id) {
        WorkCalendar calendar = byId(id);
        if (calendar.isDefault() || Acting.asOffice(() -> table.used(id))) {
            throw Problem.conflict(calendar.isDefault() ? "calendar-default" : "calendar-used");
        }
        transactions.durably(() -> table.delete(id));
        remembered.clear();
    }

    /** Adds closing days to a calendar. */
    public WorkCalendar close(long id, Collection<ClosingDay> days) {
        WorkCalendar calendar = byId(id);
        if (calendar.closingDays().size() + days.size() > MOST_CLOSING_DAYS) {
            throw Problem.refused("too-many-closing-days", MOST_CLOSING_DAYS);
        }
        for (ClosingDay day : days) {
            if (day.name().isBlank() || day.name().length() > LONGEST_REASON) {
                throw day.name().isBlank() ? Problem.field("name", "closing-day-reason") : Problem.field("name", "longest", LONGEST_REASON);
            }
            if (day.day().getYear() < 1900 || day.day().getYear() > 9999) {
                throw Problem.field("day", "not-a-date");
            }
        }
        transactions.durably(() -> table.close(id, days));
        remembered.clear();
        return byId(id);
    }

    WorkCalendar reopen(long id, Collection<LocalDate> days) {
        byId(id);
        transactions.durably(() -> table.reopen(id, days));
        remembered.clear();
        return byId(id);
    }

    private void check(long id, String name, Set<DayOfWeek> weekend, String country, String region) {
        if (name.isBlank() || name.strip().length() > LONGEST_NAME) {
            throw name.isBlank() ? Problem.field("name", "calendar-name-missing") : Problem.field("name", "longest", LONGEST_NAME);
        }
        if (table.nameTaken(name.strip(), id)) {
            throw Problem.field("name", "calendar-name-taken", name.strip());
        }
        if (weekend.size() == 7) {
            throw Problem.field("weekend", "weekend-whole");
        }
        if (!country.isEmpty() && !holidays.known(country)) {
            throw Problem.field("country", "no-such-country");
        }
        if (!region.isEmpty() && holidays.regions(country).stream().noneMatch(place -> place.code().equals(region))) {
            throw Problem.field("region", "no-such-region");
        }
    }
}
