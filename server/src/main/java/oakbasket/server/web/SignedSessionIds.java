package oakbasket.server.web;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.util.Base64;
import java.util.List;
import oakbasket.server.Settings;
import oakbasket.server.security.SecretKeys;
import org.springframework.session.web.http.CookieHttpSessionIdResolver;
import org.springframework.session.web.http.DefaultCookieSerializer;
import org.springframework.session.web.http.HttpSessionIdResolver;
import org.springframework.stereotype.Component;

/** The cookie of a session is its id and a signature by a key beside the database: whoever reads a copy of the database cannot come in by what it holds. */
@Component
class SignedSessionIds implements HttpSessionIdResolver {

    private static final String PARTED = ".";

    private final CookieHttpSessionIdResolver cookies = new CookieHttpSessionIdResolver();
    private final SecretKeys keys;

    SignedSessionIds(SecretKeys keys, Settings settings) {
        this.keys = keys;
        DefaultCookieSerializer serializer = new DefaultCookieSerializer();
        serializer.setCookieName("oak-session");
        serializer.setUseHttpOnlyCookie(true);
        serializer.setSameSite("Lax");
        serializer.setCookiePath("/");
        serializer.setUseSecureCookie(settings.https());
        cookies.setCookieSerializer(serializer);
    }

    @Override
    public List<String> resolveSessionIds(HttpServletRequest request) {
        return cookies.resolveSessionIds(request).stream().filter(this::genuine).map(value -> value.substring(0, value.lastIndexOf(PARTED))).toList();
    }

    @Override
    public void setSessionId(HttpServletRequest request, HttpServletResponse response, String sessionId) {
        cookies.setSessionId(request, response, signed(sessionId));
    }

    @Override
    public void expireSession(HttpServletRequest request, HttpServletResponse response) {
        cookies.expireSession(request, response);
    }

    private boolean genuine(String value) {
        int at = value.lastIndexOf(PARTED);
        return at > 0 && MessageDigest.isEqual(signed(value.substring(0, at)).getBytes(StandardCharsets.UTF_8), value.getBytes(StandardCharsets.UTF_8));
    }

    private String signed(String sessionId) {
        byte[] signature = keys.sign(("session " + sessionId).getBytes(StandardCharsets.UTF_8));
        return sessionId + PARTED + Base64.getUrlEncoder().withoutPadding().encodeToString(signature);
    }
}
