package oakbasket.server.post;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import oakbasket.server.Settings;
import oakbasket.server.security.SecretKeys;
import org.springframework.stereotype.Component;

/**
 * Marks that letters carry, so that what comes back by mail can be told: in the address after a plus sign (RFC 5233), or typed in a subject. Each holds a number and forty bits that only
 * this office can make, so that knowing a number is not enough.
 */
@Component
public class MailTags {

    /** What a mark stands for. */
    public enum Of {
        /** The letter that is answered. */
        LETTER('l'),
        /** The letter that a report is about. */
        BOUNCE('b'),
        /** The basket that papers are for. */
        BASKET('k');

        private final char letter;

        Of(char letter) {
            this.letter = letter;
        }
    }

    /** A mark that was read. @param id of the letter or basket */
    public record Tag(Of of, long id) {
    }

    private static final int SIGNATURE_BYTES = 5;
    private static final int RADIX = 36;
    private static final Pattern WRITTEN = Pattern.compile("([lbk])([0-9a-z]{1,12})-([0-9a-f]{10})");
    private static final Pattern IN_ADDRESS = Pattern.compile("\\+[lbk][0-9a-z]{1,12}-[0-9a-f]{10}@", Pattern.CASE_INSENSITIVE);
    private static final Pattern IN_SUBJECT = Pattern.compile("\\bOAK-([0-9A-Z]{1,12})-([0-9A-F]{10})\\b", Pattern.CASE_INSENSITIVE);

    private final SecretKeys keys;
    private final Settings settings;

    MailTags(SecretKeys keys, Settings settings) {
        this.keys = keys;
        this.settings = settings;
    }

    /** The collecting address with a mark; empty where the office has none. */
    public String address(Of of, long id) {
        String collecting = settings.collecting();
        int at = collecting.lastIndexOf('@');
        return at < 0 ? "" : collecting.substring(0, at) + "+" + written(of, id) + collecting.substring(at);
    }

    /** What a sender types into a subject, so that papers find a basket. */
    public String subjectCode(long basketId) {
        return "OAK-" + Long.toString(basketId, RADIX).toUpperCase(Locale.ROOT) + "-" + signature(Of.BASKET, basketId).toUpperCase(Locale.ROOT);
    }

    /** Reads a mark from an address that a message was sent to; empty where there is none, or one that this office did not make. */
    public Optional<Tag> inAddress(String address) {
        String collecting = settings.collecting().toLowerCase(Locale.ROOT);
        String written = address.strip().toLowerCase(Locale.ROOT);
        int at = collecting.lastIndexOf('@');
        if (at < 0 || !written.endsWith(collecting.substring(at)) || !written.startsWith(collecting.substring(0, at) + "+")) {
            return Optional.empty();
        }
        return read(written.substring(at + 1, written.length() - (collecting.length() - at)));
    }

    /** Reads the code of a basket from a subject. */
    public Optional<Tag> inSubject(String subject) {
        Matcher found = IN_SUBJECT.matcher(subject);
        return found.find() ? read("k" + found.group(1).toLowerCase(Locale.ROOT) + "-" + found.group(2).toLowerCase(Locale.ROOT)) : Optional.empty();
    }

    /** A text without the marks in it, for whoever may read it and not send as somebody else. */
    public String without(String text) {
        return IN_SUBJECT.matcher(IN_ADDRESS.matcher(text).replaceAll("@")).replaceAll("").strip();
    }

    private Optional<Tag> read(String written) {
        Matcher found = WRITTEN.matcher(written);
        if (!found.matches()) {
            return Optional.empty();
        }
        Of of = Arrays.stream(Of.values()).filter(one -> one.letter == found.group(1).charAt(0)).findFirst().orElseThrow();
        long id = Long.parseLong(found.group(2), RADIX);
        boolean ours = MessageDigest.isEqual(signature(of, id).getBytes(StandardCharsets.US_ASCII), found.group(3).getBytes(StandardCharsets.US_ASCII));
        return ours ? Optional.of(new Tag(of, id)) : Optional.empty();
    }

    private String written(Of of, long id) {
        return of.letter + Long.toString(id, RADIX) + "-" + signature(of, id);
    }

    private String signature(Of of, long id) {
        byte[] whole = keys.sign(("mail-tag " + of.letter + id).getBytes(StandardCharsets.US_ASCII));
        return HexFormat.of().formatHex(whole, 0, SIGNATURE_BYTES);
    }
}
