package oakbasket.server.post;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import oakbasket.core.reminder.PlanChange;
import oakbasket.server.problem.Problem;
import oakbasket.server.storage.Transactions;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** What coordinators decided about letters of plans before they go, each decision to be taken back as a whole. */
@Service
public class PlanChanges {

    /** A letter of a plan: whose it is, and the moment the plan means. */
    public record Step(long basketId, Instant at) {
    }

    /** One letter with what was decided; null takes a decision back. */
    public record Decided(Step step, @Nullable PlanChange change) {
    }

    /** What was decided, so far as it still matters. */
    public static final class Known {

        private final Map<Long, Map<Instant, PlanChange>> byBasket = new HashMap<>();
        private final Map<Long, List<Instant>> moved = new HashMap<>();

        Known(List<PlanChangeTable.Row> rows) {
            for (PlanChangeTable.Row row : rows) {
                byBasket.computeIfAbsent(row.basketId(), id -> new HashMap<>()).put(row.stepAt(), row.change());
                Instant to = row.toAt();
                if (to != null) {
                    moved.computeIfAbsent(row.roundId(), id -> new ArrayList<>()).add(to);
                }
            }
        }

        Map<Instant, PlanChange> of(long basketId) {
            return byBasket.getOrDefault(basketId, Map.of());
        }

        boolean movedInto(long roundId, Instant after, Instant until) {
            return moved.getOrDefault(roundId, List.of()).stream().anyMatch(at -> at.isAfter(after) && !at.isAfter(until));
        }
    }

    /** As long as a server may have stood still and the newest missed step still goes. */
    private static final Duration MATTERS = Duration.ofDays(30);

    private final PlanChangeTable table;
    private final LetterTable letters;
    private final Transactions transactions;
    private final Clock clock;

    PlanChanges(PlanChangeTable table, LetterTable letters, Transactions transactions, Clock clock) {
        this.table = table;
        this.letters = letters;
        this.transactions = transactions;
        this.clock = clock;
    }

    Known from(Instant now) {
        return new Known(table.since(now.minus(MATTERS)));
    }

    /**
     * Decides about letters of a round.
     *
     * @return by which it can be taken back
     */
    public long decide(long roundId, List<Decided> decided, long account) {
        return transactions.durably(() -> {
            long batch = letters.nextBatch();
            for (Decided one : decided) {
                table.remember(batch, one.step());
                table.put(roundId, one, batch, account, clock.instant());
            }
            return batch;
        });
    }

    /**
     * Takes a decision back.
     *
     * @throws Problem with status 409 when somebody decided otherwise since, or it was taken back
     */
    public void undo(long batch) {
        transactions.durably(() -> {
            if (table.superseded(batch) || table.restore(batch) == 0) {
                throw Problem.conflict("undone-already");
            }
            return true;
        });
    }
}
