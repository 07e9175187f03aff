package oakbasket.server.security;

import org.jspecify.annotations.Nullable;

/** What an operation is about, where its address does not say it: told by whoever carries it out, in the same thread, and written to the trail afterwards. */
public final class Noted {

    private static final ThreadLocal<@Nullable String> ABOUT = new ThreadLocal<>();

    private Noted() {
    }

    /** Says what the operation under way is about, besides what its address says. */
    public static void about(Object... about) {
        StringBuilder text = new StringBuilder();
        for (Object one : about) {
            text.append(text.isEmpty() ? "" : ", ").append(one);
        }
        ABOUT.set(text.toString());
    }

    /** What was said, which is forgotten by this; empty when nothing was. */
    public static String taken() {
        String text = ABOUT.get();
        ABOUT.remove();
        return text == null ? "" : text;
    }
}
