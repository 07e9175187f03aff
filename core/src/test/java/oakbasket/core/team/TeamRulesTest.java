package oakbasket.core.team;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Set;
import java.util.stream.Collectors;
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

    /** The office is 1 to 4; 0 stands for the whole of it. */
    @ParameterizedTest(name = "{0}:{1} beside {2}:{3}")
    @CsvSource({"1,0,2,0,true,0", "1,23,2,0,true,23", "1,23,2,13,true,23", "1,3,2,13,true,3", "1,0,1,3,false,3", "1,0,2,13,false,23", "1,34,2,13,false,3", "1,3,2,4,false,''", "1,'',1,'',true,''", "1,'',2,'',false,''", "1,2,2,1,true,2"})
    void nothingIsPutWhereMorePeopleSeeIt(long owner, String with, long otherOwner, String otherWith, boolean fits, String within) {
        Share share = share(owner, with);
        Share other = share(otherOwner, otherWith);
        assertThat(share.noWiderThan(other)).isEqualTo(fits);
        assertThat(share.within(other)).isEqualTo(share(owner, within));
        assertThat(share.within(other).noWiderThan(other)).as("made narrower it fits, where its owner sees the other").isEqualTo(other.sees(owner, Role.COORDINATOR));
    }

    private static Share share(long owner, String with) {
        return new Share(owner, with.equals("0"), with.equals("0") ? Set.of() : with.chars().mapToObj(one -> (long) (one - '0')).collect(Collectors.toSet()));
    }

    @Test
    void whomItIsSharedWithCannotBeChangedBehindIt() {
        Set<Long> with = new java.util.HashSet<>(Set.of(2L));
        Share share = new Share(1, false, with);
        with.add(3L);
        assertThat(share.with()).containsExactly(2L);
    }
}
