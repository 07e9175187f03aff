package oakbasket.core.deadline;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Set;
import java.util.TreeSet;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class TimelinessTest {

    private static final Instant DEADLINE = Instant.parse("2026-06-10T12:00:00Z");

    /** Days are told from the round's deadline; two days of warning, one of grace. */
    @ParameterizedTest(name = "extension {0}, finished {1}, now {2}: {3} by {4}")
    @CsvSource({
        "-,   -,          -P2DT1S,  AHEAD,    PT0S",
        "-,   -,          -P2D,     DUE_SOON, PT0S",
        "-,   -,          PT0S,     DUE_SOON, PT0S",
        "-,   -,          PT1S,     IN_GRACE, PT0S",
        "-,   -,          P1D,      IN_GRACE, PT0S",
        "-,   -,          P1DT1S,   OVERDUE,  PT24H1S",
        "P5D, -,          P1DT1S,   AHEAD,    PT0S",
        "P5D, -,          P7D,      OVERDUE,  PT48H",
        "-P1D, -,         PT1S,     OVERDUE,  PT24H1S",
        "-,   PT0S,       P9D,      ON_TIME,  PT0S",
        "-,   PT1S,       P9D,      IN_GRACE, PT0S",
        "-,   P1DT1S,     P9D,      LATE,     PT24H1S",
        "P5D, P1DT1S,     P9D,      ON_TIME,  PT0S"})
    void judgesAgainstTheEffectiveDeadline(String extension, String finished, String now, Timeliness.State state, Duration by) {
        DeadlineTerms terms = new DeadlineTerms(DEADLINE, at(extension), Duration.ofDays(2), Duration.ofDays(1));
        assertThat(Timeliness.of(terms, at(finished), DEADLINE.plus(Duration.parse(now)))).isEqualTo(new Timeliness(state, by));
    }

    /** How an unfinished basket stands changes just after one of its moments, and at no other time of an hour's steps. */
    @ParameterizedTest(name = "extension {0}, warning {1}, grace {2}")
    @CsvSource({"-, P2D, P1D", "P5D, P2D, P1D", "-P1D, PT0S, PT0S", "-, PT36H, PT0S", "P1D, PT0S, PT5H"})
    void onlyMomentsChangeHowAnUnfinishedBasketStands(String extension, Duration warning, Duration grace) {
        DeadlineTerms terms = new DeadlineTerms(DEADLINE, at(extension), warning, grace);
        Set<Instant> changes = new TreeSet<>();
        for (Instant now = DEADLINE.minus(Duration.ofDays(9)); now.isBefore(DEADLINE.plus(Duration.ofDays(9))); now = now.plus(Duration.ofHours(1))) {
            Instant next = now.plus(Duration.ofHours(1));
            if (Timeliness.of(terms, null, now.minusMillis(1)).state() != Timeliness.of(terms, null, next.minusMillis(1)).state()) {
                changes.add(now);
            }
        }
        assertThat(terms.moments()).containsAll(changes).contains(terms.effective(), terms.graceEnd());
        assertThat(changes).isNotEmpty();
    }

    private static Instant at(String offset) {
        return offset.equals("-") ? null : DEADLINE.plus(Duration.parse(offset));
    }

    /** 2026-06-12 is a Friday; 2026-06-15 is closed in this table. */
    @ParameterizedTest(name = "{0} to {1}: {2} working days")
    @CsvSource({
        "2026-06-12, 2026-06-12, 0", "2026-06-12, 2026-06-13, 0", "2026-06-12, 2026-06-14, 0",
        "2026-06-12, 2026-06-15, 0", "2026-06-12, 2026-06-16, 1", "2026-06-08, 2026-06-12, 4",
        "2026-06-16, 2026-06-12, 0", "2026-06-01, 2026-06-30, 20"})
    void countsWorkingDays(LocalDate from, LocalDate to, int days) {
        WorkingDays calendar = new WorkingDays(WorkingDays.MONDAY_TO_FRIDAY.weekend(), Set.of(LocalDate.of(2026, 6, 15)));
        assertThat(calendar.between(from, to)).isEqualTo(days);
    }

    @ParameterizedTest(name = "late in {0}: {1} working days")
    @CsvSource({"Europe/London, 0", "Pacific/Auckland, 1"})
    void latenessInWorkingDaysDependsOnTheZone(String zone, int days) {
        Instant deadline = Instant.parse("2026-06-10T09:00:00Z");
        assertThat(WorkingDays.MONDAY_TO_FRIDAY.late(deadline, deadline.plus(Duration.ofHours(10)), ZoneId.of(zone))).isEqualTo(days);
    }
}
