package oakbasket.server.upload;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import oakbasket.server.link.Link;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.problem.Problem;
import oakbasket.server.storage.Transactions;
import org.springframework.stereotype.Service;

/** Remembers for the coordinator that senders were turned away because something was full. Who sends ten thousand such requests writes once a minute. */
@Service
public class RefusedUploads {

    private static final Duration AGAIN_AFTER = Duration.ofMinutes(1);
    private static final int MOST_REMEMBERED = 10_000;
    private static final Set<String> FULL = Set.of("disk-full", "space-full", "link-files", "link-total");

    /**
     * Uploads of a round that were refused.
     *
     * @param noRoom whether the disk, or the room that may be taken up, was full; else the link was
     * @param links through how many links
     */
    public record Refused(long roundId, String round, boolean noRoom, int links) {
    }

    private final RefusedUploadTable table;
    private final Transactions transactions;
    private final LiveHub live;
    private final Clock clock;
    private final Map<String, Instant> written = new ConcurrentHashMap<>();

    RefusedUploads(RefusedUploadTable table, Transactions transactions, LiveHub live, Clock clock) {
        this.table = table;
        this.transactions = transactions;
        this.live = live;
        this.clock = clock;
    }

    /** Notes a refusal that the coordinator should hear of, and gives it back to be thrown. */
    Problem noted(Link link, Problem refused) {
        if (FULL.contains(refused.code())) {
            Instant now = clock.instant();
            if (written.size() >= MOST_REMEMBERED) {
                written.values().removeIf(at -> at.plus(AGAIN_AFTER).isBefore(now));
            }
            String key = link.id() + " " + refused.code();
            Instant before = written.get(key);
            if (before == null || !before.plus(AGAIN_AFTER).isAfter(now)) {
                written.put(key, now);
                transactions.quickly(() -> {
                    table.note(link.id(), refused.code(), now);
                    return true;
                });
                live.publish(new LiveEvent(LiveEvent.LINK, link.roundId(), link.basketId()));
            }
        }
        return refused;
    }

    /** What was refused since an instant. */
    public List<Refused> since(Instant since) {
        return table.since(since);
    }
}
