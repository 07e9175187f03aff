package oakbasket.core.naming;

import java.text.Normalizer;
import java.util.Locale;
import java.util.regex.Pattern;

/**
 * Text as it is searched: without accents, in small letters, in one of the forms Unicode has for the same letters (UAX #15, NFKD), and without what is not
 * seen: "strasse" finds "Straße", "cafe" finds "Café" in both its forms.
 */
public final class Folded {

    private static final Pattern MARKS_AND_UNSEEN = Pattern.compile("[\\p{M}\\p{Cf}]+");

    private Folded() {
    }

    /** The folded text. */
    public static String of(String text) {
        // Sharp s is one letter whose capital is two; most people type the two.
        String bare = MARKS_AND_UNSEEN.matcher(Normalizer.normalize(text, Normalizer.Form.NFKD)).replaceAll("");
        return bare.toLowerCase(Locale.ROOT).replace("\u00df", "ss").replace('\u0131', 'i').replace('\u0142', 'l').replace("\u00f8", "o");
    }
}
