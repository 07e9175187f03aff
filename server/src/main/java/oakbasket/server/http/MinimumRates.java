package oakbasket.server.http;

import java.nio.ByteBuffer;
import java.util.concurrent.TimeoutException;
import org.eclipse.jetty.io.Content;
import org.eclipse.jetty.server.Handler;
import org.eclipse.jetty.server.Request;
import org.eclipse.jetty.server.Response;
import org.eclipse.jetty.util.Callback;
import org.eclipse.jetty.util.NanoTime;
import org.jspecify.annotations.Nullable;

/**
 * Ends what is sent or read more slowly than any real line would. Event streams are left out: they are silent by nature, and bounded in number instead.
 *
 * <p>Each request is judged by its own bytes. The container's handler for this (Jetty 12.1.14, MinimumDataRateHandler) judges each by the bytes of all together since the start, and as billionths in 64
 * bits: after 9.2 GB, whoever they were sent to, it refuses everybody.
 */
final class MinimumRates extends Handler.Wrapper {

    private static final String EVENT_STREAM = "/api/live";

    MinimumRates(Handler next) {
        super(next);
    }

    @Override
    public boolean handle(Request request, Response response, Callback callback) throws Exception {
        if (Request.getPathInContext(request).equals(EVENT_STREAM)) {
            return super.handle(request, response, callback);
        }
        Rated rated = new Rated(request);
        return super.handle(rated, new RatedResponse(rated, response), callback);
    }

    /** A request whose body has to come fast enough. */
    private static final class Rated extends Request.Wrapper {
        private final Rate rate = new Rate();
        private Content.@Nullable Chunk error;

        Rated(Request request) {
            super(request);
        }

        @Override
        public void demand(Runnable ready) {
            if (rate.tooLow(NanoTime.now())) {
                error = Content.Chunk.from(new TimeoutException("read rate is too low"));
                ready.run();
                return;
            }
            super.demand(ready);
        }

        @Override
        public Content.Chunk read() {
            if (error != null) {
                return error;
            }
            Content.Chunk chunk = super.read();
            if (chunk != null) {
                rate.passed(chunk.remaining());
            }
            return chunk;
        }
    }

    /** An answer that has to be read fast enough. */
    private static final class RatedResponse extends Response.Wrapper {
        private final Rate rate = new Rate();

        RatedResponse(Request request, Response response) {
            super(request, response);
        }

        @Override
        public void write(boolean last, ByteBuffer content, Callback callback) {
            if (rate.tooLow(NanoTime.now())) {
                callback.failed(new TimeoutException("write rate is too low"));
                return;
            }
            int bytes = content == null ? 0 : content.remaining();
            // Nested, so that it is called in whichever thread the one inside wants: with all threads in the middle of writing there is none to spare.
            super.write(last, content, new Callback.Nested(callback) {
                @Override
                public void succeeded() {
                    rate.passed(bytes);
                    super.succeeded();
                }
            });
        }
    }
}
