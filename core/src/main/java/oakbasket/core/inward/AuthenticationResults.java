package oakbasket.core.inward;

import java.util.List;
import java.util.Locale;
import java.util.regex.Pattern;

/** What our own mail server found out about who a message comes from (RFC 8601). */
public final class AuthenticationResults {

    private static final Pattern COMMENT = Pattern.compile("\\([^()]*\\)");

    private AuthenticationResults() {
    }

    /**
     * Whether the server says that the domain of the author's address stands behind the message (DMARC, RFC 7489). Only the topmost field counts that bears the server's name: what stands below may have been written by
     * whoever sent the message, and a server that follows RFC 8601, 5, has removed false ones.
     *
     * @param fields all fields {@code Authentication-Results}, the topmost first
     * @param serverId the name under which our server writes them; empty where nothing is trusted
     */
    public static boolean vouched(List<String> fields, String serverId) {
        if (serverId.isEmpty()) {
            return false;
        }
        for (String field : fields) {
            String[] parts = COMMENT.matcher(field).replaceAll(" ").toLowerCase(Locale.ROOT).split(";");
            if (parts[0].strip().split("\\s+")[0].equals(serverId.toLowerCase(Locale.ROOT))) {
                for (int i = 1; i < parts.length; i++) {
                    if (parts[i].strip().matches("dmarc\\s*=\\s*pass\\b.*")) {
                        return true;
                    }
                }
                return false;
            }
        }
        return false;
    }
}
