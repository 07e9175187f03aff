package oakbasket.server.live;

import java.io.IOException;
import java.util.ArrayDeque;
import java.util.Queue;
import java.util.concurrent.Executor;
import java.util.concurrent.RejectedExecutionException;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/** One open desk: what it is still to be told, and the way to tell it. At most one thread tells it anything at a time. */
final class OpenDesk {

    private static final Logger LOG = LoggerFactory.getLogger(OpenDesk.class);
    /** A desk this far behind does not read; it opens a new stream when it does, and looks at everything anew. */
    private static final int MOST_WAITING = 500;

    private final long account;
    private final String sessionId;
    private final SseEmitter emitter;
    private final Executor sender;
    private final Consumer<OpenDesk> gone;
    private final Queue<SseEmitter.SseEventBuilder> waiting = new ArrayDeque<>();
    private boolean telling;
    private boolean ended;

    OpenDesk(long account, String sessionId, SseEmitter emitter, Executor sender, Consumer<OpenDesk> gone) {
        this.account = account;
        this.sessionId = sessionId;
        this.emitter = emitter;
        this.sender = sender;
        this.gone = gone;
        emitter.onCompletion(() -> gone.accept(this));
        emitter.onError(problem -> gone.accept(this));
    }

    long account() {
        return account;
    }

    String sessionId() {
        return sessionId;
    }

    SseEmitter emitter() {
        return emitter;
    }

    /** Tells it something a little later, after all that it was to be told before; never waits. */
    void tell(SseEmitter.SseEventBuilder event) {
        synchronized (waiting) {
            if (ended || waiting.size() >= MOST_WAITING) {
                end();
                return;
            }
            waiting.add(event);
            if (telling) {
                return;
            }
            telling = true;
        }
        try {
            sender.execute(this::tellAll);
        } catch (RejectedExecutionException allBusy) {
            end();
        }
    }

    /** Ends the stream; safe to call at any time. */
    void end() {
        synchronized (waiting) {
            if (ended) {
                return;
            }
            ended = true;
            waiting.clear();
        }
        gone.accept(this);
        // The stream itself may be held by whoever is stuck in telling it something; nobody waits for that.
        Thread ending = new Thread(emitter::complete, "live-end");
        ending.setDaemon(true);
        ending.start();
    }

    private void tellAll() {
        for (SseEmitter.SseEventBuilder event = next(); event != null; event = next()) {
            try {
                emitter.send(event);
            } catch (IOException | IllegalStateException away) {
                LOG.debug("A desk went away", away);
                end();
            }
        }
    }

    private SseEmitter.@Nullable SseEventBuilder next() {
        synchronized (waiting) {
            SseEmitter.SseEventBuilder event = waiting.poll();
            telling = event != null;
            return event;
        }
    }
}
