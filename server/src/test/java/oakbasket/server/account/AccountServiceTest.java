package oakbasket.server.account;

import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyBoolean;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.time.Clock;
import java.time.Instant;
import java.util.Optional;
import oakbasket.server.security.SecretKeys;
import oakbasket.server.security.SlowHashes;
import oakbasket.server.storage.Transactions;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.mockito.Mock;
import org.mockito.junit.jupiter.MockitoExtension;
import org.mockito.junit.jupiter.MockitoSettings;
import org.mockito.quality.Strictness;
import org.springframework.security.crypto.password.PasswordEncoder;

/** Source: OWASP Authentication Cheat Sheet, "Authentication responses": the same answer in the same time, whether the account exists or not. */
@ExtendWith(MockitoExtension.class)
@MockitoSettings(strictness = Strictness.LENIENT)
class AccountServiceTest {

    @Mock
    private AccountTable table;
    @Mock
    private Transactions transactions;
    @Mock
    private PasswordEncoder encoder;
    @Mock
    private SlowHashes hashes;
    @Mock
    private SecretKeys keys;
    private AccountService accounts;

    @BeforeEach
    void oneAccount() {
        when(keys.random(12)).thenReturn(new byte[12]);
        when(encoder.encode(any())).thenReturn("nobody's hash");
        when(table.find(any())).thenReturn(Optional.empty());
        when(table.find("ada@example.org")).thenReturn(Optional.of(new AccountTable.WithPassword(new Account(1, "Ada", "ada@example.org", oakbasket.core.team.Role.COORDINATOR, Instant.EPOCH), "her hash")));
        accounts = new AccountService(table, transactions, encoder, hashes, Clock.systemUTC(), keys);
    }

    @ParameterizedTest(name = "“{0}”")
    @CsvSource({"ada@example.org, her hash", "nobody@example.org, nobody's hash", "'', nobody's hash", "no address, nobody's hash"})
    void aPasswordIsComparedWithASlowHashWhoeverAsks(String email, String hash) {
        assertThatThrownBy(() -> accounts.signIn(email, "guess", false, "192.0.2.1")).hasMessage("sign-in-wrong");
        verify(hashes).matches(eq("guess"), eq(hash), anyBoolean(), any());
    }

    @Test
    void evenWhatWouldMatchNobodysHashLetsNobodyIn() {
        when(hashes.matches(any(), any(), anyBoolean(), any())).thenReturn(true);
        assertThatThrownBy(() -> accounts.signIn("nobody@example.org", "guess", false, "192.0.2.1")).hasMessage("sign-in-wrong");
    }
}
