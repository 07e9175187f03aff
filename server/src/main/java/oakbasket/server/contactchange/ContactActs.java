package oakbasket.server.contactchange;

import java.time.Clock;
import java.util.List;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.problem.Problem;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.Transactions;
import org.springframework.stereotype.Service;

/** Undoes what was done to contacts. */
@Service
class ContactActs {

    private static final int SHOWN = 20;

    /**
     * What an undo did.
     *
     * @param kept how many contacts were left as they are, because they were changed or asked since
     */
    record Undone(int kept) {
    }

    private final ContactActTable acts;
    private final Merging merging;
    private final ImportWriting imports;
    private final Transactions transactions;
    private final LiveHub live;
    private final Clock clock;

    ContactActs(ContactActTable acts, Merging merging, ImportWriting imports, Transactions transactions, LiveHub live, Clock clock) {
        this.acts = acts;
        this.merging = merging;
        this.imports = imports;
        this.transactions = transactions;
        this.live = live;
        this.clock = clock;
    }

    /** The latest acts, the newest first. */
    List<ContactAct> latest() {
        return acts.latest(SHOWN);
    }

    /**
     * Undoes an act.
     *
     * @throws Problem with status 409 when it was undone before, or cannot be any more
     */
    Undone undo(long id) {
        return Acting.asOffice(() -> undone(id));
    }

    private Undone undone(long id) {
        ContactAct act = acts.byId(id).orElseThrow(() -> Problem.notFound("no-act"));
        int kept = transactions.durably(() -> {
            if (acts.undo(id, clock.instant()) != 1) {
                throw Problem.conflict("undone-already");
            }
            if (act.kind().equals("import")) {
                return imports.undo(act.id());
            }
            merging.undo(act);
            return 0;
        });
        live.publish(LiveEvent.CONTACTS);
        return new Undone(kept);
    }
}
