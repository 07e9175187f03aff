package oakbasket.server.account;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.util.Base64;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import oakbasket.server.security.SecretKeys;
import org.springframework.stereotype.Component;

/**
 * Marks browsers, so that it is known which browsers signed in to which account, so that strangers who guess at a password do not lock out who has it (OWASP,
 * Authentication Cheat Sheet: device cookies). The cookie lets nobody in.
 */
@Component
class KnownBrowsers {

    private static final Pattern MARK = Pattern.compile("[A-Za-z0-9_-]{16}\\.[A-Za-z0-9_-]{43}");
    private static final int NAME_BYTES = 12;
    private static final int NAME_LENGTH = 16;

    private final SecretKeys keys;

    KnownBrowsers(SecretKeys keys) {
        this.keys = keys;
    }

    /**
     * The name of a browser, if it signed in to this account before.
     *
     * @param marks what the browser holds of earlier marks, whatever it is
     */
    Optional<String> name(List<String> marks, String emailKey) {
        return marks.stream().filter(mark -> MARK.matcher(mark).matches())
                .filter(mark -> MessageDigest.isEqual(bytes(mark.substring(NAME_LENGTH + 1)), bytes(signature(mark.substring(0, NAME_LENGTH), emailKey))))
                .map(mark -> mark.substring(0, NAME_LENGTH)).findFirst();
    }

    /** A mark by which a browser is known again. */
    String mark(String emailKey) {
        String name = Base64.getUrlEncoder().withoutPadding().encodeToString(keys.random(NAME_BYTES));
        return name + "." + signature(name, emailKey);
    }

    private String signature(String name, String emailKey) {
        return Base64.getUrlEncoder().withoutPadding().encodeToString(keys.sign(bytes("browser " + name + " " + emailKey)));
    }

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }
}
