package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.sql.ResultSet;
import java.time.Instant;
import java.util.List;
import net.fortuna.ical4j.data.CalendarBuilder;
import net.fortuna.ical4j.model.Component;
import net.fortuna.ical4j.model.component.VEvent;
import org.dhatim.fastexcel.reader.ReadableWorkbook;
import org.dhatim.fastexcel.reader.Row;
import org.h2.tools.Csv;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** Calendars of working days, the calendar feed, and the tables that go out. */
class CalendarsTest {

    private final Http desk = Http.desk();

    @AfterEach
    void setTheClockBack() {
        RunningApp.CLOCK.set(Instant.parse("2026-06-01T09:00:00Z"));
    }

    /** Sources: published tables of Easter Sundays (Good Friday is two days before); England's substitute days when 25 and 26 December fall on a weekend. */
    @ParameterizedTest(name = "{1} is a holiday in {0}: {2}")
    @CsvSource({"gb-eng, 2024-03-29, true", "gb-eng, 2025-04-18, true", "gb-eng, 2026-04-03, true", "gb-eng, 2027-03-26, true", "gb-eng, 2028-04-14, true",
        "gb-eng, 2026-12-28, true", "gb-eng, 2027-12-27, true", "gb-eng, 2027-12-28, true", "gb-eng, 2027-12-29, false", "de, 2026-10-03, true", "fr, 2026-07-14, true",
        "gb-eng, 2026-07-14, false"})
    void publicHolidaysAreThoseOfTheCountry(String place, String day, boolean holiday) {
        String[] parts = place.split("-");
        JsonNode days = desk.get("/api/holidays/" + parts[0] + "?year=" + day.substring(0, 4) + "&region=" + (parts.length > 1 ? parts[1] : "")).json();
        assertThat(days.toString().contains(day)).isEqualTo(holiday);
    }

    /** Where the library has no days, or wrong ones, it is not offered; where it is, it has some in each of the coming years. */
    @Test
    void onlyCountriesWhoseDaysCanBeReliedOnAreOffered() {
        List<String> codes = desk.get("/api/holidays/countries").json().valueStream().map(one -> one.path("code").asString()).toList();
        assertThat(codes).hasSizeGreaterThan(40).contains("gb", "de", "us", "nz").doesNotContain("aq", "jp");
        for (String code : codes) {
            for (int year = 2026; year <= 2030; year++) {
                assertThat(desk.get("/api/holidays/" + code + "?region=&year=" + year).json()).as("%s %d", code, year).isNotEmpty();
            }
        }
        assertThat(desk.get("/api/holidays/jp?region=&year=2026").problem()).isEqualTo("not-found");
    }

    @Test
    void latenessIsToldInTheWorkingDaysOfTheRoundsCalendar() {
        String made = desk.post("/api/calendars", "{\"name\":\"Friday off\",\"weekend\":[\"FRIDAY\"],\"country\":\"gb\",\"region\":\"eng\"}").json().path("id").asString();
        desk.post("/api/calendars/" + made + "/day", "{\"day\":\"2026-07-02\",\"name\":\"Stocktaking\"}");
        TestRound round = new TestRound();
        round.sheet.put("calendarId", Long.parseLong(made));
        round.open();
        TestRound plain = new TestRound().open();
        // The deadline is Tuesday 30 June. Until Monday 6 July: Wed, Sat, Sun, Mon in this calendar; Wed, Thu, Fri, Mon in the usual one.
        RunningApp.CLOCK.set(Instant.parse("2026-07-06T12:00:00Z"));
        assertThat(round.row("Ada Brook").path("pastDeadlineWorkingDays").asInt()).isEqualTo(4);
        assertThat(plain.row("Ada Brook").path("pastDeadlineWorkingDays").asInt()).isEqualTo(4);
        RunningApp.CLOCK.set(Instant.parse("2026-07-04T12:00:00Z"));
        assertThat(round.row("Ada Brook").path("pastDeadlineWorkingDays").asInt()).isEqualTo(2);
        assertThat(plain.row("Ada Brook").path("pastDeadlineWorkingDays").asInt()).isEqualTo(3);
        assertThat(round.row("Ada Brook").path("pastDeadlineMinutes").asLong()).isEqualTo(plain.row("Ada Brook").path("pastDeadlineMinutes").asLong());
        assertThat(desk.send("DELETE", "/api/calendars/" + made, null).problem()).isEqualTo("calendar-used");
    }

