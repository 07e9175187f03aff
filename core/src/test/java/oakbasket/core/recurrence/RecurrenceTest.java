package oakbasket.core.recurrence;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.time.LocalDate;
import java.time.temporal.TemporalAdjusters;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import oakbasket.core.deadline.WorkingDays;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class RecurrenceTest {

    /** Source: RFC 5545 §3.8.5.3, its worked examples, times of day left out. */
    @ParameterizedTest(name = "{0}")
    @CsvSource(delimiter = '|', value = {
        "FREQ=MONTHLY;COUNT=10;BYDAY=1FR               | 1997-09-05 | 1997-09-05 1997-10-03 1997-11-07 1997-12-05 1998-01-02 1998-02-06 1998-03-06 1998-04-03 1998-05-01 1998-06-05",
        "FREQ=MONTHLY;BYMONTHDAY=-3                    | 1997-09-28 | 1997-09-28 1997-10-29 1997-11-28 1997-12-29 1998-01-29 1998-02-26",
        "FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-2 | 1997-09-29 | 1997-09-29 1997-10-30 1997-11-27 1997-12-30 1998-01-29 1998-02-26 1998-03-30",
        "FREQ=MONTHLY;INTERVAL=2;COUNT=10;BYDAY=1SU,-1SU | 1997-09-07 | 1997-09-07 1997-09-28 1997-11-02 1997-11-30 1998-01-04 1998-01-25 1998-03-01 1998-03-29 1998-05-03 1998-05-31",
        "FREQ=WEEKLY;INTERVAL=2;WKST=SU;COUNT=8;BYDAY=TU,TH | 1997-09-02 | 1997-09-02 1997-09-04 1997-09-16 1997-09-18 1997-09-30 1997-10-02 1997-10-14 1997-10-16",
        "FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13           | 1997-09-03 | 1998-02-13 1998-03-13 1998-11-13 1999-08-13 2000-10-13",
        "FREQ=YEARLY;INTERVAL=4;BYMONTH=11;BYDAY=TU;BYMONTHDAY=2,3,4,5,6,7,8 | 1996-11-05 | 1996-11-05 2000-11-07 2004-11-02",
        "FREQ=DAILY;UNTIL=19970904T000000Z             | 1997-09-02 | 1997-09-02 1997-09-03 1997-09-04",
        "FREQ=MONTHLY;BYMONTHDAY=15,30;COUNT=5         | 2007-01-15 | 2007-01-15 2007-01-30 2007-02-15 2007-03-15 2007-03-30"})
    void datesAreThoseOfTheStandard(String rule, LocalDate start, String dates) {
        List<LocalDate> expected = Arrays.stream(dates.split(" ")).map(LocalDate::parse).toList();
        assertThat(new Recurrence(rule).dates(start, null, expected.size())).isEqualTo(expected);
    }

    /** The last weekday of each month for thirty years, counted by hand of java.time. */
    @Test
    void theLastWorkingDayOfEachMonth() {
        List<LocalDate> dates = new Recurrence("FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1").dates(LocalDate.of(2026, 1, 1), null, 360);
        for (int month = 0; month < 360; month++) {
            LocalDate day = LocalDate.of(2026, 1, 1).plusMonths(month).with(TemporalAdjusters.lastDayOfMonth());
            while (day.getDayOfWeek().getValue() > 5) {
                day = day.minusDays(1);
            }
            assertThat(dates.get(month)).isEqualTo(day);
        }
    }

    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(delimiter = '|', value = {
        "FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30 | rule-never",
        "FREQ=MONTHLY;BYMONTH=4;BYMONTHDAY=31 | rule-never",
        "FREQ=SECONDLY                       | rule-too-often",
        "FREQ=HOURLY;BYDAY=MO                | rule-too-often",
        "FREQ=DAILY;BYHOUR=9                 | rule-times-of-day",
        "every second friday                 | rule-unreadable",
        "FREQ=MONTHLY;BYMONTHDAY=99          | rule-unreadable",
        "FREQ=DAILY;COUNT=-1                 | rule-unreadable",
        "''                                  | rule-missing"})
    @Timeout(10)
    void rulesThatCannotBeUsedAreRefusedWithAReason(String rule, String reason) {
        assertThatThrownBy(() -> new Recurrence(rule)).isInstanceOf(IllegalArgumentException.class).hasMessageContaining(reason);
    }

    /** A rule without an end is asked for a few dates; a far start costs little. */
    @ParameterizedTest
    @ValueSource(strings = {"FREQ=DAILY", "FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=29", "FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13"})
    void aRuleThatNeverEndsStillAnswersAtOnce(String rule) {
        Recurrence recurrence = new Recurrence(rule);
        org.junit.jupiter.api.Assertions.assertTimeoutPreemptively(Duration.ofSeconds(5), () -> {
            assertThat(recurrence.dates(LocalDate.of(2026, 1, 1), LocalDate.of(2090, 1, 1), 3)).hasSize(3).allMatch(date -> date.getYear() >= 2090);
        });
    }

    @Test
    void theDeadlinesOfASeriesMoveOffClosedDays() {
        WorkingDays days = new WorkingDays(Set.of(java.time.DayOfWeek.SATURDAY, java.time.DayOfWeek.SUNDAY), Set.of(LocalDate.of(2026, 12, 31)));
        Recurrence lastWorkingDay = new Recurrence("FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1");
        Series.Dates december = new Series(lastWorkingDay, LocalDate.of(2026, 12, 1), 14, WorkingDays.Shift.EARLIER).next(null, days).orElseThrow();
        assertThat(december).isEqualTo(new Series.Dates(LocalDate.of(2026, 12, 31), LocalDate.of(2026, 12, 16), LocalDate.of(2026, 12, 30)));
        assertThat(new Series(lastWorkingDay, LocalDate.of(2026, 12, 1), 14, WorkingDays.Shift.LATER).next(null, days).orElseThrow().deadline()).isEqualTo(LocalDate.of(2027, 1, 1));
        assertThat(new Series(lastWorkingDay, LocalDate.of(2026, 12, 1), 14, WorkingDays.Shift.KEEP).next(null, days).orElseThrow().deadline()).isEqualTo(LocalDate.of(2026, 12, 31));
        assertThat(Series.title("Survey sheets", LocalDate.of(2026, 12, 31), lastWorkingDay, Locale.ENGLISH)).isEqualTo("Survey sheets, December 2026");
        assertThat(Series.title("Survey sheets", LocalDate.of(2026, 12, 31), new Recurrence("FREQ=WEEKLY"), Locale.ENGLISH)).isEqualTo("Survey sheets, 31 December 2026");
    }

    /** Weekly on Mondays from 1 June 2026, open five days: what is to be made, going by the round made last and by today. */
    @ParameterizedTest(name = "made {0}, today {1}: {2}")
    @CsvSource({
        "-,          2026-05-26, -",
        "-,          2026-05-27, 2026-06-01",
        "2026-06-01, 2026-05-28, -",
        "2026-06-01, 2026-06-03, 2026-06-08",
        "2026-06-01, 2026-07-03, 2026-07-06",
        "2026-06-01, 2026-07-07, -",
        "2026-07-20, 2026-07-24, -"})
    void afterAStandstillOneRoundIsMadeAndNotAPile(String made, LocalDate today, String due) {
        Series series = new Series(new Recurrence("FREQ=WEEKLY;BYDAY=MO;UNTIL=20260720"), LocalDate.of(2026, 6, 1), 5, WorkingDays.Shift.KEEP);
        assertThat(series.due(made.equals("-") ? null : LocalDate.parse(made), today, WorkingDays.MONDAY_TO_FRIDAY).map(dates -> dates.occurrence().toString()).orElse("-")).isEqualTo(due);
    }

    @Test
    void aRuleIsTakenApart() {
        assertThat(new Recurrence("FREQ=MONTHLY;INTERVAL=3").parts().getInterval()).isEqualTo(3);
    }

    /** Dates are looked for up to a hundred years from the later of the start and the date they shall come after. */
    @ParameterizedTest(name = "from {0}, after {1}: {2}")
    @CsvSource(nullValues = "-", value = {"2026-01-01, -, 2026-02-01", "2026-01-01, 2025-01-01, 2026-02-01", "2026-01-01, 2026-02-01, 2027-02-01", "2026-01-01, 2140-03-01, 2141-02-01"})
    void datesComeAfterADateOrFromTheStart(LocalDate start, LocalDate after, LocalDate first) {
        assertThat(new Recurrence("FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=1").dates(start, after, 1)).containsExactly(first);
    }
}
