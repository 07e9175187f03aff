package oakbasket.core.identity;

import java.net.IDN;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Pattern;
import oakbasket.core.fault.FaultyValue;
import oakbasket.core.fault.Remark;

/**
 * A mail address that can be written to, within the limits of RFC 5321 (§4.5.3.1: 64 octets before the @, 254 in all) and the syntax of
 * RFC 5322 dot-atoms and quoted strings. International domains are kept as typed and measured in their ASCII form.
 *
 * @param text as typed, without space around it
 */
public record MailAddress(String text) {

    /** The longest address in octets (RFC 5321, section 4.5.3.1.3, as read by erratum 1690). */
    public static final int MOST_OCTETS = 254;
    private static final int MOST_LOCAL_OCTETS = 64;
    private static final int MOST_ASCII = 127;
    private static final Pattern DOT_ATOM = Pattern.compile("[\\p{L}\\p{N}!#$%&'*+/=?^_`{|}~-]+(\\.[\\p{L}\\p{N}!#$%&'*+/=?^_`{|}~-]+)*");
    private static final Pattern QUOTED = Pattern.compile("\"([^\"\\\\\\p{Cntrl}]|\\\\[^\\p{Cntrl}])*\"");
    private static final Pattern DOMAIN = Pattern.compile("([a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?\\.)+[a-z]([a-z0-9-]{0,61}[a-z0-9])", Pattern.CASE_INSENSITIVE);

    public MailAddress {
        problemOf(text).ifPresent(problem -> {
            throw new FaultyValue(problem);
        });
    }

    /**
     * Reads an address as typed; space around it is ignored.
     *
     * @throws FaultyValue when it is none
     */
    public static MailAddress parse(String typed) {
        return new MailAddress(typed.strip());
    }

    /** What identifies the mailbox: two addresses with one key are taken as the same person. */
    public String key() {
        int at = text.lastIndexOf('@');
        return text.substring(0, at).toLowerCase(Locale.ROOT) + "@" + asciiDomain(text.substring(at + 1));
    }

    /** Whether only mail servers that speak SMTPUTF8 (RFC 6531) carry mail to it: its part before the @ has other letters than ASCII. Of a domain with such letters every server takes the ASCII form. */
    public boolean needsUtf8() {
        return text.substring(0, text.lastIndexOf('@')).chars().anyMatch(letter -> letter > MOST_ASCII);
    }

    @Override
    public String toString() {
        return text;
    }

    private static Optional<Remark> problemOf(String text) {
        if (text.isBlank()) {
            return problem("address-missing");
        }
        if (text.chars().anyMatch(Character::isISOControl)) {
            return problem("address-one-line");
        }
        int at = text.lastIndexOf('@');
        if (at < 1 || at == text.length() - 1) {
            return problem("address-halves", brief(text));
        }
        String local = text.substring(0, at);
        String domain = asciiDomain(text.substring(at + 1));
        if (octets(local) > MOST_LOCAL_OCTETS) {
            return problem("address-local-long", octets(local), MOST_LOCAL_OCTETS);
        }
        if (octets(local) + 1 + domain.length() > MOST_OCTETS) {
            return problem("address-long", octets(local) + 1 + domain.length(), MOST_OCTETS);
        }
        if (!DOT_ATOM.matcher(local).matches() && !QUOTED.matcher(local).matches()) {
            return problem("address-local", brief(local));
        }
        if (!DOMAIN.matcher(domain).matches()) {
            return problem("address-domain", brief(text.substring(at + 1)));
        }
        return Optional.empty();
    }

    private static Optional<Remark> problem(String code, Object... arguments) {
        return Optional.of(Remark.of(code, arguments));
    }

    private static String asciiDomain(String domain) {
        try {
            return IDN.toASCII(domain).toLowerCase(Locale.ROOT);
        } catch (IllegalArgumentException notADomain) {
            return "";
        }
    }

    private static int octets(String text) {
        return text.getBytes(StandardCharsets.UTF_8).length;
    }

    private static String brief(String text) {
        return text.length() <= 60 ? text : text.substring(0, 60) + "…";
    }
}
