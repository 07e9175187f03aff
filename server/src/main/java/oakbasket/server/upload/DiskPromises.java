package oakbasket.server.upload;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import oakbasket.server.problem.Problem;
import oakbasket.server.storage.DataFolder;
import org.springframework.stereotype.Component;

/**
 * Keeps room on the disk for what was promised to arrive. Eight uploads that would each fit are not all begun where only one fits. A promise of which nothing
 * comes lapses, so that nobody keeps others out by announcing much and sending little; whoever comes back later is promised anew if there is room.
 */
@Component
public class DiskPromises {

    /** Left free on the disk for everything else. */
    static final long SPARE_BYTES = 256L << 20;
    /** How long room is kept for an upload of which nothing comes. */
    static final Duration LIFE = Duration.ofMinutes(15);

    private record Promise(long linkId, String caller, long bytes, boolean running, Instant at) {
    }

    private final Map<String, Promise> promises = new HashMap<>();
    private final DataFolder folder;
    private final Clock clock;

    DiskPromises(DataFolder folder, Clock clock) {
        this.folder = folder;
        this.clock = clock;
    }

    /**
     * Promises room for the bytes of an upload that are still to come; one that was promised before is promised anew.
     *
     * @param caller see {@link oakbasket.server.web.Caller}
     * @throws Problem with status 507 when there is not enough, or with several uploads one link would take more than half of what there is, or one caller of it
     *     more than a quarter
     */
    public synchronized void promise(String uploadId, long linkId, String caller, long bytes) {
        Instant now = clock.instant();
        promises.values().removeIf(promise -> !promise.running() && promise.at().plus(LIFE).isBefore(now));
        promises.remove(uploadId);
        long room = folder.free() - SPARE_BYTES;
        long all = promises.values().stream().mapToLong(Promise::bytes).sum();
        List<Promise> throughLink = promises.values().stream().filter(promise -> promise.linkId() == linkId).toList();
        long ofLink = throughLink.stream().mapToLong(Promise::bytes).sum();
        long ofCaller = throughLink.stream().filter(promise -> promise.caller().equals(caller)).mapToLong(Promise::bytes).sum();
        if (bytes > room - all || ofLink > 0 && bytes > room / 2 - ofLink || ofCaller > 0 && bytes > room / 4 - ofCaller) {
            throw Problem.of(Problem.Kind.NO_ROOM, "disk-full");
        }
        promises.put(uploadId, new Promise(linkId, caller, bytes, true, now));
    }

    /**
     * Says that nothing comes just now; the promise of what is missing lapses after a while.
     *
     * @param missing bytes that are still to come; 0 when all has arrived, or nothing ever will
     */
    public synchronized void rest(String uploadId, long missing) {
        promises.computeIfPresent(uploadId, (id, promise) -> missing == 0 ? null : new Promise(promise.linkId(), promise.caller(), missing, false, clock.instant()));
    }
}
