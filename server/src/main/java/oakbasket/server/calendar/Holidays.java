package oakbasket.server.calendar;

import de.focus_shift.jollyday.core.CalendarHierarchy;
import de.focus_shift.jollyday.core.Holiday;
import de.focus_shift.jollyday.core.HolidayCalendar;
import de.focus_shift.jollyday.core.HolidayManager;
import de.focus_shift.jollyday.core.ManagerParameters;
import java.time.Clock;
import java.time.Year;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.IntStream;
import org.springframework.stereotype.Component;

/**
 * Public holidays by country, from the library jollyday, which ships with the application. The library computes them from rules: days that follow the moon or
 * a government's word of the year may be off by a day, which the desk says where they are chosen.
 */
@Component
class Holidays {

    /** A country or a part of one. */
    record Place(String code, String name) {
    }

    /** Countries of the library whose days are known to be wrong: Japan's that follow the sky, in 2026. Those without any, such as Antarctica, drop out by themselves. */
    private static final Set<String> NOT_OFFERED = Set.of("jp");
    private static final int YEARS_AHEAD = 5;

    private final Clock clock;
    private List<Place> countries = List.of();

    private final Map<String, HolidayManager> managers = new ConcurrentHashMap<>();
    private final Map<String, List<ClosingDay>> remembered = new ConcurrentHashMap<>();

    Holidays(Clock clock) {
        this.clock = clock;
    }

    /** The countries there are holidays for in each of the coming years, by name. */
    synchronized List<Place> countries() {
        if (countries.isEmpty()) {
            int year = Year.now(clock).getValue();
            countries = Arrays.stream(HolidayCalendar.values()).map(calendar -> calendar.getId().toLowerCase(Locale.ROOT))
                    .filter(code -> code.length() == 2 && !NOT_OFFERED.contains(code))
                    .filter(code -> IntStream.range(year, year + YEARS_AHEAD).noneMatch(one -> of(code, "", one).isEmpty()))
                    .map(code -> new Place(code, new Locale.Builder().setRegion(code.toUpperCase(Locale.ROOT)).build().getDisplayCountry(Locale.ENGLISH)))
                    .sorted(Comparator.comparing(Place::name)).toList();
        }
        return countries;
    }

    /** The parts of a country that have holidays of their own; empty when there are none. */
    List<Place> regions(String country) {
        return known(country) ? parts(manager(country).getCalendarHierarchy()) : List.of();
    }

    boolean known(String country) {
        return countries().stream().anyMatch(place -> place.code().equals(country));
    }

    /** The holidays of a year, those of the region included, in order. */
    List<ClosingDay> of(String country, String region, int year) {
        return remembered.computeIfAbsent(country + "/" + region + "/" + year, key -> {
            Set<Holiday> found = region.isEmpty() ? manager(country).getHolidays(Year.of(year)) : manager(country).getHolidays(Year.of(year), region);
            return found.stream().map(holiday -> new ClosingDay(holiday.getDate(), holiday.getDescription(Locale.ENGLISH))).sorted(Comparator.comparing(ClosingDay::day)).toList();
        });
    }

    private HolidayManager manager(String country) {
        return managers.computeIfAbsent(country, code -> HolidayManager.getInstance(ManagerParameters.create(code)));
    }

    private static List<Place> parts(CalendarHierarchy hierarchy) {
        return hierarchy.getChildren().values().stream().map(part -> new Place(part.getId(), part.getDescription(Locale.ENGLISH)))
                .sorted(Comparator.comparing(Place::name)).toList();
    }
}
