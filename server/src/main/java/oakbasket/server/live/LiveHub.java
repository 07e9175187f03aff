package oakbasket.server.live;

import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.Consumer;
import org.springframework.stereotype.Service;

/** Passes on what changed: to parts of the server that remember something, and then to every open desk. */
@Service
public class LiveHub {

    private final List<Consumer<LiveEvent>> parts = new CopyOnWriteArrayList<>();
    private final List<Consumer<LiveEvent>> desks = new CopyOnWriteArrayList<>();

    /** Has a part of the server told of every event, in the thread that publishes it and before the desks are. */
    public void listen(Consumer<LiveEvent> part) {
        parts.add(part);
    }

    /** Has whoever keeps the open desks told of every event. */
    void tellDesks(Consumer<LiveEvent> keeper) {
        desks.add(keeper);
    }

    /** Tells everybody. To be called after the commit of what is told, and before whoever caused it is answered. */
    public void publish(LiveEvent event) {
        parts.forEach(part -> part.accept(event));
        desks.forEach(keeper -> keeper.accept(event));
    }
}
