package oakbasket.server.board;

import java.time.Clock;
import java.time.Instant;
import java.util.Map;
import java.util.NavigableSet;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Stream;
import oakbasket.core.round.RoundState;
import oakbasket.server.basket.Baskets;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import oakbasket.server.storage.Acting;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/** Tells open desks when a warning begins, a deadline passes, grace ends or links shut by themselves, so that nothing they show is outlived by the clock. */
@Component
class Moments {

    private static final long LOOK_EVERY_MILLISECONDS = 1_000;

    private final Rounds rounds;
    private final Baskets baskets;
    private final LiveHub live;
    private final Clock clock;
    /** What is still to come, by the round. Only the one look that is under way touches it. */
    private final Map<Long, NavigableSet<Instant>> coming = new ConcurrentHashMap<>();
    /** Rounds whose deadlines may have changed since they were looked at. */
    private final Set<Long> changed = ConcurrentHashMap.newKeySet();

    Moments(Rounds rounds, Baskets baskets, LiveHub live, Clock clock) {
        this.rounds = rounds;
        this.baskets = baskets;
        this.live = live;
        this.clock = clock;
        rounds.gathering().forEach(round -> changed.add(round.id()));
        live.listen(this::heard);
    }

    private void heard(LiveEvent event) {
        if (event.roundId() != 0 && (event.type().equals("round") || event.type().equals("basket"))) {
            changed.add(event.roundId());
        }
    }

    @Scheduled(fixedRate = LOOK_EVERY_MILLISECONDS)
    void look() {
        Acting.officeDoes(this::lookNow);
    }

    private void lookNow() {
        Instant now = clock.instant();
        for (Long id : Set.copyOf(changed)) {
            changed.remove(id);
            NavigableSet<Instant> ahead = rounds.opened(Set.of(id)).stream().filter(round -> round.state() == RoundState.GATHERING).findFirst()
                    .map(round -> ahead(round, now)).orElseGet(TreeSet::new);
            if (ahead.isEmpty()) {
                coming.remove(id);
            } else {
                coming.put(id, ahead);
            }
        }
        coming.forEach((id, ahead) -> {
            NavigableSet<Instant> passed = ahead.headSet(now, false);
            if (!passed.isEmpty()) {
                passed.clear();
                live.publish(new LiveEvent(LiveEvent.MOMENT, id, null));
            }
        });
        coming.values().removeIf(Set::isEmpty);
    }

    private NavigableSet<Instant> ahead(Round round, Instant now) {
        TreeSet<Instant> all = new TreeSet<>(round.terms(null).moments());
        baskets.extensionsOf(round.id()).forEach(day -> all.addAll(round.terms(day).moments()));
        Stream.ofNullable(round.closesAt()).forEach(all::add);
        return new TreeSet<>(all.tailSet(now, true));
    }
}
