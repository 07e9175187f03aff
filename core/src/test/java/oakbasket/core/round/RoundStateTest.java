package oakbasket.core.round;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Set;
import oakbasket.core.arrival.ArrivalPlan;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class RoundStateTest {

    @ParameterizedTest(name = "{0} after {1} is {2}")
    @CsvSource({
        "DRAFT, OPEN, GATHERING", "DRAFT, CLOSE, -", "DRAFT, REOPEN, -", "DRAFT, ARCHIVE, -",
        "GATHERING, OPEN, -", "GATHERING, CLOSE, CLOSED", "GATHERING, REOPEN, -", "GATHERING, ARCHIVE, -",
        "CLOSED, OPEN, -", "CLOSED, CLOSE, -", "CLOSED, REOPEN, GATHERING", "CLOSED, ARCHIVE, ARCHIVED",
        "ARCHIVED, OPEN, -", "ARCHIVED, CLOSE, -", "ARCHIVED, REOPEN, -", "ARCHIVED, ARCHIVE, -"})
    void everyChangeIsAllowedOrRefused(RoundState from, RoundState.Change change, String after) {
        if (!after.equals("-")) {
            assertThat(from.after(change)).isEqualTo(RoundState.valueOf(after));
            return;
        }
        assertThatThrownBy(() -> from.after(change)).isInstanceOfSatisfying(RoundChangeRefused.class,
                refused -> assertThat(refused.from()).isEqualTo(from)).hasMessageContaining(from.name());
    }

    @ParameterizedTest(name = "{0} to {1} files, limit {2}")
    @CsvSource({"0,1,10", "2,1,10", "1,5001,10", "1,1,0", "1,1,1099511627777"})
    void anItemRefusesLimitsThatCannotBe(int min, int max, long bytes) {
        assertThatThrownBy(() -> new ItemSpec("Sheet", "", true, min, max, Set.of(), bytes, ArrivalPlan.USUAL)).isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void anItemNeedsATitle() {
        assertThatThrownBy(() -> new ItemSpec(" ", "", true, 1, 1, Set.of(), 1, ArrivalPlan.USUAL)).hasMessageContaining("title");
    }
}
