package oakbasket.server.http;

import java.time.Duration;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import org.eclipse.jetty.io.Content;
import org.eclipse.jetty.server.Handler;
import org.eclipse.jetty.server.Request;
import org.eclipse.jetty.server.Response;
import org.eclipse.jetty.util.Callback;
import org.eclipse.jetty.util.thread.Scheduler;

/**
 * Goes on reading what still comes after an answer was given, for a while and without a thread: who is still sending when the connection ends does not see why
 * they were refused (RFC 9112 §9.6, the lingering close).
 */
final class LingeringBodies extends Handler.Wrapper {

    private record Patience(long bytes, Duration time) {
    }

    /** For senders of files, who must learn what was wrong with one. */
    private static final Patience LONG = new Patience(64L << 20, Duration.ofSeconds(10));
    private static final Patience SHORT = new Patience(1 << 20, Duration.ofSeconds(1));

    LingeringBodies(Handler next) {
        super(next);
    }

    @Override
    public boolean handle(Request request, Response response, Callback callback) throws Exception {
        boolean large = BodyLimits.ofPath(Request.getPathInContext(request)) > BodyLimits.SMALL;
        return super.handle(request, response, new Lingering(request, callback, large ? LONG : SHORT));
    }

    private static final class Lingering implements Callback, Runnable {
        private final Request request;
        private final Callback callback;
        private final AtomicBoolean over = new AtomicBoolean();
        private final Patience patience;
        private long read;

        Lingering(Request request, Callback callback, Patience patience) {
            this.request = request;
            this.callback = callback;
            this.patience = patience;
        }

        @Override
        public void succeeded() {
            run();
            if (!over.get()) {
                Scheduler.Task end = request.getComponents().getScheduler().schedule(this::end, patience.time().toMillis(), TimeUnit.MILLISECONDS);
                Request.addCompletionListener(request, done -> end.cancel());
            }
        }

        @Override
        public void failed(Throwable problem) {
            if (over.compareAndSet(false, true)) {
                callback.failed(problem);
            }
        }

        @Override
        public void run() {
            while (!over.get()) {
                Content.Chunk chunk = request.read();
                if (chunk == null) {
                    waitForMore();
                    return;
                }
                read += chunk.remaining();
                boolean last = chunk.isLast() || Content.Chunk.isFailure(chunk) || read > patience.bytes();
                chunk.release();
                if (last) {
                    end();
                }
            }
        }

        private void waitForMore() {
            try {
                request.demand(this);
            } catch (IllegalStateException somebodyElseWaits) {
                // A body that was given up for its slowness; there is nothing to wait for.
                end();
            }
        }

        private void end() {
            if (over.compareAndSet(false, true)) {
                callback.succeeded();
            }
        }
    }
}
