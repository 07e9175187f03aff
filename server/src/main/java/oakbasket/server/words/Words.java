package oakbasket.server.words;

import java.util.Locale;
import java.util.Optional;
import oakbasket.core.fault.Fault;
import oakbasket.core.fault.Remark;
import org.jspecify.annotations.Nullable;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.context.MessageSource;
import org.springframework.context.i18n.LocaleContext;
import org.springframework.context.i18n.LocaleContextHolder;
import org.springframework.stereotype.Component;

/**
 * Finds words by their keys in {@code messages/*.properties}, in the language of the request under way: that of the sender on the sender's side, English
 * everywhere else. What has no words in a language is said in English.
 */
@Component
public class Words {

    private final MessageSource messages;
    private final @Nullable Locale fixed;

    @Autowired
    public Words(MessageSource messages) {
        this(messages, null);
    }

    private Words(MessageSource messages, @Nullable Locale fixed) {
        this.messages = messages;
        this.fixed = fixed;
    }

    /** The same words in one language, whoever asks. */
    public Words in(Locale language) {
        return new Words(messages, language);
    }

    /**
     * The words of a key.
     *
     * @param arguments what stands in the places {0}, {1} …; where there are none, the words stand as they are in the file
     */
    public String of(String key, Object... arguments) {
        return messages.getMessage(key, arguments.length == 0 ? null : arguments, inLatinDigits(language()));
    }

    /** The words of a key, where it has any. */
    public Optional<String> find(String key) {
        return Optional.ofNullable(messages.getMessage(key, null, null, inLatinDigits(language())));
    }

    /** Browsers write numbers in Arabic in Latin digits unless told otherwise; what the server says stands beside that. */
    private static Locale inLatinDigits(Locale language) {
        return new Locale.Builder().setLocale(language).setUnicodeLocaleKeyword("nu", "latn").build();
    }

    /** What a remark says; empty when there is none. */
    public String of(Remark remark) {
        return remark.isNone() ? "" : of("fault." + remark.code(), remark.arguments().toArray());
    }

    /** What a fault says, without its field. */
    public String of(Fault fault) {
        return of(fault.remark());
    }

    /** The language, for dates and numbers. */
    public Locale language() {
        if (fixed != null) {
            return fixed;
        }
        LocaleContext context = LocaleContextHolder.getLocaleContext();
        Locale asked = context == null ? null : context.getLocale();
        return asked == null ? Locale.ENGLISH : asked;
    }
}