    @Test
    void aDeadlineOnAClosedDayIsOddAndSaysWhy() {
        String calendar = desk.post("/api/calendars", "{\"name\":\"England\",\"weekend\":[\"SATURDAY\",\"SUNDAY\"],\"country\":\"gb\",\"region\":\"eng\"}").json().path("id").asString();
        TestRound round = new TestRound();
        round.sheet.put("calendarId", Long.parseLong(calendar)).put("deadlineDate", "2026-12-25");
        assertThat(round.begin().json().path("oddities").toString()).contains("Christmas");
    }

    /** Source: RFC 5545; the file is as other programs write it: folded lines, escaped text, a yearly rule, an event of three days, one with a time. */
    @Test
    void anICalendarFileClosesItsWholeDays() {
        String file = String.join("\r\n", "BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:-//x//y//EN",
                "BEGIN:VEVENT", "UID:1", "DTSTAMP:20260101T000000Z", "DTSTART;VALUE=DATE:20261224", "DTEND;VALUE=DATE:20261227", "SUMMARY:Closed\\, all of", "  us", "END:VEVENT",
                "BEGIN:VEVENT", "UID:2", "DTSTAMP:20260101T000000Z", "DTSTART;VALUE=DATE:20260817", "RRULE:FREQ=YEARLY;COUNT=3", "SUMMARY:Founders", "END:VEVENT",
                "BEGIN:VEVENT", "UID:3", "DTSTAMP:20260101T000000Z", "DTSTART:20260701T100000Z", "SUMMARY:Meeting", "END:VEVENT", "END:VCALENDAR", "");
        JsonNode read = desk.send("POST", "/api/calendars/read", file.getBytes(StandardCharsets.UTF_8)).json();
        assertThat(read.path("passedOver").asInt()).isEqualTo(1);
        assertThat(read.path("days").toString()).contains("2026-12-24", "2026-12-25", "2026-12-26", "2026-08-17", "2027-08-17", "Closed, all of us").doesNotContain("2026-12-27");
        String id = desk.post("/api/calendars", "{\"name\":\"From a file\",\"weekend\":[]}").json().path("id").asString();
        assertThat(desk.post("/api/calendars/" + id + "/days", "{\"days\":" + read.path("days") + "}").json().path("closingDays")).hasSize(read.path("days").size());
        assertThat(desk.send("DELETE", "/api/calendars/" + id + "/days?day=2026-12-24", null).json().path("closingDays")).hasSize(read.path("days").size() - 1);
        assertThat(desk.send("POST", "/api/calendars/read", "not a calendar".getBytes(StandardCharsets.UTF_8)).problem()).isEqualTo("not-a-calendar");
        assertThat(desk.send("POST", "/api/calendars/read", new byte[6_000_000]).problem()).isEqualTo("file-too-large");
    }

    @Test
    void calendarsThatCannotBeAreRefusedAtTheirField() {
        assertThat(desk.post("/api/calendars", "{\"name\":\" \"}").at("name")).isNotEmpty();
        assertThat(desk.post("/api/calendars", "{\"name\":\"office\"}").at("name")).contains("already");
        assertThat(desk.post("/api/calendars", "{\"name\":\"x\",\"weekend\":[\"MONDAY\",\"TUESDAY\",\"WEDNESDAY\",\"THURSDAY\",\"FRIDAY\",\"SATURDAY\",\"SUNDAY\"]}").at("weekend")).isNotEmpty();
        assertThat(desk.post("/api/calendars", "{\"name\":\"x\",\"country\":\"zz\"}").at("country")).isNotEmpty();
        assertThat(desk.post("/api/calendars", "{\"name\":\"x\",\"country\":\"gb\",\"region\":\"mars\"}").at("region")).isNotEmpty();
    }

