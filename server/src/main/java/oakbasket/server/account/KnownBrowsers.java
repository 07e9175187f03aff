package oakbasket.server.account;

import jakarta.servlet.http.Cookie;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.time.Duration;
import java.util.Arrays;
import java.util.Base64;
import java.util.Optional;
import oakbasket.server.Settings;
import oakbasket.server.storage.SecretKeys;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseCookie;
import org.springframework.stereotype.Component;

/**
 * Remembers by a signed cookie which browsers signed in to which account, so that strangers who guess at a password do not lock out who has it (OWASP,
 * Authentication Cheat Sheet: device cookies). The cookie lets nobody in.
 */
@Component
class KnownBrowsers {

    private static final String COOKIE = "oak-browser";
    private static final Duration LIFE = Duration.ofDays(180);
    private static final int NAME_BYTES = 12;

    private final SecretKeys keys;
    private final Settings settings;

    KnownBrowsers(SecretKeys keys, Settings settings) {
        this.keys = keys;
        this.settings = settings;
    }

    /** The name of the browser, if it signed in to this account before. */
    Optional<String> name(HttpServletRequest request, String emailKey) {
        Cookie[] cookies = request.getCookies();
        return cookies == null ? Optional.empty() : Arrays.stream(cookies).filter(cookie -> cookie.getName().equals(COOKIE)).map(Cookie::getValue)
                .filter(value -> value.matches("[A-Za-z0-9_-]{16}\\.[A-Za-z0-9_-]{43}"))
                .filter(value -> MessageDigest.isEqual(bytes(value.substring(17)), bytes(signature(value.substring(0, 16), emailKey))))
                .map(value -> value.substring(0, 16)).findFirst();
    }

    /** Has the browser remembered. */
    void remember(HttpServletResponse response, String emailKey) {
        String name = Base64.getUrlEncoder().withoutPadding().encodeToString(keys.random(NAME_BYTES));
        ResponseCookie cookie = ResponseCookie.from(COOKIE, name + "." + signature(name, emailKey)).httpOnly(true).secure(settings.https()).sameSite("Strict")
                .path("/api/session").maxAge(LIFE).build();
        response.addHeader(HttpHeaders.SET_COOKIE, cookie.toString());
    }

    private String signature(String name, String emailKey) {
        return Base64.getUrlEncoder().withoutPadding().encodeToString(keys.sign(bytes("browser " + name + " " + emailKey)));
    }

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }
}
