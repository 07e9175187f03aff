package oakbasket.server.words;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** The languages that senders are spoken to in. */
public final class SenderLanguages {

    /** English first: what has no words in another language is said in it. */
    public static final List<Locale> ALL = List.of("en", "es", "fr", "de", "pl", "ar").stream().map(Locale::forLanguageTag).toList();

    private SenderLanguages() {
    }

    /** The language of a tag such as {@code fr-CA}; empty when it is none of them, or no tag. */
    public static Optional<Locale> ofTag(@Nullable String tag) {
        String language = tag == null ? "" : Locale.forLanguageTag(tag.strip()).getLanguage();
        return ALL.stream().filter(one -> one.getLanguage().equals(language)).findFirst();
    }

    /** The one of them that a browser likes best (RFC 9110, 12.5.4); English where it likes none or says nothing that can be read. */
    public static Locale preferred(@Nullable String acceptLanguage) {
        if (acceptLanguage == null || acceptLanguage.isBlank() || acceptLanguage.length() > 500) {
            return Locale.ENGLISH;
        }
        try {
            return Locale.LanguageRange.parse(acceptLanguage).stream().map(range -> ofTag(range.getRange())).flatMap(Optional::stream).findFirst().orElse(Locale.ENGLISH);
        } catch (IllegalArgumentException unreadable) {
            return Locale.ENGLISH;
        }
    }

    /** Whether a language is written from right to left. */
    public static boolean rightToLeft(Locale language) {
        return language.getLanguage().equals("ar");
    }
}
