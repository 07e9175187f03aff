package oakbasket.core.digest;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** When a coordinator is told. Times are those of London, whose clock went forward on 29 March and back on 25 October 2026 (tzdata). */
class DigestPlanTest {

    private static final ZoneId LONDON = ZoneId.of("Europe/London");

    private static Instant at(String local) {
        return LocalDateTime.parse(local.length() == 5 ? "2026-06-02T" + local : local).atZone(LONDON).toInstant();
    }

    @ParameterizedTest(name = "{0}, told {1}, came {2} to {3}, now {4}: {5}")
    @CsvSource({"NEVER, 08:00, 08:01, 08:01, 23:00, false", "AT_ONCE, 08:00, 08:01, 08:01, 08:02, false", "AT_ONCE, 08:00, 08:01, 08:01, 08:03, true", "AT_ONCE, 08:00, 08:01, 08:10, 08:11, true",
        "AT_ONCE, 08:00, 08:01, 08:09, 08:10, false", "HOURLY, 08:00, 08:01, 08:01, 08:59, false", "HOURLY, 08:00, 08:01, 08:59, 09:00, true", "DAILY, 07:59, 07:59, 07:59, 08:00, true",
        "DAILY, 08:00, 08:01, 08:01, 23:59, false", "DAILY, 08:00, 08:01, 08:01, 2026-06-03T07:59, false", "DAILY, 08:00, 08:01, 08:01, 2026-06-03T08:00, true",
        "DAILY, 2026-03-28T08:00, 2026-03-28T09:00, 2026-03-28T09:00, 2026-03-29T07:59, false", "DAILY, 2026-03-28T08:00, 2026-03-28T09:00, 2026-03-28T09:00, 2026-03-29T08:00, true",
        "DAILY, 2026-10-24T08:00, 2026-10-24T09:00, 2026-10-24T09:00, 2026-10-25T07:59, false", "DAILY, 2026-10-24T08:00, 2026-10-24T09:00, 2026-10-24T09:00, 2026-10-25T08:00, true",
        "DAILY, 2026-06-01T23:00, 2026-06-01T23:30, 2026-06-01T23:30, 08:00, true"})
    void itIsTimeToTellOrNot(DigestPlan plan, String told, String oldest, String newest, String now, boolean due) {
        assertThat(plan.due(at(told), at(oldest), at(newest), at(now), LONDON)).isEqualTo(due);
    }
}
