package oakbasket.server.calendar;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import oakbasket.server.storage.Known;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.jdbc.support.KeyHolder;
import org.springframework.stereotype.Repository;

/** All SQL of the tables work_calendar and closing_day. */
@Repository
class CalendarTable {

    private final JdbcClient jdbc;

    CalendarTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    List<WorkCalendar> all() {
        Map<Long, List<ClosingDay>> closed = new HashMap<>();
        jdbc.sql("SELECT calendar_id, closed_on, name FROM closing_day ORDER BY closed_on").query(row -> {
            closed.computeIfAbsent(row.getLong("calendar_id"), id -> new ArrayList<>()).add(new ClosingDay(row.getObject("closed_on", LocalDate.class), row.getString("name")));
        });
        return jdbc.sql("SELECT * FROM work_calendar ORDER BY is_default DESC, name").query((row, n) -> new WorkCalendar(row.getLong("id"), row.getInt("version"),
                row.getString("name"), days(row.getString("weekend")), row.getString("country"), row.getString("region"), row.getBoolean("is_default"),
                closed.getOrDefault(row.getLong("id"), List.of()))).list();
    }

    Optional<WorkCalendar> byId(long id) {
        return all().stream().filter(calendar -> calendar.id() == id).findFirst();
    }

    long insert(String name, Set<DayOfWeek> weekend, String country, String region) {
        KeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("INSERT INTO work_calendar (name, weekend, country, region) VALUES (:name, :weekend, :country, :region)").param("name", name)
                .param("weekend", names(weekend)).param("country", country).param("region", region).update(key, "id");
        return Known.id(key);
    }

    int update(long id, int version, String name, Set<DayOfWeek> weekend, String country, String region) {
        return jdbc.sql("""
                UPDATE work_calendar SET name = :name, weekend = :weekend, country = :country, region = :region, version = version + 1
                WHERE id = :id AND version = :version""").param("name", name).param("weekend", names(weekend)).param("country", country).param("region", region)
                .param("id", id).param("version", version).update();
    }

    void makeDefault(long id) {
        jdbc.sql("UPDATE work_calendar SET is_default = (id = :id)").param("id", id).update();
    }

    int delete(long id) {
        jdbc.sql("DELETE FROM closing_day WHERE calendar_id = :id").param("id", id).update();
        return jdbc.sql("DELETE FROM work_calendar WHERE id = :id AND NOT is_default").param("id", id).update();
    }

    boolean used(long id) {
        return jdbc.sql("SELECT EXISTS (SELECT 1 FROM seen_round round WHERE calendar_id = :id)").param("id", id).query(Boolean.class).single();
    }

    boolean nameTaken(String name, long exceptId) {
        return jdbc.sql("SELECT EXISTS (SELECT 1 FROM work_calendar WHERE LOWER(name) = LOWER(:name) AND id <> :id)").param("name", name).param("id", exceptId)
                .query(Boolean.class).single();
    }

    void close(long calendarId, Collection<ClosingDay> days) {
        days.forEach(day -> jdbc.sql("MERGE INTO closing_day (calendar_id, closed_on, name) KEY (calendar_id, closed_on) VALUES (:id, :day, :name)").param("id", calendarId)
                .param("day", day.day()).param("name", day.name()).update());
    }

    int reopen(long calendarId, Collection<LocalDate> days) {
        return days.stream().mapToInt(day -> jdbc.sql("DELETE FROM closing_day WHERE calendar_id = :id AND closed_on = :day").param("id", calendarId).param("day", day).update()).sum();
    }

    private static Set<DayOfWeek> days(String names) {
        Set<DayOfWeek> days = EnumSet.noneOf(DayOfWeek.class);
        Arrays.stream(names.split(",")).filter(name -> !name.isEmpty()).map(DayOfWeek::valueOf).forEach(days::add);
        return days;
    }

    private static String names(Set<DayOfWeek> days) {
        return days.stream().sorted().map(Enum::name).collect(Collectors.joining(","));
    }
}
