package oakbasket.server.account;

import com.eatthepath.otp.TimeBasedOneTimePasswordGenerator;
import java.net.URLEncoder;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.security.InvalidKeyException;
import java.security.MessageDigest;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javax.crypto.spec.SecretKeySpec;
import oakbasket.server.brand.Brand;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.Hash;
import oakbasket.server.security.SecretKeys;
import oakbasket.server.storage.Transactions;
import org.apache.commons.codec.binary.Base32;
import org.springframework.stereotype.Service;

/**
 * The second factor of signing in: six digits that a device makes of a shared secret and the time (RFC 6238, with the values that every such program knows: SHA-1, 30
 * seconds), and spare codes for whoever lost the device. A code is used once; one step before and after the present one is taken, for clocks that differ.
 */
@Service
public class SecondFactor {

    /**
     * A secret that is offered, and not in force yet.
     *
     * @param secret in Base32 (RFC 4648), in groups of four, to be typed
     * @param uri the same for a code that a device reads
     * @param offer to be given back with the first code
     */
    record Offer(String secret, String uri, String offer) {
    }

    private static final int SECRET_BYTES = 20;
    private static final int SPARE_CODES = 8;
    private static final int SPARE_BYTES = 8;
    private static final int STEP_SECONDS = 30;
    private static final int STEPS_ASIDE = 1;
    private static final int LONGEST_CODE = 60;
    private static final Duration OFFERED = Duration.ofMinutes(30);

    private final AccountTable accounts;
    private final SecretKeys keys;
    private final Transactions transactions;
    private final Brand brand;
    private final Clock clock;
    private final TimeBasedOneTimePasswordGenerator generator = new TimeBasedOneTimePasswordGenerator(Duration.ofSeconds(STEP_SECONDS));

    SecondFactor(AccountTable accounts, SecretKeys keys, Transactions transactions, Clock clock, Brand brand) {
        this.brand = brand;
        this.accounts = accounts;
        this.keys = keys;
        this.transactions = transactions;
        this.clock = clock;
    }

    /** Whether signing in asks for a code. */
    boolean on(Account account) {
        return accounts.totp(account.id()).isPresent();
    }

    /** How many spare codes are left. */
    int spareCodes(Account account) {
        return accounts.spareCodes(account.id());
    }

    /** Makes a secret; nothing is in force before a first code was right. */
    Offer offer(Account account) {
        byte[] secret = keys.random(SECRET_BYTES);
        String typed = new Base32().encodeToString(secret);
        String uri = "otpauth://totp/" + encoded(brand.name()) + ":" + encoded(account.email()) + "?secret=" + typed + "&issuer=" + encoded(brand.name()) + "&algorithm=SHA1&digits=6&period=" + STEP_SECONDS;
        byte[] offer = ByteBuffer.allocate(2 * Long.BYTES + SECRET_BYTES).putLong(account.id()).putLong(clock.instant().plus(OFFERED).getEpochSecond()).put(secret).array();
        return new Offer(typed.replaceAll("(.{4})(?=.)", "$1 "), uri, Base64.getUrlEncoder().withoutPadding().encodeToString(keys.seal(offer)));
    }

    /**
     * Puts an offered secret into force.
     *
     * @return the spare codes, which are never shown again
     * @throws Problem with status 422 when the code is wrong or the offer is too old
     */
    List<String> begin(Account account, String offer, String code) {
        byte[] secret = opened(account, offer);
        long step = step(secret, code).orElseThrow(() -> Problem.field("code", "totp-wrong"));
        List<String> spare = new ArrayList<>();
        for (int i = 0; i < SPARE_CODES; i++) {
            spare.add(HexFormat.of().formatHex(keys.random(SPARE_BYTES)).replaceAll("(.{4})(?=.)", "$1-"));
        }
        transactions.own(() -> {
            accounts.setTotp(account.id(), keys.seal(secret), step);
            accounts.setSpareCodes(account.id(), spare.stream().map(SecondFactor::hashed).toList());
        });
        return spare;
    }

    private byte[] opened(Account account, String offer) {
        try {
            byte[] sealed = Base64.getUrlDecoder().decode(offer);
            ByteBuffer opened = ByteBuffer.wrap(sealed.length < 2 * Long.BYTES + SECRET_BYTES ? sealed : keys.open(sealed));
            if (opened.remaining() == 2 * Long.BYTES + SECRET_BYTES && opened.getLong() == account.id() && opened.getLong() > clock.instant().getEpochSecond()) {
                byte[] secret = new byte[SECRET_BYTES];
                opened.get(secret);
                return secret;
            }
        } catch (IllegalArgumentException | IllegalStateException notOurs) {
            throw Problem.field("code", "offer-old");
        }
        throw Problem.field("code", "offer-old");
    }

    /** Lets the password alone be enough. */
    public void end(Account account) {
        transactions.own(() -> {
            accounts.setTotp(account.id(), null, 0);
            accounts.setSpareCodes(account.id(), List.of());
        });
    }

    /** Whether a code is right; it is used up by this. */
    boolean right(Account account, String code) {
        Optional<AccountTable.Totp> held = accounts.totp(account.id());
        if (held.isEmpty() || code.length() > LONGEST_CODE) {
            return false;
        }
        Optional<Long> step = step(keys.open(held.get().sealed()), code);
        if (step.isPresent()) {
            return transactions.durably(() -> accounts.useStep(account.id(), step.get())) == 1;
        }
        return transactions.durably(() -> accounts.useSpareCode(account.id(), hashed(code))) == 1;
    }

    private Optional<Long> step(byte[] secret, String code) {
        String digits = code.replaceAll("\\s", "");
        long now = Math.floorDiv(clock.instant().getEpochSecond(), STEP_SECONDS);
        Long found = null;
        for (long step = now - STEPS_ASIDE; step <= now + STEPS_ASIDE; step++) {
            if (MessageDigest.isEqual(code(secret, step).getBytes(StandardCharsets.US_ASCII), digits.getBytes(StandardCharsets.UTF_8))) {
                found = step;
            }
        }
        return Optional.ofNullable(found);
    }

    /** The code of one step of time. */
    String code(byte[] secret, long step) {
        try {
            return generator.generateOneTimePasswordString(new SecretKeySpec(secret, generator.getAlgorithm()), Instant.ofEpochSecond(step * STEP_SECONDS), Locale.ROOT);
        } catch (InvalidKeyException impossible) {
            throw new IllegalStateException(impossible);
        }
    }

    private static String hashed(String code) {
        return HexFormat.of().formatHex(Hash.of("spare " + code.toLowerCase(Locale.ROOT).replaceAll("[^0-9a-f]", "")));
    }

    private static String encoded(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8).replace("+", "%20");
    }
}
