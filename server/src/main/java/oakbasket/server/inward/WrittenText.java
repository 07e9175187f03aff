package oakbasket.server.inward;

import java.util.regex.Pattern;

/** What somebody wrote in a message, without the letter it answers. */
final class WrittenText {

    private static final int LONGEST = 20_000;
    /** Where what is answered begins (common practice, no source; RFC 3676, 4.5, for the sign before each line). */
    private static final Pattern ANSWERED = Pattern.compile("(?im)^(-{2,} ?(original message|ursprüngliche nachricht|message d'origine|mensaje original|wiadomość oryginalna)|_{10,}|-- ?)$");

    private WrittenText() {
    }

    /** Without lines that quote, and without what stands below a signature or an answered letter. */
    static String of(String text) {
        String unix = text.replace("\r\n", "\n").replace('\r', '\n');
        var answered = ANSWERED.matcher(unix);
        String own = answered.find() && !unix.substring(0, answered.start()).isBlank() ? unix.substring(0, answered.start()) : unix;
        StringBuilder kept = new StringBuilder();
        for (String line : own.split("\n")) {
            if (!line.startsWith(">")) {
                kept.append(line.stripTrailing()).append('\n');
            }
        }
        String plain = kept.toString().replaceAll("[\\p{Cc}&&[^\\n\\t]]", "").replaceAll("\n{3,}", "\n\n").strip();
        return plain.length() <= LONGEST ? plain : plain.substring(0, LONGEST);
    }
}
