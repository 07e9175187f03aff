package oakbasket.server.http;

import oakbasket.server.problem.Problem;
import org.eclipse.jetty.http.HttpHeader;
import org.eclipse.jetty.server.Handler;
import org.eclipse.jetty.server.Request;
import org.eclipse.jetty.server.Response;
import org.eclipse.jetty.util.Callback;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;

/** Refuses a kind of content that names none, or a character set that nobody knows, before anybody tries to read by it. */
final class ReadableHeaders extends Handler.Wrapper {

    private final Refusals refusals;

    ReadableHeaders(Handler next, Refusals refusals) {
        super(next);
        this.refusals = refusals;
    }

    @Override
    public boolean handle(Request request, Response response, Callback callback) throws Exception {
        if (readable(request.getHeaders().get(HttpHeader.CONTENT_TYPE))) {
            return super.handle(request, response, callback);
        }
        refusals.refuse(Problem.of(Problem.Kind.WRONG_TYPE, "media-type"), request, response, callback);
        return true;
    }

    private static boolean readable(@Nullable String contentType) {
        try {
            MediaType type = contentType == null ? MediaType.APPLICATION_JSON : MediaType.parseMediaType(contentType);
            // A character set that is not known is told by an exception, too.
            return type.isConcrete() && (type.getCharset() == null || type.getCharset().canEncode());
        } catch (IllegalArgumentException notOne) {
            return false;
        }
    }
}
