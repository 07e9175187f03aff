package oakbasket.server.calendar;

import io.swagger.v3.oas.annotations.media.Schema;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.time.Clock;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Set;
import oakbasket.core.team.Permission;
import oakbasket.server.decode.Decoders;
import oakbasket.server.decode.work.CalendarFile;
import oakbasket.server.decode.work.ReadCalendar;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.Needs;
import oakbasket.server.web.BoundedBody;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Calendars of working days. */
@RestController
@Needs(Permission.CHANGE)
class CalendarController {

    private static final int MOST_FILE_BYTES = 5 * 1024 * 1024;

    record CalendarForm(int version, @Schema(maxLength = Calendars.LONGEST_NAME) @Nullable String name, @Nullable Set<DayOfWeek> weekend, @Nullable String country, @Nullable String region) {
    }

    record CloseDay(@Nullable LocalDate day, @Schema(maxLength = Calendars.LONGEST_REASON) @Nullable String name) {
    }

    record CloseDays(List<ClosingDay> days) {
    }

    record ReadCalendarFile(List<ClosingDay> days, int passedOver) {
    }

    private final Calendars calendars;
    private final Holidays holidays;
    private final Decoders decoders;
    private final Clock clock;

    CalendarController(Calendars calendars, Holidays holidays, Decoders decoders, Clock clock) {
        this.decoders = decoders;
        this.calendars = calendars;
        this.holidays = holidays;
        this.clock = clock;
    }

    @GetMapping("/api/calendars")
    List<WorkCalendar> all() {
        return calendars.all();
    }

    @PostMapping("/api/calendars")
    @ResponseStatus(HttpStatus.CREATED)
    WorkCalendar add(@RequestBody CalendarForm form) {
        return calendars.add(text(form.name()), weekend(form), text(form.country()), text(form.region()));
    }

    @PutMapping("/api/calendars/{id}")
    WorkCalendar change(@PathVariable long id, @RequestBody CalendarForm form) {
        return calendars.change(id, form.version(), text(form.name()), weekend(form), text(form.country()), text(form.region()));
    }

    @PostMapping("/api/calendars/{id}/default")
    WorkCalendar makeDefault(@PathVariable long id) {
        return calendars.makeDefault(id);
    }

    @DeleteMapping("/api/calendars/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void discard(@PathVariable long id) {
        calendars.discard(id);
    }

    @PostMapping("/api/calendars/{id}/days")
    WorkCalendar close(@PathVariable long id, @RequestBody CloseDays body) {
        return calendars.close(id, body.days());
    }

    @PostMapping("/api/calendars/{id}/day")
    WorkCalendar closeOne(@PathVariable long id, @RequestBody CloseDay body) {
        LocalDate day = body.day();
        if (day == null) {
            throw Problem.field("day", "day-missing");
        }
        return calendars.close(id, List.of(new ClosingDay(day, text(body.name()).strip())));
    }

    /** Takes closing days back. */
    @DeleteMapping("/api/calendars/{id}/days")
    WorkCalendar reopen(@PathVariable long id, @RequestParam List<LocalDate> day) {
        return calendars.reopen(id, day);
    }

    /** The days an iCalendar file (RFC 5545) would close; stores nothing. */
    @PostMapping("/api/calendars/read")
    ReadCalendarFile read(HttpServletRequest request) throws IOException {
        ReadCalendar work = new ReadCalendar(LocalDate.ofInstant(clock.instant(), ZoneOffset.UTC));
        CalendarFile file = decoders.ask(work, BoundedBody.read(request, MOST_FILE_BYTES), Decoders.Lane.DESK).orElseThrow(() -> Problem.refused("not-a-calendar"));
        return new ReadCalendarFile(file.days().stream().map(one -> new ClosingDay(one.day(), one.name())).toList(), file.passedOver());
    }

    @GetMapping("/api/holidays/countries")
    List<Holidays.Place> countries() {
        return holidays.countries();
    }

    @GetMapping("/api/holidays/{country}/regions")
    List<Holidays.Place> regions(@PathVariable String country) {
        return holidays.regions(country);
    }

    /** The public holidays of one year. */
    @GetMapping("/api/holidays/{country}")
    List<ClosingDay> holidays(@PathVariable String country, @RequestParam(defaultValue = "") String region, @RequestParam int year) {
        if (!holidays.known(country) || year < 1990 || year > 2100) {
            throw Problem.notFound("not-found");
        }
        return holidays.of(country, region, year);
    }

    private static Set<DayOfWeek> weekend(CalendarForm form) {
        Set<DayOfWeek> weekend = form.weekend();
        return weekend == null ? Set.of() : weekend;
    }

    private static String text(@Nullable String given) {
        return given == null ? "" : given;
    }
}
