package oakbasket.server.words;

import java.util.Locale;
import oakbasket.core.fault.Fault;
import oakbasket.core.fault.Remark;
import org.springframework.context.MessageSource;
import org.springframework.stereotype.Component;

/**
 * Finds words by their keys in {@code messages/*.properties}. One language so far; every caller asks here, so that another language is another set of files and
 * the choice between them one place.
 */
@Component
public class Words {

    private static final Locale LANGUAGE = Locale.ENGLISH;

    private final MessageSource messages;

    public Words(MessageSource messages) {
        this.messages = messages;
    }

    /**
     * The words of a key.
     *
     * @param arguments what stands in the places {0}, {1} …; where there are none, the words stand as they are in the file
     */
    public String of(String key, Object... arguments) {
        return messages.getMessage(key, arguments.length == 0 ? null : arguments, LANGUAGE);
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
        return LANGUAGE;
    }
}
