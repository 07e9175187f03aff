package oakbasket.server.security;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.Mockito.when;

import io.github.bucket4j.TimeMeter;
import java.time.Duration;
import oakbasket.server.problem.Problem;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.mockito.Mock;
import org.mockito.junit.jupiter.MockitoExtension;
import org.mockito.junit.jupiter.MockitoSettings;
import org.mockito.quality.Strictness;

@ExtendWith(MockitoExtension.class)
@MockitoSettings(strictness = Strictness.LENIENT)
class LimitsTest {

    @Mock(stubOnly = true)
    private TimeMeter time;
    private Limits limits;

    @BeforeEach
    void theClockStands() {
        when(time.isWallClockBased()).thenReturn(false);
        at(Duration.ZERO);
        limits = new Limits(time);
    }

    private void at(Duration since) {
        when(time.currentTimeNanos()).thenReturn(since.toNanos());
    }

    /** The numbers are part of docs/security.md. */
    @ParameterizedTest
    @CsvSource({"SIGN_IN, 10, 5", "ACCOUNT, 10, 15", "KNOWN_BROWSER, 10, 15", "SET_UP, 10, 5", "PASSCODE, 5, 15", "PASSCODE_OF_LINK, 200, 60", "UNKNOWN_LINK, 60, 1", "SUBMISSION, 120, 60",
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
