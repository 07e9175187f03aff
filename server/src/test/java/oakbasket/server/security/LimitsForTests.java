package oakbasket.server.security;

import java.time.Clock;
import org.springframework.security.crypto.password.PasswordEncoder;

/** Limits with nothing used up, for tests of other packages. */
public final class LimitsForTests {

    private LimitsForTests() {
    }

    public static Limits fresh() {
        return new Limits();
    }

    /** The passcodes of links, with keys, hashes and a clock of one's own. */
    public static PasscodeTickets tickets(SecretKeys keys, PasswordEncoder encoder, SlowHashes hashes, Limits limits, Clock clock) {
        return new PasscodeTickets(keys, encoder, hashes, limits, clock);
    }
}
