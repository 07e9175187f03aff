package oakbasket.core.team;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Set;
import oakbasket.core.fault.FaultyValue;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class TeamRulesTest {

    @ParameterizedTest
    @CsvSource({
        // permission, administrator, coordinator, reader, coordinator where the office keeps open links and handing out to administrators
        "SEE, true, true, true, true",
        "OWN, true, true, true, true",
        "CHANGE, true, true, false, true",
        "OPEN_LINK, true, true, false, false",
        "HAND_OUT, true, true, false, false",
        "SET_UP, true, false, false, false",
        "ADMINISTER, true, false, false, false"})
    void whoMayWhat(Permission permission, boolean administrator, boolean coordinator, boolean reader, boolean kept) {
        TeamTerms strict = new TeamTerms(false, false, null);
        assertThat(Role.ADMINISTRATOR.may(permission, TeamTerms.OPEN)).isEqualTo(administrator);
        assertThat(Role.ADMINISTRATOR.may(permission, strict)).isEqualTo(administrator);
        assertThat(Role.COORDINATOR.may(permission, TeamTerms.OPEN)).isEqualTo(coordinator);
        assertThat(Role.COORDINATOR.may(permission, strict)).isEqualTo(kept);
        assertThat(Role.READER.may(permission, TeamTerms.OPEN)).isEqualTo(reader);
        assertThat(Role.READER.may(permission, strict)).isEqualTo(reader);
    }

    @ParameterizedTest
    @CsvSource({"5, 0, 0", "5, 5, 0", "5, 6, 1", "1, 3, 2", ", 1000000, 0"})
    void linksBeyondTheLimit(Integer most, int live, int tooMany) {
        assertThat(new TeamTerms(true, true, most).tooMany(live)).isEqualTo(tooMany);
    }

    @ParameterizedTest
    @CsvSource({"0", "-1", "1000001"})
    void aLimitIsAtLeastOne(int most) {
        assertThatThrownBy(() -> new TeamTerms(true, true, most)).isInstanceOf(FaultyValue.class);
    }

    @ParameterizedTest
    @CsvSource({
        // role, account, sees when kept to 1 and 2, says with whom it is shared
        "COORDINATOR, 1, true, true", "COORDINATOR, 2, true, false", "READER, 2, true, false", "COORDINATOR, 3, false, false", "READER, 3, false, false", "READER, 1, true, false", "ADMINISTRATOR, 3, true, true"})
    void whoSeesARound(Role role, long account, boolean sees, boolean settles) {
        Share kept = new Share(1, false, Set.of(2L));
        assertThat(kept.sees(account, role)).isEqualTo(sees);
        assertThat(kept.settles(account, role)).isEqualTo(settles);
        assertThat(new Share(1, true, Set.of()).sees(account, role)).isTrue();
    }

    @Test
    void whomItIsSharedWithCannotBeChangedBehindIt() {
        Set<Long> with = new java.util.HashSet<>(Set.of(2L));
        Share share = new Share(1, false, with);
        with.add(3L);
        assertThat(share.with()).containsExactly(2L);
    }
}
