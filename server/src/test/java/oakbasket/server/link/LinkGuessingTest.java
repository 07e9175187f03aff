package oakbasket.server.link;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyBoolean;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import oakbasket.core.link.LinkTerms;
import oakbasket.core.round.RoundState;
import oakbasket.server.problem.Problem;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import oakbasket.server.security.Hash;
import oakbasket.server.security.Limits;
import oakbasket.server.security.LimitsForTests;
import oakbasket.server.security.SecretKeys;
import oakbasket.server.security.SlowHashes;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.mockito.Mock;
import org.mockito.junit.jupiter.MockitoExtension;
import org.mockito.junit.jupiter.MockitoSettings;
import org.mockito.quality.Strictness;
import org.springframework.security.crypto.password.PasswordEncoder;

/** Guessing passcodes and links, from one caller and from many; and how long a passcode that was right stays so. */
@ExtendWith(MockitoExtension.class)
@MockitoSettings(strictness = Strictness.LENIENT)
class LinkGuessingTest {

    private static final Instant NOW = Instant.parse("2026-06-01T09:00:00Z");
    private static final LinkTerms LIVE = LinkTerms.fresh(NOW);

    @Mock
    private LinkTable table;
    @Mock
    private Rounds rounds;
    @Mock
    private SecretKeys keys;
    @Mock
    private PasswordEncoder encoder;
    @Mock
    private SlowHashes hashes;
    @Mock
    private Clock clock;
    private Links links;

    @BeforeEach
    void oneOpenLinkWithAPasscode() {
        Round round = mock(Round.class);
        when(round.state()).thenReturn(RoundState.GATHERING);
        when(rounds.opened(1)).thenReturn(round);
        when(table.byTokenHash(any())).thenReturn(Optional.empty());
        when(table.byTokenHash(Hash.of("open"))).thenReturn(Optional.of(new Link(7, 1, null, new byte[0], LIVE, "", "hash", true, 1)));
        when(table.byTokenHash(Hash.of("withdrawn"))).thenReturn(Optional.of(new Link(8, 1, null, new byte[0], LinkTerms.fresh(NOW).withdrawn(NOW), "", null, true, 1)));
        when(keys.sign(any())).thenAnswer(call -> Hash.of(java.util.Arrays.toString((byte[]) call.getArgument(0))));
        when(hashes.matches(any(), any(), anyBoolean(), any())).thenAnswer(call -> call.getArgument(0).equals("kingfisher"));
        when(clock.instant()).thenReturn(NOW);
        links = fresh();
    }

    private Links fresh() {
        Limits limits = LimitsForTests.fresh();
        return new Links(table, rounds, keys, LimitsForTests.tickets(keys, encoder, hashes, limits, clock), hashes, limits, clock, org.mockito.Mockito.mock(oakbasket.server.teamsetting.TeamSettings.class));
    }

    private String problemOf(String token, String passcode, String caller) {
        try {
            links.unlock(token, passcode, caller);
            return "";
        } catch (Problem problem) {
            return problem.code();
        }
    }

    @Test
    void oneCallerHasFiveTriesAndTakesNobodyElsesAway() {
        for (int n = 0; n < 5; n++) {
            assertThat(problemOf("open", "guess", "one")).isEqualTo("passcode-wrong");
        }
        assertThat(problemOf("open", "kingfisher", "one")).isEqualTo("too-many");
        assertThat(problemOf("open", "kingfisher", "another")).isEmpty();
    }

    @Test
    void manyCallersTogetherHaveTwoHundredTriesAtOneLink() {
        int wrong = 0;
        for (int n = 0; n < 250; n++) {
            wrong += problemOf("open", "guess", "caller " + n).equals("passcode-wrong") ? 1 : 0;
        }
        assertThat(wrong).isEqualTo(200);
        assertThat(problemOf("open", "kingfisher", "nobody yet")).isEqualTo("too-many");
    }

    @Test
    void whoHasItRightUsesNothingUp() {
        for (int n = 0; n < 300; n++) {
            assertThat(problemOf("open", "kingfisher", "one")).isEmpty();
        }
    }

    @Test
    void aTicketOpensForTwelveHoursAndNoLonger() {
        String ticket = links.unlock("open", "kingfisher", "one");
        when(clock.instant()).thenReturn(NOW.plus(Duration.ofHours(12)).minusSeconds(1));
        assertThat(links.admit("open", ticket, "one").link().id()).isEqualTo(7);
        when(clock.instant()).thenReturn(NOW.plus(Duration.ofHours(12)));
        assertThatThrownBy(() -> links.admit("open", ticket, "one")).hasMessage("link-passcode-needed");
        String longer = (Long.parseLong(ticket.substring(0, ticket.indexOf('.'))) + 3_600) + ticket.substring(ticket.indexOf('.'));
        assertThatThrownBy(() -> links.admit("open", longer, "one")).as("its end is part of what is signed").hasMessage("link-passcode-needed");
    }

    /** The sixty-first try is refused for both, and neither costs a look at the round, which would take time. */
    @Test
    void aWithdrawnLinkIsLikeOneThatNeverWas() {
        for (String token : new String[] {"never was", "withdrawn"}) {
            links = fresh();
            for (int n = 0; n < 60; n++) {
                assertThatThrownBy(() -> links.admit(token, null, "one")).hasMessage("link-unknown");
            }
            assertThatThrownBy(() -> links.admit(token, null, "one")).hasMessage("too-many");
            assertThatThrownBy(() -> links.admit(token, null, "another")).hasMessage("link-unknown");
        }
        verify(rounds, never()).opened(1);
        assertThatThrownBy(() -> links.admit("open", null, "one")).as("who guessed too often still comes in by a link that is there").hasMessage("link-passcode-needed");
    }
}
