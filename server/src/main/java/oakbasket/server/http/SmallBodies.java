package oakbasket.server.http;

import java.nio.ByteBuffer;
import java.time.Duration;
import java.util.Arrays;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import oakbasket.server.problem.Problem;
import org.eclipse.jetty.http.HttpHeader;
import org.eclipse.jetty.io.Content;
import org.eclipse.jetty.server.Handler;
import org.eclipse.jetty.server.Request;
import org.eclipse.jetty.server.Response;
import org.eclipse.jetty.util.Callback;
import org.eclipse.jetty.util.thread.Scheduler;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;

/**
 * Gathers a small body before anybody is asked to serve it, and holds no thread meanwhile: a body that comes a byte at a time costs its own bytes and
 * nothing else. It has one time for the whole of it, and all bodies being gathered share a budget of memory. Bodies that may be larger
 * ({@link BodyLimits}) pass; those are for signed-in callers and uploads, who are known before a byte is read.
 */
final class SmallBodies extends Handler.Wrapper {

    /** For the whole body, from the request head on (RFC 9110 §15.5.9). */
    static final Duration LONGEST = Duration.ofSeconds(15);
    private static final long MOST_GATHERED_BYTES = 16 * 1024 * 1024;
    private static final int FIRST_BYTES = 1024;

    private final AtomicLong gathered = new AtomicLong();
    private final Refusals refusals;

    SmallBodies(Handler next, Refusals refusals) {
        super(next);
        this.refusals = refusals;
    }

    @Override
    public boolean handle(Request request, Response response, Callback callback) throws Exception {
        boolean chunked = request.getHeaders().contains(HttpHeader.TRANSFER_ENCODING);
        long announced = request.getHeaders().getLongField(HttpHeader.CONTENT_LENGTH);
        if (!chunked && announced <= 0 || BodyLimits.ofPath(Request.getPathInContext(request)) > BodyLimits.SMALL) {
            return super.handle(request, response, callback);
        }
        if (announced > BodyLimits.SMALL) {
            refusals.refuse(Problem.of(Problem.Kind.TOO_LARGE, "body-too-large", BodyLimits.SMALL), request, response, callback);
        } else {
            new Gathering(request, response, callback).begin();
        }
        return true;
    }

    /** One body on its way. The container asks for more only after it was asked for, so no two threads are here at once but for the end of the time. */
    private final class Gathering implements Runnable {
        private final Request request;
        private final Response response;
        private final Callback callback;
        private byte[] bytes = new byte[0];
        private int length;
        private boolean ended;
        private Scheduler.@Nullable Task timer;

        Gathering(Request request, Response response, Callback callback) {
            this.request = request;
            this.response = response;
            this.callback = callback;
        }

        void begin() {
            timer = request.getComponents().getScheduler().schedule(() -> refuse(Problem.of(Problem.Kind.TOO_SLOW, "body-slow", LONGEST.toSeconds())),
                    LONGEST.toMillis(), TimeUnit.MILLISECONDS);
            more(false);
        }

        @Override
        public void run() {
            more(true);
        }

        private void more(boolean elsewhere) {
            while (true) {
                Content.Chunk chunk = request.read();
                if (chunk == null) {
                    request.demand(this);
                    return;
                }
                if (Content.Chunk.isFailure(chunk)) {
                    end();
                    callback.failed(chunk.getFailure());
                    return;
                }
                Problem problem = take(chunk.getByteBuffer());
                boolean last = chunk.isLast();
                chunk.release();
                if (problem != null) {
                    refuse(problem);
                    return;
                }
                if (last) {
                    if (end() && elsewhere) {
                        request.getContext().execute(this::serve);
                    } else if (ended) {
                        serve();
                    }
                    return;
                }
            }
        }

        private synchronized @Nullable Problem take(ByteBuffer part) {
            int wanted = length + part.remaining();
            if (wanted > BodyLimits.SMALL) {
                return Problem.of(Problem.Kind.TOO_LARGE, "body-too-large", BodyLimits.SMALL);
            }
            if (wanted > bytes.length) {
                int room = (int) Math.min(BodyLimits.SMALL, Math.max(wanted, Math.max(FIRST_BYTES, 2 * bytes.length)));
                if (gathered.addAndGet(room - bytes.length) > MOST_GATHERED_BYTES) {
                    gathered.addAndGet(bytes.length - room);
                    return Problem.of(Problem.Kind.BUSY, "busy");
                }
                bytes = Arrays.copyOf(bytes, room);
            }
            part.get(bytes, length, part.remaining());
            length = wanted;
            return null;
        }

        private void refuse(Problem problem) {
            if (end()) {
                refusals.refuse(problem, request, response, callback);
            }
        }

        /** Whether this call ended the gathering; false when it had ended before. */
        private synchronized boolean end() {
            if (ended) {
                return false;
            }
            ended = true;
            gathered.addAndGet(-bytes.length);
            if (timer != null) {
                timer.cancel();
            }
            return true;
        }

        private void serve() {
            try {
                if (!SmallBodies.super.handle(new Gathered(request, ByteBuffer.wrap(bytes, 0, length)), response, callback)) {
                    Response.writeError(request, response, callback, HttpStatus.NOT_FOUND.value());
                }
            } catch (Exception problem) {
                Response.writeError(request, response, callback, problem);
            }
        }
    }

    /** A request whose whole body is here. */
    private static final class Gathered extends Request.Wrapper {
        private Content.@Nullable Chunk body;

        Gathered(Request request, ByteBuffer body) {
            super(request);
            this.body = Content.Chunk.from(body, true);
        }

        @Override
        public Content.@Nullable Chunk read() {
            Content.Chunk next = body;
            body = Content.Chunk.EOF;
            return next;
        }

        @Override
        public void demand(Runnable demandCallback) {
            demandCallback.run();
        }
    }
}
