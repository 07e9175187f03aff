package oakbasket.core.inward;

import java.net.IDN;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/** What our own mail server found out about who a message comes from (RFC 8601). */
public final class AuthenticationResults {

    /** What the server says of the author's address. */
    public enum Word {
        /** The author's domain stands behind the message. */
        VOUCHED,
        /** The author's domain disowns it, or the server contradicts itself: whatever else speaks for it, a person decides. */
        DENIED,
        /** It says nothing that can be relied on. */
        SILENT
    }

    private static final String DMARC = "dmarc";
    private static final String DKIM = "dkim";
    private static final String SPF = "spf";
    private static final String PASS = "pass";
    private static final String FAIL = "fail";
    /** DMARC found no policy to judge by, so DKIM and SPF speak for themselves. */
    private static final String NO_POLICY = "none";

    private AuthenticationResults() {
    }

    /**
     * What the server says of the author's domain. Only the topmost field that bears the server's name is read: what is below it may have been written by whoever sent the message, and a server that follows
     * RFC 8601, 5, has removed false ones. A field above it that cannot be read ends the search, since its name cannot be told.
     *
     * <p>{@code dmarc=pass} counts for the domain in its {@code header.from}; where the server has judged no policy, {@code dkim=pass} for the domain in {@code header.d} or {@code spf=pass} for that in {@code smtp.mailfrom}.
     * Each has to be the author's domain itself: strict alignment (RFC 7489, 3.1), which needs no list of public suffixes.
     *
     * @param fields all fields {@code Authentication-Results}, the topmost first
     * @param serverId the name under which our server writes them; empty where nothing is trusted
     * @param authorDomain the domain of the one address in {@code From}; empty where there is not exactly one
     */
    public static Word of(List<String> fields, String serverId, String authorDomain) {
        if (serverId.isEmpty()) {
            return Word.SILENT;
        }
        for (String field : fields) {
            Optional<AuthResultsField> read = AuthResultsField.parse(field);
            if (read.isEmpty()) {
                return Word.SILENT;
            }
            if (read.get().serverId().equalsIgnoreCase(serverId)) {
                return judged(read.get(), ascii(authorDomain));
            }
        }
        return Word.SILENT;
    }

    private static Word judged(AuthResultsField field, String author) {
        List<AuthResultsField.Result> dmarc = field.of(DMARC);
        if (dmarc.stream().anyMatch(result -> result.value().equals(FAIL))) {
            return Word.DENIED;
        }
        if (dmarc.stream().anyMatch(result -> result.value().equals(PASS))) {
            String from = dmarc.get(0).property("header", "from");
            return author.isEmpty() || from.isEmpty() ? Word.SILENT : dmarc.size() == 1 && is(author, from) ? Word.VOUCHED : Word.DENIED;
        }
        if (author.isEmpty() || dmarc.stream().anyMatch(result -> !result.value().equals(NO_POLICY))) {
            return Word.SILENT;
        }
        boolean signed = field.of(DKIM).stream().anyMatch(result -> result.value().equals(PASS) && is(author, result.property("header", "d")));
        boolean sent = field.of(SPF).size() == 1 && field.of(SPF).stream().anyMatch(result -> result.value().equals(PASS) && is(author, result.property("smtp", "mailfrom")));
        return signed || sent ? Word.VOUCHED : Word.SILENT;
    }

    private static boolean is(String author, String value) {
        return author.equals(ascii(value.substring(value.lastIndexOf('@') + 1)));
    }

    /** A domain in its ASCII form (RFC 5890), in small letters; empty when it is none. */
    private static String ascii(String domain) {
        try {
            return IDN.toASCII(domain, IDN.USE_STD3_ASCII_RULES).toLowerCase(Locale.ROOT);
        } catch (IllegalArgumentException none) {
            return "";
        }
    }
}
