package oakbasket.server.live;

import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.SynchronousQueue;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import java.util.function.Predicate;
import java.util.function.Supplier;
import oakbasket.server.account.AccountSessions;
import oakbasket.server.problem.Problem;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/**
 * Keeps the streams of all open desks. Each has a short queue of its own; one that does not read is ended, and holds up neither the one who publishes nor
 * another desk. A desk ends with the session it belongs to.
 */
@Component
class OpenDesks {

    /** How many streams one account may have open: a window or two on each of several devices. */
    static final int MOST_PER_ACCOUNT = 24;
    private static final int MOST_SENDING = 64;

    private final AccountSessions sessions;
    private final List<OpenDesk> desks = new CopyOnWriteArrayList<>();
    private final ExecutorService sender = new ThreadPoolExecutor(0, MOST_SENDING, 30, TimeUnit.SECONDS, new SynchronousQueue<>(), work -> {
        Thread thread = new Thread(work, "live");
        thread.setDaemon(true);
        return thread;
    });

    OpenDesks(LiveHub hub, AccountSessions sessions) {
        this.sessions = sessions;
        hub.tellDesks(event -> tellAll(desk -> hub.concerns(desk.account(), event), () -> SseEmitter.event().name(event.type()).data(event)));
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

    /** Keeps connections alive through proxies, notices desks that went away, and lets a desk notice that nothing comes through any more. */
    @Scheduled(fixedDelay = 20_000)
    void heartbeat() {
        desks.stream().filter(desk -> !sessions.lives(desk.sessionId())).forEach(OpenDesk::end);
        tellAll(desk -> true, () -> SseEmitter.event().name("alive").data(""));
    }

    /** Who signed out is told nothing more. */
    @EventListener
    void sessionEnded(AccountSessions.Ended ended) {
        desks.stream().filter(desk -> desk.sessionId().equals(ended.sessionId())).forEach(OpenDesk::end);
    }

    @EventListener(ContextClosedEvent.class)
    void close() {
        desks.forEach(OpenDesk::end);
        sender.shutdown();
    }

    /** Each desk gets an event of its own: one is used up by sending it. */
    private void tellAll(Predicate<OpenDesk> concerned, Supplier<SseEmitter.SseEventBuilder> event) {
        desks.stream().filter(concerned).forEach(desk -> desk.tell(event.get()));
    }
}
