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
    /** Until it is known who sees what, nobody is told of any round. */
    private volatile SeesRound sees = (account, round) -> false;

    /** Whether somebody sees a round. */
    @FunctionalInterface
    public interface SeesRound {
        boolean sees(long account, long round);
    }

    /** Says who sees what: an open desk is told of the rounds that are seen at it, and of no other. */
    public void seenBy(SeesRound rule) {
        sees = rule;
    }

    /** Whether an open desk of somebody may be told of an event. */
    boolean concerns(long account, LiveEvent event) {
        return event.roundId() <= 0 || sees.sees(account, event.roundId());
    }

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
