package oakbasket.server.retention;

import java.time.Clock;
import java.util.List;
import java.util.Optional;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.problem.Problem;
import oakbasket.server.storage.Transactions;
import org.springframework.stereotype.Component;

/** Keeps rounds beyond their date, with a reason, until somebody releases them. */
@Component
class Holds {

    private static final int LONGEST_REASON = 500;

    private final HoldTable table;
    private final Transactions transactions;
    private final LiveHub live;
    private final Clock clock;

    Holds(HoldTable table, Transactions transactions, LiveHub live, Clock clock) {
        this.table = table;
        this.transactions = transactions;
        this.live = live;
        this.clock = clock;
    }

    List<Hold> standing() {
        return table.standing();
    }

    Optional<Hold> of(long round) {
        return table.of(round);
    }

    /**
     * Holds a round.
     *
     * @throws Problem with status 422 when no reason is given, 409 when it is held already
     */
    void hold(long round, String typed, long account) {
        String reason = typed.strip();
        if (reason.isEmpty() || reason.length() > LONGEST_REASON) {
            throw reason.isEmpty() ? Problem.field("reason", "hold-reason") : Problem.field("reason", "longest", LONGEST_REASON);
        }
        transactions.durably(() -> {
            if (table.of(round).isPresent()) {
                throw Problem.conflict("changed-elsewhere");
            }
            table.insert(round, reason, clock.instant(), account);
        });
        live.publish(new LiveEvent(LiveEvent.FILING, round, null));
    }

    /**
     * Releases a round.
     *
     * @throws Problem with status 409 when it is not held
     */
    void release(long round, long account) {
        if (transactions.durably(() -> table.release(round, clock.instant(), account)) == 0) {
            throw Problem.conflict("not-held");
        }
        live.publish(new LiveEvent(LiveEvent.FILING, round, null));
    }
}
