package oakbasket.server.presence;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Remembers for a short time who has which round open, and whose basket in it. Nothing of it is kept. */
@Service
class Presence {

    /** Whoever was not heard of for so long has gone; an open desk tells of itself every 20 seconds. */
    static final Duration GONE_AFTER = Duration.ofSeconds(45);
    private static final int MOST_ROUNDS = 10_000;

    /**
     * Somebody at a round.
     *
     * @param basket the one they have open; null when none
     */
    record There(long account, String name, @Nullable Long basket, Instant at) {
    }

    private final Map<Long, Map<Long, There>> rounds = new HashMap<>();
    private final LiveHub live;
    private final Clock clock;

    Presence(LiveHub live, Clock clock) {
        this.live = live;
        this.clock = clock;
    }

    /** Somebody tells that they are there. @return the others */
    List<There> here(long round, long account, String name, @Nullable Long basket) {
        Instant now = clock.instant();
        boolean changed;
        List<There> others;
        synchronized (rounds) {
            Map<Long, There> at = rounds.computeIfAbsent(round, id -> new HashMap<>());
            changed = at.values().removeIf(one -> one.at().plus(GONE_AFTER).isBefore(now));
            There before = at.put(account, new There(account, name, basket, now));
            changed |= before == null || !Objects.equals(before.basket(), basket);
            others = at.values().stream().filter(one -> one.account() != account).sorted(java.util.Comparator.comparing(There::name)).toList();
            if (rounds.size() > MOST_ROUNDS) {
                rounds.values().removeIf(some -> some.values().stream().allMatch(one -> one.at().plus(GONE_AFTER).isBefore(now)));
            }
        }
        tell(changed, round);
        return others;
    }

    /** Somebody goes away. */
    void gone(long round, long account) {
        boolean changed;
        synchronized (rounds) {
            Map<Long, There> at = rounds.getOrDefault(round, new HashMap<>());
            changed = at.remove(account) != null;
            if (at.isEmpty()) {
                rounds.remove(round);
            }
        }
        tell(changed, round);
    }

    private void tell(boolean changed, long round) {
        if (changed) {
            live.publish(new LiveEvent(LiveEvent.PRESENCE, round, null));
        }
    }
}
