package oakbasket.server.live;

import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.SynchronousQueue;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import oakbasket.server.problem.Problem;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.security.web.session.HttpSessionDestroyedEvent;
import org.springframework.stereotype.Service;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/**
 * Passes events to every open desk. Each desk has a short queue of its own; one that does not read is ended, and holds up neither the one who publishes nor
 * another desk. A desk ends with the session it belongs to.
 */
@Service
public class LiveHub {

    /** How many streams one account may have open: a window or two on each of several devices. */
    static final int MOST_PER_ACCOUNT = 24;
    private static final int MOST_SENDING = 64;

    private final List<Consumer<LiveEvent>> listeners = new CopyOnWriteArrayList<>();
    private final List<OpenDesk> desks = new CopyOnWriteArrayList<>();
    private final ExecutorService sender = new ThreadPoolExecutor(0, MOST_SENDING, 30, TimeUnit.SECONDS, new SynchronousQueue<>(), work -> {
        Thread thread = new Thread(work, "live");
        thread.setDaemon(true);
        return thread;
    });

    /** Has a part of the server told of every event, in the thread that publishes it and before the desks are. */
    public void listen(Consumer<LiveEvent> listener) {
        listeners.add(listener);
    }

    /** Tells all desks. To be called after the commit of what is told, and before whoever caused it is answered. */
    public void publish(LiveEvent event) {
        listeners.forEach(listener -> listener.accept(event));
        desks.forEach(desk -> desk.tell(SseEmitter.event().name(event.type()).data(event)));
    }

    /**
     * Opens a stream.
     *
     * @throws Problem with status 429 when the account has too many
     */
    SseEmitter open(long account, String sessionId) {
        OpenDesk desk = new OpenDesk(account, sessionId, new SseEmitter(0L), sender, desks::remove);
        synchronized (desks) {
            if (desks.stream().filter(other -> other.account() == account).count() >= MOST_PER_ACCOUNT) {
                throw Problem.of(Problem.Kind.TOO_MANY, "too-many-streams", MOST_PER_ACCOUNT);
            }
            desks.add(desk);
        }
        desk.tell(SseEmitter.event().name("hello").data("{}"));
        return desk.emitter();
    }

    /** Keeps connections alive through proxies and notices desks that went away. */
    @Scheduled(fixedDelay = 20_000)
    void heartbeat() {
        desks.forEach(desk -> desk.tell(SseEmitter.event().comment("still here")));
    }

    /** Who signed out, or was away for too long, is told nothing more. */
    @EventListener
    void sessionEnded(HttpSessionDestroyedEvent ended) {
        desks.stream().filter(desk -> desk.sessionId().equals(ended.getId())).forEach(OpenDesk::end);
    }

    @EventListener(ContextClosedEvent.class)
    void close() {
        desks.forEach(OpenDesk::end);
        sender.shutdown();
    }
}
