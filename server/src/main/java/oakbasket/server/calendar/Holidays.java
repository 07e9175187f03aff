package oakbasket.server.calendar;

import de.focus_shift.jollyday.core.CalendarHierarchy;
import de.focus_shift.jollyday.core.Holiday;
import de.focus_shift.jollyday.core.HolidayCalendar;
import de.focus_shift.jollyday.core.HolidayManager;
import de.focus_shift.jollyday.core.ManagerParameters;
import java.time.Year;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
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

    /**
     * Countries of the library that are not offered: its own tests do not vouch for the years to come. Japan's days that follow the sky are wrong for 2026;
     * Antarctica has none.
     */
    private static final Set<String> NOT_OFFERED = Set.of("jp", "aq");

    private final Map<String, HolidayManager> managers = new ConcurrentHashMap<>();
    private final Map<String, List<ClosingDay>> remembered = new ConcurrentHashMap<>();

    /** The countries there are holidays for, by name. */
    List<Place> countries() {
        List<Place> places = new ArrayList<>();
        for (HolidayCalendar calendar : HolidayCalendar.values()) {
            String code = calendar.getId().toLowerCase(Locale.ROOT);
            if (code.length() == 2 && !NOT_OFFERED.contains(code)) {
                places.add(new Place(code, new Locale.Builder().setRegion(code.toUpperCase(Locale.ROOT)).build().getDisplayCountry(Locale.ENGLISH)));
            }
        }
        places.sort(Comparator.comparing(Place::name));
        return places;
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
