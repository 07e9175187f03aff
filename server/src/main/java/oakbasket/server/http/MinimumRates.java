package oakbasket.server.http;

import org.eclipse.jetty.server.Handler;
import org.eclipse.jetty.server.Request;
import org.eclipse.jetty.server.Response;
import org.eclipse.jetty.server.handler.MinimumDataRateHandler;
import org.eclipse.jetty.util.Callback;

/** Ends what is sent or read more slowly than any real line would. Event streams are left out: they are silent by nature, and bounded in number instead. */
final class MinimumRates extends MinimumDataRateHandler {

    private static final long BYTES_PER_SECOND = 500;
    private static final String EVENT_STREAM = "/api/live";

    MinimumRates(Handler next) {
        super(next, BYTES_PER_SECOND, BYTES_PER_SECOND);
    }

    @Override
    public boolean handle(Request request, Response response, Callback callback) throws Exception {
        return Request.getPathInContext(request).equals(EVENT_STREAM) ? getHandler().handle(request, response, callback) : super.handle(request, response, callback);
    }
}
