package oakbasket.server.inward;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/** The few lines of a header without which nobody can be told or answered (RFC 5322, 2.2), of a message that cannot be read as one. */
final class HeaderLines {

    private static final Set<String> WANTED = Set.of("from", "subject", "date", "message-id", "to", "delivered-to", "auto-submitted", "list-id", "return-path", "precedence");
    private static final int LOOKED_AT_BYTES = 2 << 20;
    private static final int LONGEST_VALUE = 2_000;

    private HeaderLines() {
    }

    /** Their values, unfolded and cut, the first of each name. */
    static Map<String, String> of(Path message) throws IOException {
        String beginning;
        try (InputStream in = Files.newInputStream(message)) {
            beginning = new String(in.readNBytes(LOOKED_AT_BYTES), StandardCharsets.ISO_8859_1);
        }
        Map<String, String> found = new LinkedHashMap<>();
        String name = "";
        for (String line : (Iterable<String>) beginning.lines()::iterator) {
            if (line.isEmpty()) {
                break;
            }
            boolean folded = line.charAt(0) == ' ' || line.charAt(0) == '\t';
            int colon = line.indexOf(':');
            if (folded && !name.isEmpty()) {
                found.merge(name, line.substring(0, Math.min(line.length(), LONGEST_VALUE)), (before, more) -> before.length() > LONGEST_VALUE ? before : before + more);
            } else if (!folded) {
                name = colon > 0 && colon < 40 ? line.substring(0, colon).strip().toLowerCase(Locale.ROOT) : "";
                if (!WANTED.contains(name) || found.containsKey(name)) {
                    name = "";
                } else {
                    found.put(name, line.substring(colon + 1, Math.min(line.length(), colon + 1 + LONGEST_VALUE)));
                }
            }
        }
        return found;
    }
}
