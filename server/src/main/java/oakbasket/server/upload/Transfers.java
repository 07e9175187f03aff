package oakbasket.server.upload;

import java.io.IOException;
import java.util.HashMap;
import java.util.Map;
import oakbasket.server.problem.Problem;
import org.springframework.stereotype.Component;

/**
 * Limits how many requests may send bytes at the same moment: of one caller through one link, so that nobody shuts out others who have the same link; through one
 * link, so that no link keeps the whole server busy; and in all, since each holds a thread while its bytes come.
 */
@Component
class Transfers {

    static final int MOST_OF_A_CALLER = 16;
    static final int MOST_OF_A_LINK = 64;
    static final int MOST_IN_ALL = 120;

    private record Who(long linkId, String caller) {
    }

    private final Map<Long, Integer> ofLinks = new HashMap<>();
    private final Map<Who, Integer> ofCallers = new HashMap<>();
    private int all;

    /** Work that receives bytes. */
    interface Receiving<T> {
        T run() throws IOException;
    }

    /**
     * Runs one transfer.
     *
     * @param caller see {@link oakbasket.server.web.Caller}
     * @throws Problem with status 429 when too many run already
     */
    <T> T run(long linkId, String caller, Receiving<T> transfer) throws IOException {
        Who who = new Who(linkId, caller);
        begin(who);
        try {
            return transfer.run();
        } finally {
            end(who);
        }
    }

    private synchronized void begin(Who who) {
        int most = ofCallers.getOrDefault(who, 0) >= MOST_OF_A_CALLER ? MOST_OF_A_CALLER
                : ofLinks.getOrDefault(who.linkId(), 0) >= MOST_OF_A_LINK ? MOST_OF_A_LINK : all >= MOST_IN_ALL ? MOST_IN_ALL : 0;
        if (most > 0) {
            throw Problem.of(Problem.Kind.TOO_MANY, "too-many-transfers", most);
        }
        ofCallers.merge(who, 1, Integer::sum);
        ofLinks.merge(who.linkId(), 1, Integer::sum);
        all++;
    }

    private synchronized void end(Who who) {
        ofCallers.computeIfPresent(who, (key, count) -> count == 1 ? null : count - 1);
        ofLinks.computeIfPresent(who.linkId(), (key, count) -> count == 1 ? null : count - 1);
        all--;
    }
}
