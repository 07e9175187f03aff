package oakbasket.core.link;

import java.util.Locale;
import java.util.regex.Pattern;
import oakbasket.core.fault.FaultyValue;
import oakbasket.core.naming.Folded;

/** The readable part of a link's address. It says what the link is for and proves nothing: whoever has it alone has nothing. */
public final class ReadableName {

    /** The longest one in characters. */
    public static final int LONGEST = 60;

    private static final Pattern NOT_PLAIN = Pattern.compile("[^a-z0-9]+");

    private ReadableName() {
    }

    /**
     * The readable part made of what was typed: small Latin letters, digits and single hyphens, which every mail program and every voice on a telephone carries.
     *
     * @return empty when nothing was typed
     * @throws FaultyValue when nothing of it can stand in an address, or it is too long
     */
    public static String of(String typed) {
        String name = suggestion(typed);
        if (name.isEmpty() && !typed.isBlank()) {
            throw new FaultyValue("link-name");
        }
        if (typed.strip().length() > LONGEST) {
            throw new FaultyValue("longest", LONGEST);
        }
        return name;
    }

    /** The readable part that a title suggests; empty when nothing of the title can stand in an address. */
    public static String suggestion(String title) {
        String plain = trimmed(NOT_PLAIN.matcher(Folded.of(title).toLowerCase(Locale.ROOT)).replaceAll("-"));
        if (plain.length() <= LONGEST) {
            return plain;
        }
        int wholeWords = plain.lastIndexOf('-', LONGEST);
        return plain.substring(0, wholeWords > 0 ? wholeWords : LONGEST);
    }

    private static String trimmed(String hyphened) {
        int from = hyphened.startsWith("-") ? 1 : 0;
        int to = hyphened.endsWith("-") ? hyphened.length() - 1 : hyphened.length();
        return from < to ? hyphened.substring(from, to) : "";
    }
}
