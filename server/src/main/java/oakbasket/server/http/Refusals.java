package oakbasket.server.http;

import java.nio.ByteBuffer;
import oakbasket.server.problem.Problem;
import oakbasket.server.web.ProblemWriter;
import org.eclipse.jetty.http.HttpHeader;
import org.eclipse.jetty.server.Handler;
import org.eclipse.jetty.server.Request;
import org.eclipse.jetty.server.Response;
import org.eclipse.jetty.util.Callback;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ProblemDetail;

/** Refuses as a problem detail what no capability was asked about, be it this package that refuses or the container that could not read the request. */
final class Refusals extends Handler.Abstract {

    private final ProblemWriter writer;
    private @Nullable ProtectingHeaders headers;

    Refusals(ProblemWriter writer) {
        this.writer = writer;
    }

    /** The headers that also these answers carry. */
    void carry(ProtectingHeaders protecting) {
        this.headers = protecting;
    }

    /** Tells the problem. The connection ends with it where a body may still be coming. */
    void refuse(Problem problem, Request request, Response response, Callback callback) {
        if (response.isCommitted()) {
            callback.failed(problem);
        } else {
            refuse(writer.detail(problem), response, callback);
        }
    }

    private void refuse(ProblemDetail detail, Response response, Callback callback) {
        if (headers != null) {
            headers.addTo(response.getHeaders());
        }
        response.setStatus(detail.getStatus());
        response.getHeaders().put(HttpHeader.CONTENT_TYPE, MediaType.APPLICATION_PROBLEM_JSON_VALUE);
        response.getHeaders().put(HttpHeader.CACHE_CONTROL, "no-store");
        response.getHeaders().put(HttpHeader.CONNECTION, "close");
        if (detail.getStatus() == HttpStatus.SERVICE_UNAVAILABLE.value() || detail.getStatus() == HttpStatus.TOO_MANY_REQUESTS.value()) {
            response.getHeaders().put(HttpHeader.RETRY_AFTER, "5");
        }
        byte[] body = writer.bytes(detail);
        response.getHeaders().put(HttpHeader.CONTENT_LENGTH, body.length);
        response.write(true, ByteBuffer.wrap(body), callback);
    }

    /** What the container refuses: it tells the status in an attribute. */
    @Override
    public boolean handle(Request request, Response response, Callback callback) {
        Object code = request.getAttribute(org.eclipse.jetty.server.handler.ErrorHandler.ERROR_STATUS);
        HttpStatus known = code instanceof Integer number ? HttpStatus.resolve(number) : null;
        HttpStatus status = known == null ? HttpStatus.BAD_REQUEST : known;
        if (response.isCommitted()) {
            callback.failed(new IllegalStateException("Already answered"));
        } else {
            refuse(writer.detail(status, status == HttpStatus.NOT_FOUND ? "not-found" : status.is5xxServerError() ? "busy" : "request"), response, callback);
        }
        return true;
    }
}
