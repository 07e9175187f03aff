package oakbasket.server.security;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.github.bucket4j.TimeMeter;
import java.time.Duration;
import oakbasket.server.problem.Problem;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class LimitsTest {

    /** A clock that stands where it is put; it is asked millions of times, which a mock is not made for. */
    private static final class StandingClock implements TimeMeter {
        private long nanos;

        @Override
        public long currentTimeNanos() {
            return nanos;
        }

        @Override
        public boolean isWallClockBased() {
            return false;
        }
    }

    private final StandingClock time = new StandingClock();
    private final Limits limits = new Limits(time);

    private void at(Duration since) {
        time.nanos = since.toNanos();
    }

    /** The numbers are part of docs/security.md. */
    @ParameterizedTest
    @CsvSource({"SIGN_IN, 10, 5", "ACCOUNT, 10, 15", "KNOWN_BROWSER, 10, 15", "SET_UP, 10, 5", "PASSCODE, 5, 15", "PASSCODE_OF_LINK, 200, 60", "UNKNOWN_LINK, 60, 1", "RECEIPT, 60, 1", "CODE, 10, 60", "CODE_OF_ADDRESS, 5, 60", "CODE_OF_LINK, 300, 60", "RECEIPT_MAIL, 3, 60", "RECEIPT_MAIL_OF_ADDRESS, 10, 60", "STRANGER, 20000, 1", "SUBMISSION, 120, 60",
        "UPLOAD, 20000, 60"})
    void soManyTriesAndNoMoreUntilTheTimeIsOver(Limits.Kind kind, int times, int minutes) {
        for (int n = 0; n < times; n++) {
            limits.count(kind, "one");
        }
        assertThatThrownBy(() -> limits.count(kind, "one")).isInstanceOfSatisfying(Problem.class, problem -> {
            assertThat(problem.kind()).isEqualTo(Problem.Kind.TOO_MANY);
            assertThat(problem.retryAfterSeconds()).isEqualTo(minutes * 60L);
        });
        assertThatCode(() -> limits.count(kind, "another")).as("nobody is shut out by somebody else").doesNotThrowAnyException();
        at(Duration.ofMinutes(minutes).minusNanos(1));
        assertThatThrownBy(() -> limits.count(kind, "one")).isInstanceOf(Problem.class);
        at(Duration.ofMinutes(minutes));
        assertThatCode(() -> limits.count(kind, "one")).doesNotThrowAnyException();
    }

    /** Five at once, then a quarter of an hour; ten, then the rest of two hours; twenty, then the rest of the day. */
    @Test
    void whoGoesOnGuessingPasscodesWaitsLonger() {
        assertThat(guessesAt(Duration.ZERO)).isEqualTo(5);
        assertThat(guessesAt(Duration.ofMinutes(15))).isEqualTo(5);
        assertThat(guessesAt(Duration.ofMinutes(30))).as("after ten, two hours").isZero();
        assertThat(guessesAt(Duration.ofHours(2))).isEqualTo(5);
        assertThat(guessesAt(Duration.ofHours(3))).isEqualTo(5);
        assertThat(guessesAt(Duration.ofHours(8))).as("after twenty, a day").isZero();
        assertThatThrownBy(() -> limits.count(Limits.Kind.PASSCODE, "guesser")).isInstanceOfSatisfying(Problem.class,
                problem -> assertThat(problem.retryAfterSeconds()).as("and is told for how long").isEqualTo(Duration.ofHours(16).toSeconds()));
        assertThat(guessesAt(Duration.ofHours(24))).isEqualTo(5);
    }

    private int guessesAt(Duration since) {
        at(since);
        for (int n = 0; ; n++) {
            try {
                limits.count(Limits.Kind.PASSCODE, "guesser");
            } catch (Problem tooMany) {
                return n;
            }
        }
    }

    @Test
    void aRightTryIsGivenBack() {
        for (int n = 0; n < 50; n++) {
            limits.count(Limits.Kind.PASSCODE, "one");
            limits.giveBack(Limits.Kind.PASSCODE, "one");
        }
        assertThatCode(() -> limits.count(Limits.Kind.PASSCODE, "one")).doesNotThrowAnyException();
    }

    @Test
    void aHundredThousandCallersAreRememberedAndNoMore() {
        for (int n = 0; n < 10; n++) {
            limits.count(Limits.Kind.SIGN_IN, "used up");
        }
        for (int n = 0; n < 120_000; n++) {
            limits.count(Limits.Kind.UNKNOWN_LINK, "caller " + n % 100_500);
        }
        assertThatThrownBy(() -> limits.count(Limits.Kind.SIGN_IN, "used up")).as("who used a limit up is not forgotten for the crowd").isInstanceOf(Problem.class);
    }
}
