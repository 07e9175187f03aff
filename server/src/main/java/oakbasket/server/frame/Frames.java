package oakbasket.server.frame;

import java.util.ArrayList;
import java.util.List;
import oakbasket.core.fault.Fault;
import oakbasket.core.fault.FaultyValue;
import oakbasket.core.link.FrameOrigin;
import oakbasket.server.link.Links;
import oakbasket.server.problem.Problem;
import oakbasket.server.round.Rounds;
import oakbasket.server.storage.Transactions;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** On which web sites the page of a round's open link may stand. */
@Service
class Frames {

    private final FrameOriginTable table;
    private final Links links;
    private final Rounds rounds;
    private final Transactions transactions;

    Frames(FrameOriginTable table, Links links, Rounds rounds, Transactions transactions) {
        this.table = table;
        this.links = links;
        this.rounds = rounds;
        this.transactions = transactions;
    }

    List<String> of(long roundId) {
        return table.of(rounds.opened(roundId).id());
    }

    /**
     * Sets the sites of a round.
     *
     * @throws Problem naming the lines that are no origins
     */
    List<String> set(long roundId, List<String> typed) {
        if (typed.size() > FrameOrigin.MOST) {
            throw Problem.field("origins", "frame-origins", FrameOrigin.MOST);
        }
        List<Fault> faults = new ArrayList<>();
        List<String> origins = new ArrayList<>();
        for (int n = 0; n < typed.size(); n++) {
            try {
                origins.add(FrameOrigin.of(String.valueOf(typed.get(n))));
            } catch (FaultyValue fault) {
                faults.add(fault.at("origins[" + n + "]"));
            }
        }
        if (!faults.isEmpty()) {
            throw Problem.fields(faults);
        }
        long round = rounds.opened(roundId).id();
        transactions.durably(() -> table.replace(round, origins.stream().distinct().toList()));
        return table.of(round);
    }

    /** Who may show the page behind this token in a frame, as {@code frame-ancestors} of CSP says it; nobody for personal, unknown and withdrawn links. */
    String ancestors(@Nullable String token) {
        List<String> origins = links.openLinkOf(token).map(link -> table.of(link.roundId())).orElse(List.of());
        return origins.isEmpty() ? "'none'" : String.join(" ", origins);
    }
}
