package oakbasket.core.identity;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ClaimTest {

    /** Only who came without a link of their own, and gave the address of a person who has one, must be asked for. */
    @ParameterizedTest(name = "says who they are: {0}, that person was asked: {1}, must be claimed: {2}")
    @CsvSource({"true, true, true", "true, false, false", "false, true, false", "false, false, false"})
    void aSendingIsClaimedWhereSomebodyElseMayBeMeant(boolean selfDeclared, boolean asked, boolean needed) {
        assertThat(Claim.needed(selfDeclared, asked)).isEqualTo(needed);
    }

    @ParameterizedTest
    @CsvSource({"OPEN, true", "DECLINED, true", "ACCEPTED, false"})
    void whatIsClaimedCountsOnceItIsAccepted(Claim claim, boolean apart) {
        assertThat(claim.keptApart()).isEqualTo(apart);
    }

    @ParameterizedTest
    @CsvSource({"OPEN, true", "ACCEPTED, true", "DECLINED, false"})
    void whatIsNotTheirsWaitsForNobody(Claim claim, boolean waits) {
        assertThat(claim.waits()).isEqualTo(waits);
    }
}
