package oakbasket.server.http;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class RateTest {

    private static final long SECOND = 1_000_000_000L;

    /** 500 bytes a second, judged after ten; times near the end of what a nanosecond counter holds, and sizes beyond what 64 bits hold in billionths. */
    @ParameterizedTest(name = "{0} bytes in {1} s, counted from {2}: too low {3}")
    @CsvSource({
        "0, 0, 0, false", "0, 10, 0, false", "0, 11, 0, true", "5499, 11, 0, true", "5501, 11, 0, false", "1, 3600, 0, true", "1800001, 3600, 0, false",
        "9223372036, 20, 0, false", "9223372037, 20, 0, false", "18446744074, 20, 0, false", "5000000000000, 100000, 0, false", "100, 11, 9223372036854775000, true", "6000, 11, 9223372036854775000, false"})
    void whatPassesMoreSlowlyThanAnyLineIsTooLow(long bytes, long seconds, long from, boolean tooLow) {
        Rate rate = new Rate();
        assertThat(rate.tooLow(from)).as("nobody is judged at once").isFalse();
        rate.passed(bytes);
        assertThat(rate.tooLow(from + seconds * SECOND)).isEqualTo(tooLow);
    }

    @Test
    void eachIsJudgedByItsOwnBytes() {
        Rate large = new Rate();
        Rate slow = new Rate();
        large.tooLow(0);
        slow.tooLow(0);
        large.passed(1L << 40);
        slow.passed(10);
        assertThat(large.tooLow(30 * SECOND)).isFalse();
        assertThat(slow.tooLow(30 * SECOND)).as("others are fast, this one is not").isTrue();
    }
}
