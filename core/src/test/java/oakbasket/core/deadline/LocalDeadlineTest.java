package oakbasket.core.deadline;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Source of the clock changes: IANA tz database, as carried by the JDK. */
class LocalDeadlineTest {

    @ParameterizedTest(name = "{0} {1} {2} is {3}")
    @CsvSource({
        "2026-06-01, 17:00, Europe/London,    2026-06-01T16:00:00Z",
        "2027-03-28, 01:30, Europe/London,    2027-03-28T01:30:00Z",
        "2026-10-25, 01:30, Europe/London,    2026-10-25T01:30:00Z",
        "2026-10-25, 00:59, Europe/London,    2026-10-24T23:59:00Z",
        "2027-03-14, 02:30, America/New_York, 2027-03-14T07:30:00Z",
        "2026-11-01, 01:30, America/New_York, 2026-11-01T06:30:00Z",
        "2026-06-01, 12:00, Asia/Kathmandu,   2026-06-01T06:15:00Z",
        "2026-06-01, ,      Europe/London,    2026-06-01T22:59:59.999999999Z",
        "2011-12-30, ,      Pacific/Apia,     2011-12-31T09:59:59.999999999Z",
        "2011-12-29, ,      Pacific/Apia,     2011-12-30T09:59:59.999999999Z",
        "2024-02-29, ,      UTC,              2024-02-29T23:59:59.999999999Z"})
    void gapGoesForwardOverlapTakesTheLaterAndADateMeansItsEnd(LocalDate date, LocalTime time, String zone, Instant expected) {
        assertThat(new LocalDeadline(date, time, ZoneId.of(zone)).instant()).isEqualTo(expected);
    }

    @ParameterizedTest
    @CsvSource(nullValues = "-", value = {"-, true", "17:00, false"})
    void aDeadlineWithoutATimeIsADate(LocalTime time, boolean dateOnly) {
        assertThat(new LocalDeadline(LocalDate.of(2026, 6, 30), time, java.time.ZoneId.of("Europe/London")).dateOnly()).isEqualTo(dateOnly);
    }
}
