package oakbasket.server.security;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyBoolean;
import static org.mockito.Mockito.when;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.mockito.Mock;
import org.mockito.junit.jupiter.MockitoExtension;
import org.mockito.junit.jupiter.MockitoSettings;
import org.mockito.quality.Strictness;
import org.springframework.security.crypto.password.PasswordEncoder;

@ExtendWith(MockitoExtension.class)
@MockitoSettings(strictness = Strictness.LENIENT)
class PasscodeTicketsTest {

    private static final Instant NOW = Instant.parse("2026-06-01T09:00:00Z");

    @Mock
    private SecretKeys keys;
    @Mock
    private PasswordEncoder encoder;
    @Mock
    private SlowHashes hashes;
    @Mock
    private Clock clock;
    private PasscodeTickets tickets;

    @BeforeEach
    void begin() {
        when(keys.sign(any())).thenAnswer(call -> Hash.of(Arrays.toString((byte[]) call.getArgument(0))));
        when(hashes.matches(any(), any(), anyBoolean(), any())).thenAnswer(call -> call.getArgument(0).equals("willow-7"));
        when(clock.instant()).thenReturn(NOW);
        tickets = new PasscodeTickets(keys, encoder, hashes, new Limits(), clock);
    }

    private String ticket() {
        return tickets.unlock(PasscodeTickets.Of.PARCEL, 7, "hash", " willow-7 ", "somebody");
    }

    @Test
    void aTicketIsGoodForOneLinkOfOneKindAndItsPresentPasscode() {
        String ticket = ticket();
        assertThat(tickets.admits(ticket, PasscodeTickets.Of.PARCEL, 7, "hash")).isTrue();
        assertThat(tickets.admits(ticket, PasscodeTickets.Of.PARCEL, 8, "hash")).as("another link").isFalse();
        assertThat(tickets.admits(ticket, PasscodeTickets.Of.LINK, 7, "hash")).as("a request link of the same number").isFalse();
        assertThat(tickets.admits(ticket, PasscodeTickets.Of.PARCEL, 7, "another")).as("the passcode was changed").isFalse();
        assertThat(tickets.admits(null, PasscodeTickets.Of.PARCEL, 7, "hash")).isFalse();
        assertThat(tickets.admits(null, PasscodeTickets.Of.PARCEL, 7, null)).as("none is asked").isTrue();
    }

    @Test
    void itEndsAfterTwelveHours() {
        String ticket = ticket();
        when(clock.instant()).thenReturn(NOW.plus(Duration.ofHours(12)).minusSeconds(1));
        assertThat(tickets.admits(ticket, PasscodeTickets.Of.PARCEL, 7, "hash")).isTrue();
        when(clock.instant()).thenReturn(NOW.plus(Duration.ofHours(12)));
        assertThat(tickets.admits(ticket, PasscodeTickets.Of.PARCEL, 7, "hash")).isFalse();
    }

    @ParameterizedTest
    @ValueSource(strings = {"", ".", "9999999999.", "9999999999.AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA", "99999999999999999999.AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA", "-1.AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA",
        "9999999999.ÄAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA"})
    void whatIsMadeUpAdmitsNobody(String madeUp) {
        assertThat(tickets.admits(madeUp, PasscodeTickets.Of.PARCEL, 7, "hash")).isFalse();
    }

    /** Tries at a parcel use up none of those at a request link with the same number. */
    @Test
    void wrongTriesAreCountedForEachLink() {
        for (int n = 0; n < 5; n++) {
            assertThatThrownBy(() -> tickets.unlock(PasscodeTickets.Of.PARCEL, 7, "hash", "guess", "somebody")).hasMessage("passcode-wrong");
        }
        assertThatThrownBy(() -> tickets.unlock(PasscodeTickets.Of.PARCEL, 7, "hash", "willow-7", "somebody")).hasMessage("too-many");
        assertThat(tickets.unlock(PasscodeTickets.Of.LINK, 7, "hash", "willow-7", "somebody")).isNotEmpty();
        assertThat(tickets.unlock(PasscodeTickets.Of.PARCEL, 8, "hash", "willow-7", "somebody")).isNotEmpty();
    }

    @Test
    void anEmptyPasscodeAsksForNone() {
        when(encoder.encode("willow-7")).thenReturn("slow");
        assertThat(tickets.hash("")).isNull();
        assertThat(tickets.hash("willow-7")).isEqualTo("slow");
    }
}
