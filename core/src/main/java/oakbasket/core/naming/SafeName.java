package oakbasket.core.naming;

import java.nio.charset.StandardCharsets;
import java.text.Normalizer;
import java.util.Locale;
import java.util.regex.Pattern;

/**
 * Makes one segment of a path from untrusted text, safe on every common disk: POSIX {@code NAME_MAX} (255 bytes), Microsoft's published
 * rules for naming files (reserved characters and device names, no trailing dot or space), Unicode NFC (UAX #15), and no control or
 * bidirectional formatting characters (UAX #9), which could make a name read as something it is not.
 */
public final class SafeName {

    /** The most bytes of UTF-8 in one segment. */
    public static final int MOST_BYTES = 255;
    /** What a name becomes when nothing of it is left. */
    public static final String UNNAMED = "unnamed";

    private static final int LONGEST_EXTENSION_BYTES = 20;
    private static final Pattern DEVICE = Pattern.compile(
            "(CON|PRN|AUX|NUL|CONIN\\$|CONOUT\\$|CLOCK\\$|(COM|LPT)[0-9¹²³])\\s*(\\..*)?", Pattern.CASE_INSENSITIVE);

    private SafeName() {
    }

    /** The safe form of a name; never empty, and unchanged when it was safe already. */
    public static String of(String raw) {
        if (isPlain(raw)) {
            return raw;
        }
        StringBuilder kept = new StringBuilder(raw.length());
        Normalizer.normalize(raw, Normalizer.Form.NFC).codePoints().forEach(c -> keep(c, kept));
        String name = trimmed(kept.toString().replaceAll(" {2,}", " "));
        if (DEVICE.matcher(name).matches()) {
            name = "_" + name;
        }
        return name.isEmpty() ? UNNAMED : shortened(name, MOST_BYTES);
    }

    /**
     * The extension of an untrusted name, with its dot and in lower case, made of ASCII letters and digits only; empty when there is none
     * such.
     */
    public static String extension(String name) {
        String safe = of(name);
        int dot = safe.lastIndexOf('.');
        String ending = dot < 1 ? "" : safe.substring(dot).toLowerCase(Locale.ROOT);
        return ending.length() <= LONGEST_EXTENSION_BYTES && ending.matches("\\.[a-z0-9]+") ? ending : "";
    }

    /** The name without what {@link #extension} tells of it. */
    public static String stem(String name) {
        String safe = of(name);
        return safe.substring(0, safe.length() - extension(safe).length());
    }

    /** The name cut at a character boundary so that it fits, its extension kept. */
    static String shortened(String name, int mostBytes) {
        if (bytes(name) <= mostBytes) {
            return name;
        }
        int dot = name.lastIndexOf('.');
        String ending = dot > 0 && bytes(name.substring(dot)) <= LONGEST_EXTENSION_BYTES ? name.substring(dot) : "";
        String stem = name.substring(0, name.length() - ending.length());
        while (bytes(stem) > mostBytes - bytes(ending)) {
            stem = stem.substring(0, stem.offsetByCodePoints(stem.length(), -1));
        }
        return trimmed(stem) + ending;
    }

    /** Whether it is safe as it is, at first sight: this spares most names the long way. */
    private static boolean isPlain(String raw) {
        int length = raw.length();
        if (length == 0 || length > MOST_BYTES || !Character.isLetterOrDigit(raw.charAt(length - 1)) || raw.charAt(0) == '.' || raw.charAt(0) == ' ') {
            return false;
        }
        boolean dot = false;
        for (int i = 0; i < length; i++) {
            char c = raw.charAt(i);
            if (!(c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z' || c >= '0' && c <= '9' || c == '-' || c == '_' || c == '.' || c == ',' || c == '(' || c == ')' || c == '@' || c == ' ' && raw.charAt(i - 1) != ' ')) {
                return false;
            }
            dot |= c == '.';
        }
        // Device names are short where no dot follows them.
        return !dot && length > 7 || !DEVICE.matcher(raw).matches();
    }

    private static void keep(int c, StringBuilder kept) {
        int type = Character.getType(c);
        if (type == Character.SURROGATE || type == Character.CONTROL && !Character.isWhitespace(c) || type == Character.FORMAT) {
            return;
        }
        if (Character.isWhitespace(c) || Character.isSpaceChar(c)) {
            kept.append(' ');
        } else if ("<>:\"/\\|?*".indexOf(c) >= 0) {
            kept.append('_');
        } else {
            kept.appendCodePoint(c);
        }
    }

    private static String trimmed(String name) {
        return name.replaceAll("^[ .]+|[ .]+$", "");
    }

    private static int bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8).length;
    }
}
