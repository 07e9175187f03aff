package oakbasket.core.naming;

import java.nio.charset.StandardCharsets;
import java.text.Normalizer;
import java.util.Locale;

/** Numbers names that clash; nothing is ever overwritten. */
public final class ClashNumber {

    private static final int MOST_DIGITS = 9;

    private ClashNumber() {
    }

    /**
     * The name to try on the given attempt: the name itself on the first, then {@code name (2).ext}, {@code name (3).ext} and so on, never
     * longer than {@link SafeName#MOST_BYTES}.
     *
     * @param safeName a result of {@link SafeName#of}
     * @param attempt from 1
     */
    public static String on(String safeName, int attempt) {
        if (attempt <= 1) {
            return safeName;
        }
        int dot = safeName.lastIndexOf('.');
        String ending = dot > 0 ? safeName.substring(dot) : "";
        String mark = " (" + attempt + ")";
        int room = SafeName.MOST_BYTES - (mark + ending).getBytes(StandardCharsets.UTF_8).length;
        String stem = safeName.substring(0, safeName.length() - ending.length()).stripTrailing();
        return SafeName.shortened(stem, room) + mark + ending;
    }

    /** Whether a name is the other one, or that with a number. */
    public static boolean isNumbered(String name, String safeName) {
        if (name.equals(safeName)) {
            return true;
        }
        int open = name.lastIndexOf(" (");
        int close = open < 0 ? -1 : name.indexOf(')', open);
        if (close < 0 || close - open > MOST_DIGITS + 2 || !name.substring(open + 2, close).matches("[1-9][0-9]*")) {
            return false;
        }
        return on(safeName, Integer.parseInt(name.substring(open + 2, close))).equals(name);
    }

    /** Two paths with the same key would be one file on a disk that ignores case or Unicode form. */
    public static String key(String path) {
        return Normalizer.normalize(path, Normalizer.Form.NFC).toLowerCase(Locale.ROOT);
    }
}