    /** Source: RFC 5545, read by ical4j; lines of at most 75 octets that end with CR LF. */
    @Test
    void deadlinesAreAFeedThatOnlyItsAddressOpensAndThatNamesNobody() throws Exception {
        TestRound round = new TestRound();
        round.sheet.put("title", "Räume, Ställe; und \\ " + "sehr lange Wörter ".repeat(7) + round.title()).put("closingDate", "2026-07-20");
        round.open();
        round.act("EXTEND", "Ada Brook", "\"date\":\"2026-07-07\",\"reason\":\"ill\"");
        String url = desk.post("/api/feed", "").json().path("url").asString();
        String path = url.substring(url.indexOf("/calendar/"));
        byte[] content = new Http().get(path).response().body();
        String text = new String(content, StandardCharsets.UTF_8);
        assertThat(text.replace("\r\n", "")).doesNotContain("\n").doesNotContain("Ada Brook").doesNotContain("ada@example.org");
        assertThat(text.split("\r\n")).allMatch(line -> line.getBytes(StandardCharsets.UTF_8).length <= 75);
        VEvent event = event(content, "deadline-" + round.id);
        assertThat(event.getSummary().getValue()).startsWith("Deadline: Räume, Ställe; und \\ sehr").endsWith("(2 of 2 still owe)");
        assertThat(event.getDateTimeStart().getDate().toString()).isEqualTo("2026-06-30T16:00Z");
        assertThat(event.getDateTimeStamp()).isNotNull();
        assertThat(event(content, "extended-" + round.id + "-2026-07-07").getDateTimeStart().getDate().toString()).isEqualTo("2026-07-07");
        assertThat(event(content, "closing-" + round.id)).isNotNull();
        String again = desk.post("/api/feed", "").json().path("url").asString();
        assertThat(again).isNotEqualTo(url);
        assertThat(new Http().get(path).status()).as("a new address ends the old one").isEqualTo(404);
        desk.send("DELETE", "/api/feed", null);
        assertThat(new Http().get(again.substring(again.indexOf("/calendar/"))).status()).isEqualTo(404);
    }

    private static VEvent event(byte[] content, String uid) throws Exception {
        return (VEvent) new CalendarBuilder().build(new ByteArrayInputStream(content)).getComponents(Component.VEVENT).stream()
                .filter(one -> ((VEvent) one).getUid().orElseThrow().getValue().equals(uid + "@oak-basket")).findFirst().orElseThrow();
    }

    /** Sources: RFC 4180, read back by the CSV reader of H2; the workbook reopened by fastexcel-reader. */
    @Test
    void whoSentWhatGoesOutAsATableThatOthersRead() throws Exception {
        TestRound round = new TestRound();
        round.sheet.withArray("items").removeAll();
        round.item("=2+5, \"a map\"", true, 1, 5, 1, "PDF").person("@Cy \"Moss\", Esq.", "cy@example.org").open();
        TestRound.Sender ada = round.personal("Ada Brook").begin();
        ada.send(1, "a.pdf", TestRound.pdf("1"));
        ada.send(1, "b.pdf", TestRound.pdf("2"));
        round.act("NOTE", "Ben Reed", "\"text\":\"line one\\nline two\"");
        round.act("REMOVE", "@Cy \"Moss\", Esq.", "\"on\":false");
        byte[] csv = desk.get("/api/rounds/" + round.id + "/table.csv").response().body();
        try (ResultSet rows = new Csv().read(new InputStreamReader(new ByteArrayInputStream(csv, 3, csv.length - 3), StandardCharsets.UTF_8), null)) {
            rows.next();
            assertThat(rows.getString("PERSON")).isEqualTo("Ada Brook");
            assertThat(rows.getString("FILES")).isEqualTo("2");
            assertThat(rows.getString(14)).isEqualTo("arrived (2)");
            assertThat(rows.getMetaData().getColumnName(14)).isEqualTo("'=2+5, \"a map\"");
            rows.next();
            assertThat(rows.getString("NOTE").replace("\r", "")).isEqualTo("line one\nline two");
            rows.next();
            assertThat(rows.getString("PERSON")).isEqualTo("'@Cy \"Moss\", Esq.");
        }
        byte[] xlsx = desk.get("/api/rounds/" + round.id + "/table.xlsx").response().body();
        try (ReadableWorkbook book = new ReadableWorkbook(new ByteArrayInputStream(xlsx))) {
            List<Row> rows = book.getFirstSheet().read();
            assertThat(rows).hasSize(4);
            assertThat(rows.get(0).getCellText(13)).isEqualTo("=2+5, \"a map\"");
            assertThat(rows.get(0).getCell(13).getFormula()).as("text, not a formula").isNull();
            assertThat(rows.get(1).getCellText(0)).isEqualTo("Ada Brook");
            assertThat(rows.get(3).getCellText(0)).isEqualTo("@Cy \"Moss\", Esq.");
        }
    }
}
