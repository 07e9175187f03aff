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

    private static final long MOST_BYTES = 64L << 20;
    private static final Duration LONGEST = Duration.ofSeconds(10);

    LingeringBodies(Handler next) {
        super(next);
    }

    @Override
    public boolean handle(Request request, Response response, Callback callback) throws Exception {
        return BodyLimits.ofPath(Request.getPathInContext(request)) > BodyLimits.SMALL ? super.handle(request, response, new Lingering(request, callback))
                : super.handle(request, response, callback);
    }

    private static final class Lingering implements Callback, Runnable {
        private final Request request;
        private final Callback callback;
        private final AtomicBoolean over = new AtomicBoolean();
        private long read;

        Lingering(Request request, Callback callback) {
            this.request = request;
            this.callback = callback;
        }

        @Override
        public void succeeded() {
            Scheduler.Task end = request.getComponents().getScheduler().schedule(this::end, LONGEST.toMillis(), TimeUnit.MILLISECONDS);
            Request.addCompletionListener(request, done -> end.cancel());
            run();
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
                    request.demand(this);
                    return;
                }
                read += chunk.remaining();
                boolean last = chunk.isLast() || Content.Chunk.isFailure(chunk) || read > MOST_BYTES;
                chunk.release();
                if (last) {
                    end();
                }
            }
        }

        private void end() {
            if (over.compareAndSet(false, true)) {
                callback.succeeded();
            }
        }
    }
}
