package oakbasket.server.keptplan;

import java.time.Clock;
import java.util.List;
import oakbasket.core.compose.RoundSheet.SheetLetters;
import oakbasket.core.compose.SheetCheck;
import oakbasket.core.fault.Fault;
import oakbasket.server.compose.SheetContexts;
import oakbasket.server.problem.Problem;
import oakbasket.server.storage.Transactions;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.stereotype.Service;
import tools.jackson.databind.json.JsonMapper;

/** Keeps plans by name. A round that uses one has its own copy, so that what is kept or thrown away later changes no round. */
@Service
class KeptPlans {

    static final int LONGEST_NAME = 100;
    static final int MOST = 50;

    /** A kept plan. */
    record KeptPlan(long id, String name, SheetLetters plan) {
    }

    private final KeptPlanTable table;
    private final SheetContexts contexts;
    private final Transactions transactions;
    private final JsonMapper json;
    private final Clock clock;

    KeptPlans(KeptPlanTable table, SheetContexts contexts, Transactions transactions, JsonMapper json, Clock clock) {
        this.table = table;
        this.contexts = contexts;
        this.transactions = transactions;
        this.json = json;
        this.clock = clock;
    }

    /** All of them, by name. */
    List<KeptPlan> all() {
        return table.all().stream().map(row -> new KeptPlan(row.id(), row.name(), json.readValue(row.plan(), SheetLetters.class))).toList();
    }

    /**
     * Keeps a plan; one of the same name is replaced.
     *
     * @throws Problem with status 422 naming the fields
     */
    KeptPlan keep(String typed, SheetLetters plan) {
        String name = typed.strip();
        if (name.isEmpty() || name.length() > LONGEST_NAME) {
            throw name.isEmpty() ? Problem.field("name", "plan-name") : Problem.field("name", "longest", LONGEST_NAME);
        }
        List<Fault> faults = SheetCheck.faultsOfLetters(plan, contexts.composing());
        if (!faults.isEmpty()) {
            throw Problem.fields(faults);
        }
        try {
            transactions.durably(() -> {
                if (table.replace(name, json.writeValueAsString(plan)) == 0) {
                    if (table.all().size() >= MOST) {
                        throw Problem.field("name", "plans-most", MOST);
                    }
                    table.insert(name, json.writeValueAsString(plan), clock.instant());
                }
                return true;
            });
        } catch (DuplicateKeyException twice) {
            throw Problem.conflict("changed-elsewhere");
        }
        return all().stream().filter(one -> one.name().equals(name)).findFirst().orElseThrow();
    }

    /** Throws one away. */
    void discard(long id) {
        if (transactions.durably(() -> table.delete(id)) != 1) {
            throw Problem.notFound("no-kept-plan");
        }
    }
}
