package oakbasket.core.link;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import oakbasket.core.round.RoundState;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class LinkAdmissionTest {

    private static final Instant NOW = Instant.parse("2026-06-01T12:00:00Z");

    /** w withdrawn, p paused, b not begun, e ended, u used up; each later reason is hidden by an earlier one. */
    @ParameterizedTest(name = "[{0}] in a {1} round, closing in {2} s, passcode {3}: {4}, {5}")
    @CsvSource({
        "'',    GATHERING, -,  true,  ADMITTED,        LIVE",
        "'',    GATHERING, 1,  true,  ADMITTED,        LIVE",
        "'',    GATHERING, 0,  true,  CLOSED,          LIVE",
        "'',    GATHERING, -,  false, PASSCODE_NEEDED, LIVE",
        "u,     GATHERING, -,  false, USED_UP,         USED_UP",
        "eu,    GATHERING, -,  false, CLOSED,          ENDED",
        "'',    CLOSED,    -,  false, CLOSED,          ENDED",
        "'',    ARCHIVED,  -,  true,  CLOSED,          ENDED",
        "'',    DRAFT,     -,  true,  UNKNOWN,         LIVE",
        "b,     CLOSED,    -,  false, NOT_YET_BEGUN,   ENDED",
        "b,     GATHERING, -,  false, NOT_YET_BEGUN,   WAITING",
        "pb,    GATHERING, -,  false, PAUSED,          PAUSED",
        "pbeu,  CLOSED,    -,  false, PAUSED,          ENDED",
        "wpbeu, CLOSED,    -,  false, UNKNOWN,         WITHDRAWN"})
    void theFirstReasonCounts(String flags, RoundState round, String closesIn, boolean passcode, LinkAdmission admission, LinkState state) {
        Instant closes = closesIn.equals("-") ? null : NOW.plusSeconds(Long.parseLong(closesIn));
        assertThat(LinkAdmission.decide(link(flags), round, closes, false, passcode, NOW)).isEqualTo(admission);
        assertThat(LinkState.of(link(flags), round, NOW)).isEqualTo(state);
    }

    @ParameterizedTest(name = "unknown link, {0}")
    @CsvSource({"GATHERING", "CLOSED"})
    void aLinkThatDoesNotExistIsUnknown(RoundState round) {
        assertThat(LinkAdmission.decide(null, round, null, false, false, NOW)).isEqualTo(LinkAdmission.UNKNOWN);
    }

    @Test
    void aSubmissionThatIsAmongTheUsesGoesOnWhenTheyAreUsedUp() {
        assertThat(LinkAdmission.decide(link("u"), RoundState.GATHERING, null, true, true, NOW)).isEqualTo(LinkAdmission.ADMITTED);
        assertThat(LinkAdmission.decide(link("pu"), RoundState.GATHERING, null, true, true, NOW)).isEqualTo(LinkAdmission.PAUSED);
    }

    /** Common practice, no source: a link without an end lives 180 days, still one second before, no longer at the end; warns 14 days before. */
    @ParameterizedTest(name = "after {0}: ended {1}, ends soon {2}")
    @CsvSource({"P165DT23H59M59S, false, false", "P166D, false, true", "P179DT23H59M59S, false, true", "P180D, true, false"})
    void aLinkWithoutAnEndIsCapped(Duration age, boolean ended, boolean soon) {
        LinkTerms link = LinkTerms.fresh(NOW);
        assertThat(link.window().ended(NOW.plus(age))).isEqualTo(ended);
        assertThat(LinkState.endsSoon(link, RoundState.GATHERING, NOW.plus(age))).isEqualTo(soon);
    }

    private static LinkTerms link(String flags) {
        Instant before = NOW.minusSeconds(60);
        LinkWindow window = new LinkWindow(NOW.minus(Duration.ofDays(3)), flags.contains("b") ? NOW.plusSeconds(1) : null, flags.contains("e") ? NOW : null);
        return new LinkTerms(window, flags.contains("p") ? before : null, flags.contains("w") ? before : null, new LinkLimits(flags.contains("u") ? 4 : 5, null, null, null), 4);
    }
}
