package oakbasket.server.http;

import java.util.LinkedHashMap;
import java.util.Map;
import org.eclipse.jetty.http.HttpFields;
import org.eclipse.jetty.server.Handler;
import org.eclipse.jetty.server.Request;
import org.eclipse.jetty.server.Response;
import org.eclipse.jetty.util.Callback;

/** The headers that every answer carries, whoever gives it: a capability, the security filters, or the container that could not even read the request. */
final class ProtectingHeaders extends Handler.Wrapper {

    private static final String CONTENT_SECURITY_POLICY = "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data: blob:; "
            + "font-src 'self'; connect-src 'self'; worker-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'";

    private final Map<String, String> headers = new LinkedHashMap<>();

    ProtectingHeaders(Handler next, boolean https) {
        super(next);
        headers.put("Content-Security-Policy", CONTENT_SECURITY_POLICY);
        headers.put("X-Content-Type-Options", "nosniff");
        headers.put("X-Frame-Options", "DENY");
        headers.put("Referrer-Policy", "no-referrer");
        headers.put("Permissions-Policy", "camera=(), microphone=(), geolocation=(), interest-cohort=()");
        headers.put("Cross-Origin-Opener-Policy", "same-origin");
        headers.put("Cross-Origin-Resource-Policy", "same-origin");
        if (https) {
            headers.put("Strict-Transport-Security", "max-age=31536000");
        }
    }

    @Override
    public boolean handle(Request request, Response response, Callback callback) throws Exception {
        addTo(response.getHeaders());
        return super.handle(request, response, callback);
    }

    /** Puts them on an answer. */
    void addTo(HttpFields.Mutable answer) {
        headers.forEach(answer::put);
    }
}
