package oakbasket.server.live;

import java.io.IOException;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.function.Consumer;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/** Passes events to every open desk. A slow desk never holds up the one who publishes. */
@Service
public class LiveHub {

    private static final Logger LOG = LoggerFactory.getLogger(LiveHub.class);

    private final List<Consumer<LiveEvent>> listeners = new CopyOnWriteArrayList<>();
    private final List<SseEmitter> desks = new CopyOnWriteArrayList<>();
    private final ExecutorService sender = Executors.newSingleThreadExecutor(work -> {
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
        if (!desks.isEmpty()) {
            sender.execute(() -> send(SseEmitter.event().name(event.type()).data(event)));
        }
    }

    SseEmitter open() {
        SseEmitter desk = new SseEmitter(0L);
        desk.onCompletion(() -> desks.remove(desk));
        desk.onError(problem -> desks.remove(desk));
        desks.add(desk);
        sender.execute(() -> send(desk, SseEmitter.event().name("hello").data("{}")));
        return desk;
    }

    /** Keeps connections alive through proxies and notices desks that went away. */
    @Scheduled(fixedDelay = 20_000)
    void heartbeat() {
        if (!desks.isEmpty()) {
            sender.execute(() -> send(SseEmitter.event().comment("still here")));
        }
    }

    @EventListener(ContextClosedEvent.class)
    void close() {
        desks.forEach(SseEmitter::complete);
        sender.shutdown();
    }

    private void send(SseEmitter.SseEventBuilder event) {
        desks.forEach(desk -> send(desk, event));
    }

    private void send(SseEmitter desk, SseEmitter.SseEventBuilder event) {
        try {
            desk.send(event);
        } catch (IOException | IllegalStateException gone) {
            LOG.debug("A desk went away", gone);
            desks.remove(desk);
        }
    }
}
