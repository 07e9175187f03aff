package oakbasket.core.identity;

import java.security.SecureRandom;
import java.time.Duration;

/** The code that is mailed to an address to see whether somebody reads it there. Short enough to be typed, and short-lived for that (OWASP ASVS 5, out-of-band codes). */
public final class AddressCode {

    public static final int DIGITS = 6;
    public static final int MOST_TRIES = 5;
    public static final Duration LIFE = Duration.ofMinutes(10);

    private static final int CODES = 1_000_000;

    private AddressCode() {
    }

    /** Six digits, each code as likely as any other. */
    public static String random(SecureRandom random) {
        return String.format(java.util.Locale.ROOT, "%06d", random.nextInt(CODES));
    }

    /** An address of which so much is shown that its owner knows it, such as {@code d…@example.org}. */
    public static String masked(MailAddress address) {
        String text = address.text();
        return text.substring(0, text.offsetByCodePoints(0, 1)) + "…" + text.substring(text.lastIndexOf('@'));
    }
}
