package oakbasket.core.contact;

import java.util.Arrays;
import java.util.Locale;
import java.util.stream.Collectors;
import oakbasket.core.naming.Folded;

/** When two contacts are probably one person. Nothing is ever merged for it; it is only offered. */
public final class SamePerson {

    /** From here on two names are near enough to be suggested. Common practice for names, no source. */
    public static final double NEAR = 0.92;

    private SamePerson() {
    }

    /**
     * Equal for two contacts of the same name and organisation: without regard to case, accents, punctuation, and the order of the parts of a name
     * ({@code Brook, Ada} is {@code Ada Brook}).
     */
    public static String key(String name, String organisation) {
        return plain(name) + "|" + plain(organisation);
    }

    /** How alike two names are, from 0 to 1, whatever the order of their parts. */
    public static double likeness(String one, String other) {
        return Math.max(JaroWinkler.similarity(plain(one), plain(other)),
                JaroWinkler.similarity(one.toLowerCase(Locale.ROOT).strip(), other.toLowerCase(Locale.ROOT).strip()));
    }

    private static String plain(String text) {
        String bare = Folded.of(text).replaceAll("[^\\p{L}\\p{N}]+", " ").strip();
        return Arrays.stream(bare.split(" ")).sorted().collect(Collectors.joining(" "));
    }
}
