package oakbasket.server.upload;

import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import oakbasket.server.web.Problem;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;

/** Limits how many requests may send bytes through one link at the same moment, so that one link cannot keep the whole server busy. */
@Component
class Transfers {

    static final int MOST_AT_ONCE = 32;

    /** Each holds a thread while its bytes come; the others are for everybody else. */
    static final int MOST_IN_ALL = 120;

    private final AtomicInteger all = new AtomicInteger();
    private final Map<Long, Integer> running = new ConcurrentHashMap<>();

    /** Work that receives bytes. */
    interface Receiving<T> {
        T run() throws java.io.IOException;
    }

    /**
     * Runs one transfer.
     *
     * @throws Problem with status 429 when too many run through this link
     */
    <T> T run(long linkId, Receiving<T> transfer) throws java.io.IOException {
        if (running.merge(linkId, 1, Integer::sum) > MOST_AT_ONCE || all.incrementAndGet() > MOST_IN_ALL && giveBack()) {
            end(linkId);
            throw Problem.of(HttpStatus.TOO_MANY_REQUESTS, "too-many-transfers", MOST_AT_ONCE);
        }
        try {
            return transfer.run();
        } finally {
            all.decrementAndGet();
            end(linkId);
        }
    }

    private boolean giveBack() {
        all.decrementAndGet();
        return true;
    }

    private void end(long linkId) {
        running.computeIfPresent(linkId, (id, count) -> count == 1 ? null : count - 1);
    }
}
