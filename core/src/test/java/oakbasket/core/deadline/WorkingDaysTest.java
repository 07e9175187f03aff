package oakbasket.core.deadline;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.DayOfWeek;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class WorkingDaysTest {

    /** June 2026 begins on a Monday. Closed days are written by their number. */
    @ParameterizedTest(name = "day {0}, weekend {1}, closed [{2}], {3}: day {4}")
    @CsvSource({
        "10, SATURDAY SUNDAY, '',          EARLIER, 10",
        "13, SATURDAY SUNDAY, '',          EARLIER, 12",
        "13, SATURDAY SUNDAY, '',          LATER,   15",
        "13, SATURDAY SUNDAY, '',          KEEP,    13",
        "14, SATURDAY SUNDAY, '12 11',     EARLIER, 10",
        "13, SATURDAY SUNDAY, '15 16',     LATER,   17",
        "12, FRIDAY,          '',          LATER,   13",
        "12, FRIDAY SATURDAY, '',          EARLIER, 11",
        "12, FRIDAY SATURDAY, '11 10 9',   EARLIER, 8",
        "30, '',              '30',        EARLIER, 29"})
    void aDateMovesOffClosedDays(int day, String weekend, String closed, WorkingDays.Shift shift, int moved) {
        assertThat(days(weekend, closed).shifted(june(day), shift)).isEqualTo(june(moved));
    }

    @ParameterizedTest(name = "{1} working days from {0}, closed [{2}]: {3}")
    @CsvSource({
        "10, 0,   '',      10",
        "10, 1,   '',      11",
        "12, 1,   '',      15",
        "13, 1,   '',      15",
        "13, -1,  '',      12",
        "15, -1,  '',      12",
        "15, -3,  '11',    9",
        "1,  19,  '9 10',  30"})
    void workingDaysAreCountedForwardsAndBack(int day, int count, String closed, int reached) {
        WorkingDays calendar = days("SATURDAY SUNDAY", closed);
        assertThat(calendar.plus(june(day), count)).isEqualTo(june(reached));
    }

    @ParameterizedTest(name = "from {0} to {1}, weekend {2}, closed [{3}]: {4}")
    @CsvSource({
        "1,  1,  SATURDAY SUNDAY, '',     0",
        "1,  2,  SATURDAY SUNDAY, '',     1",
        "5,  8,  SATURDAY SUNDAY, '',     1",
        "5,  7,  SATURDAY SUNDAY, '',     0",
        "1,  30, SATURDAY SUNDAY, '',     21",
        "1,  30, SATURDAY SUNDAY, '9 10', 19",
        "1,  30, FRIDAY,          '',     25",
        "20, 10, SATURDAY SUNDAY, '',     0"})
    void workingDaysAreThoseAfterTheFirstUpToTheLast(int from, int to, String weekend, String closed, int expected) {
        assertThat(days(weekend, closed).between(june(from), june(to))).isEqualTo(expected);
    }

    /** Counted one day after another over a year, for calendars made at random. */
    @Test
    void countingAgreesWithCountingOnFingers() {
        Random random = new Random(11);
        for (int round = 0; round < 200; round++) {
            Set<DayOfWeek> weekend = EnumSet.noneOf(DayOfWeek.class);
            for (int n = random.nextInt(3); n > 0; n--) {
                weekend.add(DayOfWeek.of(1 + random.nextInt(7)));
            }
            Set<LocalDate> closed = new HashSet<>();
            for (int n = random.nextInt(30); n > 0; n--) {
                closed.add(LocalDate.of(2026, 1, 1).plusDays(random.nextInt(365)));
            }
            WorkingDays days = new WorkingDays(weekend, closed);
            LocalDate from = LocalDate.of(2026, 1, 1).plusDays(random.nextInt(300));
            LocalDate to = from.plusDays(random.nextInt(60));
            int counted = 0;
            for (LocalDate day = from.plusDays(1); !day.isAfter(to); day = day.plusDays(1)) {
                counted += !weekend.contains(day.getDayOfWeek()) && !closed.contains(day) ? 1 : 0;
            }
            assertThat(days.between(from, to)).isEqualTo(counted);
            LocalDate moved = days.shifted(to, WorkingDays.Shift.LATER);
            assertThat(days.isWorking(moved)).isTrue();
            assertThat(days.between(to, moved)).isEqualTo(moved.equals(to) ? 0 : 1);
        }
    }

    @Test
    void aDateStaysWhereNobodyWorksForMonths() {
        Set<LocalDate> closed = LocalDate.of(2026, 6, 1).datesUntil(LocalDate.of(2026, 12, 1)).collect(Collectors.toSet());
        WorkingDays days = new WorkingDays(Set.of(), closed);
        assertThat(days.shifted(june(15), WorkingDays.Shift.LATER)).isEqualTo(june(15));
        assertThatThrownBy(() -> new WorkingDays(EnumSet.allOf(DayOfWeek.class), Set.of())).hasMessageContaining("at least one working day");
    }

    /** The same instant is another day elsewhere, and so is the lateness. */
    @ParameterizedTest(name = "in {0}: {1}")
    @CsvSource({"Europe/London, 1", "Pacific/Auckland, 1", "America/Los_Angeles, 1", "Asia/Kathmandu, 2"})
    void latenessIsCountedInTheRoundsZone(String zone, int days) {
        Instant deadline = Instant.parse("2026-06-08T16:00:00Z");
        int late = WorkingDays.MONDAY_TO_FRIDAY.late(deadline, Instant.parse("2026-06-09T20:00:00Z"), ZoneId.of(zone));
        assertThat(late).isEqualTo(days);
    }

    private static WorkingDays days(String weekend, String closed) {
        Set<DayOfWeek> off = EnumSet.noneOf(DayOfWeek.class);
        Arrays.stream(weekend.split(" ")).filter(name -> !name.isEmpty()).map(DayOfWeek::valueOf).forEach(off::add);
        return new WorkingDays(off, Arrays.stream(closed.split(" ")).filter(day -> !day.isEmpty()).map(day -> june(Integer.parseInt(day))).collect(Collectors.toSet()));
    }

    private static LocalDate june(int day) {
        return LocalDate.of(2026, 6, day);
    }

    /** A date is looked for within sixty days: the one asked for and the 59 after it. */
    @ParameterizedTest(name = "{0} closed days in a row: moved by {1}")
    @CsvSource({"58, 58", "59, 59", "60, 0"})
    void aWorkingDayIsLookedForWithinSixtyDays(int closedDays, int moved) {
        Set<LocalDate> closed = june(1).datesUntil(june(1).plusDays(closedDays)).collect(Collectors.toSet());
        assertThat(new WorkingDays(Set.of(), closed).shifted(june(1), WorkingDays.Shift.LATER)).isEqualTo(june(1).plusDays(moved));
    }

    /** After sixty closed days in a row every further day counts, so that a calendar closed for good still gives a date. */
    @ParameterizedTest(name = "{0} closed days, then one working day: {1} days on")
    @CsvSource({"59, 60", "60, 61", "61, 61", "100, 61"})
    void aCalendarThatIsClosedForMonthsStillCounts(int closedDays, int later) {
        Set<LocalDate> closed = june(2).datesUntil(june(2).plusDays(closedDays)).collect(Collectors.toSet());
        assertThat(new WorkingDays(Set.of(), closed).plus(june(1), 1)).isEqualTo(june(1).plusDays(later));
    }
}
