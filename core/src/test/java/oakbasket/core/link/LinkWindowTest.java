package oakbasket.core.link;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import oakbasket.core.fault.Fault;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class LinkWindowTest {

    private static final ZoneId LONDON = ZoneId.of("Europe/London");
    private static final Instant NOW = Instant.parse("2026-10-20T09:00:00Z");

    /** Common practice, no source: 14 days is usual, 7, 2 and 1 are shorter, 180 the longest. Clocks go back on 25 October 2026 (IANA tz database). */
    @ParameterizedTest(name = "{0} days from {1}: {2}")
    @CsvSource({
        "1, -, 2026-10-21T09:00:00Z", "2, -, 2026-10-22T09:00:00Z", "7, -, 2026-10-27T10:00:00Z", "14, -, 2026-11-03T10:00:00Z",
        "180, -, 2027-04-18T09:00:00Z", "14, 2026-12-01T00:00:00Z, 2026-12-15T00:00:00Z"})
    void daysEndAtTheSameTimeOfTheClock(int days, String begins, Instant end) {
        LinkWindow window = LinkWindow.ofDays(NOW, at(begins), days, LONDON);
        assertThat(window.end()).isEqualTo(end);
        assertThat(window.fault(NOW)).isEmpty();
        assertThat(window.ended(end.minusNanos(1))).isFalse();
        assertThat(window.ended(end)).isTrue();
    }

    @ParameterizedTest(name = "from {0} to {1}: {2} {3}")
    @CsvSource({
        "-, -, '', ''",
        "-, 2026-10-20T09:00:00Z, ends, link-end-past",
        "-, 2026-10-20T09:00:01Z, '', ''",
        "-, 2027-04-18T09:00:00Z, '', ''",
        "-, 2027-04-18T09:00:01Z, ends, link-end-far",
        "2026-11-01T00:00:00Z, 2026-11-01T00:00:00Z, ends, link-end-before-begin",
        "2026-11-01T00:00:00Z, 2027-04-30T00:00:00Z, '', ''",
        "2026-11-01T00:00:00Z, 2027-04-30T00:00:01Z, ends, link-end-far",
        "2027-10-20T09:00:00Z, -, '', ''",
        "2027-10-20T09:00:01Z, -, begins, link-begin-far"})
    void whatCannotBeAWindow(String begins, String ends, String field, String code) {
        assertThat(new LinkWindow(NOW, at(begins), at(ends)).fault(NOW).map(Fault::field).orElse("")).isEqualTo(field);
        assertThat(new LinkWindow(NOW, at(begins), at(ends)).fault(NOW).map(Fault::code).orElse("")).isEqualTo(code);
    }

    @Test
    void aWindowLeftWithoutAnEndIsCappedFromItsBeginning() {
        assertThat(LinkWindow.whileGathering(NOW).end()).isEqualTo(NOW.plus(Duration.ofDays(180)));
        Instant later = NOW.plus(Duration.ofDays(30));
        assertThat(new LinkWindow(NOW, later, null).end()).isEqualTo(later.plus(Duration.ofDays(180)));
        assertThat(new LinkWindow(NOW, NOW.minusSeconds(9), null).end()).as("a beginning in the past").isEqualTo(NOW.plus(Duration.ofDays(180)));
    }

    @Test
    void aRenewedLinkIsCappedFromItsRenewal() {
        LinkTerms old = LinkTerms.fresh(NOW.minus(Duration.ofDays(179)));
        assertThat(old.with(LinkWindow.whileGathering(NOW)).window().end()).isEqualTo(NOW.plus(Duration.ofDays(180)));
    }

    private static @Nullable Instant at(String instant) {
        return instant.equals("-") ? null : Instant.parse(instant);
    }
}
