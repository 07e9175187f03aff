package oakbasket.server.web;

import oakbasket.server.storage.Acting;
import oakbasket.server.words.Linkless;

/** Words that somebody wrote, as they are taken away in a file. */
public final class ReadersText {

    private static final String INSTEAD = "[…]";

    private ReadersText() {
    }

    /** The same words; for somebody who only reads without the links in them. */
    public static String of(String text) {
        return Acting.readsOnly() ? Linkless.of(text, INSTEAD) : text;
    }
}
