package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assertions.assertTimeout;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** A few bytes that would become very many, and many that would become even more: refused or clipped before they do. */
class ExpandingInputTest {

    /** Not a measure of speed: without the bounds none of these ends within minutes. */
    private static final Duration SOON = Duration.ofSeconds(20);
    private static final int NEARLY_TOO_LONG = 19 << 20;

    private static Http.Answer calendar(String... lines) {
        String file = "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTAMP:20260101T000000Z\r\nSUMMARY:Away\r\n" + String.join("\r\n", lines)
                + "\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n";
        return soon("/api/calendars/read", file.getBytes(StandardCharsets.UTF_8));
    }

    /** The application is started before the time runs. */
    private static Http.Answer soon(String path, byte[] body) {
        Http desk = Http.desk();
        return assertTimeout(SOON, () -> desk.send("POST", path, body, "Content-Type", "application/octet-stream"));
    }

    /** The clock stands in June 2026; a year back and three ahead are looked at. */
    @Test
    void anEventOfCenturiesIsClippedToTheYearsThatAreLookedAt() {
        Http.Answer read = calendar("DTSTART;VALUE=DATE:20260101", "DURATION:P9999999D");
        assertThat(read.status()).as(read.text()).isEqualTo(200);
        assertThat(read.json().path("days").size()).isBetween(1_000, 1_300);
        assertThat(calendar("DTSTART;VALUE=DATE:20240101", "DTEND;VALUE=DATE:99990101").json().path("days").size()).isBetween(1_460, 1_462);
    }

    @ParameterizedTest
    @CsvSource({"FREQ=SECONDLY", "FREQ=MINUTELY;COUNT=99999999", "FREQ=HOURLY"})
    void whatRecursByTheHourIsNoWholeDay(String rule) {
        Http.Answer read = calendar("DTSTART;VALUE=DATE:20260101", "RRULE:" + rule);
        assertThat(read.json().path("passedOver").asInt()).as(read.text()).isEqualTo(1);
        assertThat(read.json().path("days")).isEmpty();
    }

    @Test
    void datesAndRulesAreCountedBeforeTheyAreRead() {
        assertThat(calendar("DTSTART;VALUE=DATE:20260101", "RDATE;VALUE=DATE:" + "20260102,".repeat(400_000) + "20260103").problem()).isEqualTo("calendar-too-long");
        assertThat(calendar("DTSTART;VALUE=DATE:20260101", "RRULE:FREQ=DAILY\r\n".repeat(600) + "X:1").problem()).isEqualTo("calendar-too-long");
        assertThat(calendar("DTSTART;VALUE=DATE:00010101", "RRULE:FREQ=DAILY").json().path("passedOver").asInt()).as("from the year 1 on").isEqualTo(1);
    }

    @ParameterizedTest
    @CsvSource({"',', import-not-a-table", "'\n', import-too-long", "';', import-not-a-table", "'a,\n', import-too-long"})
    void aTableOfNothingIsRefusedWithoutBeingMade(String repeated, String problem) {
        byte[] content = repeated.repeat(NEARLY_TOO_LONG / repeated.length()).getBytes(StandardCharsets.UTF_8);
        assertThat(imported(content).problem()).isEqualTo(problem);
    }

    @Test
    void oneEndlessCellIsShownInBrief() {
        Http.Answer read = imported("\",\"".repeat(NEARLY_TOO_LONG / 3).getBytes(StandardCharsets.UTF_8));
        assertThat(read.status()).isEqualTo(200);
        assertThat(read.text().length()).isLessThan(2_000);
    }

    @Test
    void cardsWithinCardsAndEndlessCardsAreRefused() {
        assertThat(imported("BEGIN:VCARD\r\nVERSION:2.1\r\nAGENT:\r\n".repeat(300_000).getBytes(StandardCharsets.UTF_8)).problem()).isEqualTo("import-not-a-table");
        assertThat(imported(("BEGIN:VCARD\r\nVERSION:3.0\r\n" + "N:;;;\r\n".repeat(2_000_000) + "END:VCARD\r\n").getBytes(StandardCharsets.UTF_8)).problem()).isEqualTo("import-not-a-table");
        assertThat(imported(("BEGIN:VCARD\r\nVERSION:4.0\r\nFN:Ada\r\nEMAIL:ada@example.org\r\nEND:VCARD\r\n").repeat(50).getBytes(StandardCharsets.UTF_8)).status()).isEqualTo(200);
    }

    private static Http.Answer imported(byte[] content) {
        return soon("/api/contacts/import?charset=&delimiter=", content);
    }

    @ParameterizedTest
    @CsvSource({"ab", "'\u0001'", "'\"'", "'\uFEFF'"})
    void aDelimiterThatPartsNothingIsToldAtItsField(String delimiter) {
        Http.Answer read = Http.desk().send("POST", "/api/contacts/import?charset=&delimiter=" + java.net.URLEncoder.encode(delimiter, StandardCharsets.UTF_8), "a,b".getBytes(), "Content-Type", "text/csv");
        assertThat(read.at("delimiter")).as(read.text()).isNotEmpty();
    }
}
