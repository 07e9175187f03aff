package oakbasket.server.security;

import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Base64;
import oakbasket.core.fault.Fault;
import oakbasket.server.problem.Problem;
import org.jspecify.annotations.Nullable;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Component;

/** Checks passcodes of links and gives tickets that stand for them for some hours, also across restarts. A ticket is good for one link and its present passcode. */
@Component
public class PasscodeTickets {

    /** How long a ticket stands for a passcode. */
    public static final Duration LIFE = Duration.ofHours(12);

    /** What asks for a passcode. */
    public enum Of { LINK, PARCEL }

    private final SecretKeys keys;
    private final PasswordEncoder encoder;
    private final SlowHashes hashes;
    private final Limits limits;
    private final Clock clock;

    PasscodeTickets(SecretKeys keys, PasswordEncoder encoder, SlowHashes hashes, Limits limits, Clock clock) {
        this.keys = keys;
        this.encoder = encoder;
        this.hashes = hashes;
        this.limits = limits;
        this.clock = clock;
    }

    /** The slow hash under which a passcode is kept; null for the empty one, which asks for none. */
    public @Nullable String hash(String passcode) {
        return passcode.isEmpty() ? null : encoder.encode(passcode);
    }

    /** Whether this is the passcode behind a hash, for somebody who works here. */
    public boolean matches(String passcode, String hash) {
        return hashes.matches(passcode, hash, true, "");
    }

    /**
     * Checks a passcode.
     *
     * @param id of the link
     * @param caller who types it, to slow down guessing
     * @return the ticket
     * @throws Problem when it is wrong, or too many were
     */
    public String unlock(Of of, long id, String hash, String typed, String caller) {
        String link = of == Of.LINK ? Long.toString(id) : of + " " + id;
        String who = link + " " + caller;
        limits.count(Limits.Kind.PASSCODE, who);
        limits.count(Limits.Kind.PASSCODE_OF_LINK, link);
        if (!hashes.matches(typed.strip(), hash, false, caller)) {
            throw Problem.of(Problem.Kind.FORBIDDEN, "passcode-wrong").at(Fault.of("passcode", "passcode-wrong"));
        }
        limits.giveBack(Limits.Kind.PASSCODE, who);
        limits.giveBack(Limits.Kind.PASSCODE_OF_LINK, link);
        return ticket(of, id, hash, clock.instant().plus(LIFE).getEpochSecond());
    }

    /** Whether a ticket stands for the passcode of a link; also where none is asked. */
    public boolean admits(@Nullable String ticket, Of of, long id, @Nullable String hash) {
        if (hash == null) {
            return true;
        }
        if (ticket == null || !ticket.matches("\\d{1,12}\\.[A-Za-z0-9_-]{43}")) {
            return false;
        }
        long until = Long.parseLong(ticket.substring(0, ticket.indexOf('.')));
        return Instant.ofEpochSecond(until).isAfter(clock.instant())
                && MessageDigest.isEqual(ticket.getBytes(StandardCharsets.US_ASCII), ticket(of, id, hash, until).getBytes(StandardCharsets.US_ASCII));
    }

    private String ticket(Of of, long id, String hash, long until) {
        byte[] kind = of == Of.LINK ? new byte[0] : of.name().getBytes(StandardCharsets.US_ASCII);
        byte[] passcode = hash.getBytes(StandardCharsets.UTF_8);
        byte[] message = ByteBuffer.allocate(kind.length + 16 + passcode.length).put(kind).putLong(id).putLong(until).put(passcode).array();
        return until + "." + Base64.getUrlEncoder().withoutPadding().encodeToString(keys.sign(message));
    }
}
