package oakbasket.server.round;

import java.time.Clock;
import java.util.List;
import java.util.function.LongConsumer;
import oakbasket.core.compose.PlannedItem;
import oakbasket.core.compose.RoundPlan;
import oakbasket.core.compose.RoundSheet;
import oakbasket.core.compose.SheetCheck;
import oakbasket.core.fault.Fault;
import oakbasket.core.round.RoundState;
import oakbasket.server.compose.SheetContexts;
import oakbasket.server.problem.Problem;
import oakbasket.server.storage.Transactions;
import org.springframework.stereotype.Service;
import tools.jackson.databind.json.JsonMapper;

/** Rounds that are still being composed. */
@Service
public class Drafts {

    private static final int LONGEST_TITLE_IN_LISTS = 200;

    /** A draft as it stands, with what keeps it from being opened. */
    public record Draft(Rounds.Head head, RoundSheet sheet, List<Fault> errors, List<Fault> oddities) {
    }

    /**
     * A round to be rehearsed.
     *
     * @param openOnly whether nobody is asked by name, so that the open link is the way in
     * @param person the name of one who is asked; empty when nobody is by name
     */
    public record Rehearsed(Round round, List<Item> items, boolean openOnly, String person) {
    }

    private final RoundTable table;
    private final Rounds rounds;
    private final SheetContexts contexts;
    private final Transactions transactions;
    private final JsonMapper json;
    private final Clock clock;

    Drafts(RoundTable table, Rounds rounds, SheetContexts contexts, Transactions transactions, JsonMapper json, Clock clock) {
        this.table = table;
        this.rounds = rounds;
        this.contexts = contexts;
        this.transactions = transactions;
        this.json = json;
        this.clock = clock;
    }

    /** Begins a draft. */
    public Draft begin(RoundSheet sheet, long askedBy) {
        return begin(sheet, askedBy, id -> {
        });
    }

    /** Begins a draft. @param also what is done with its number before anybody can see it */
    public Draft begin(RoundSheet sheet, long askedBy, LongConsumer also) {
        return draft(transactions.durably(() -> {
            long id = insert(sheet, askedBy);
            also.accept(id);
            return id;
        }));
    }

    /** Begins a draft of a series. Runs in the caller's transaction. */
    public long beginOfSeries(RoundSheet sheet, long askedBy, long seriesId) {
        long id = insert(sheet, askedBy);
        table.ofSeries(id, seriesId);
        return id;
    }

    /** Begins a draft that is there for an exchange only. Runs in the caller's transaction. */
    public long beginOfExchange(RoundSheet sheet, long askedBy) {
        long id = insert(sheet, askedBy);
        rounds.forExchange(id);
        return id;
    }

    private long insert(RoundSheet sheet, long askedBy) {
        return table.insertDraft(title(sheet), json.writeValueAsString(sheet), askedBy, clock.instant());
    }

    /** A round's sheet, of a draft or of the opening. */
    public Draft draft(long id) {
        Rounds.Head head = rounds.head(id);
        RoundSheet sheet = rounds.sheet(id);
        SheetCheck.Outcome outcome = SheetCheck.check(sheet, contexts.composing());
        return new Draft(head, sheet, outcome.errors(), outcome.oddities());
    }

    /**
     * What a draft says, ready to be opened.
     *
     * @throws Problem with status 422 naming every field that keeps it from being opened
     */
    public RoundPlan plan(RoundSheet sheet) {
        SheetCheck.Outcome outcome = SheetCheck.check(sheet, contexts.composing());
        return outcome.plan().orElseThrow(() -> Problem.fields(outcome.errors()));
    }

    /**
     * Saves a draft as typed.
     *
     * @throws Problem with status 409 when it was saved elsewhere since {@code version}, or is no draft any more
     */
    public Draft save(long id, int version, RoundSheet sheet) {
        if (transactions.durably(() -> table.saveDraft(id, version, title(sheet), json.writeValueAsString(sheet), clock.instant())) != 1) {
            rounds.head(id);
            throw Problem.conflict("changed-elsewhere");
        }
        return draft(id);
    }

    /** Throws a draft away. */
    public void discard(long id) {
        if (transactions.durably(() -> table.deleteDraft(id)) != 1) {
            throw Problem.notFound("no-draft");
        }
    }

    /**
     * A round as its senders will see it, also while it is a draft.
     *
     * @throws Problem with status 422 naming every field that keeps a draft from being shown
     */
    public Rehearsed rehearse(long id) {
        Rounds.Head head = rounds.head(id);
        RoundSheet sheet = rounds.sheet(id);
        if (head.state() != RoundState.DRAFT) {
            return new Rehearsed(rounds.opened(id), rounds.items(id), sheet.people().isEmpty(), someone(sheet));
        }
        RoundPlan plan = plan(sheet);
        Round round = Round.planned(RoundBuilder.builder().id(id).state(head.state()).version(head.version()).askedBy(rounds.askedBy(id)).openedAt(clock.instant()), plan);
        return new Rehearsed(round, itemsOf(plan), plan.people().isEmpty(), someone(sheet));
    }

    private static String someone(RoundSheet sheet) {
        return sheet.people().isEmpty() ? "" : sheet.people().get(0).name().strip();
    }

    /** The items of a plan; new ones get ids that no item has, so that nothing counts for them yet. */
    public static List<Item> itemsOf(RoundPlan plan) {
        List<Item> list = new java.util.ArrayList<>();
        for (PlannedItem item : plan.items()) {
            Long id = item.id();
            list.add(new Item(id == null ? -1 - list.size() : id, list.size() + 1, item.spec(), item.owedBy(), item.formId()));
        }
        return list;
    }

    private static String title(RoundSheet sheet) {
        String title = sheet.title().strip();
        return title.length() <= LONGEST_TITLE_IN_LISTS ? title : title.substring(0, LONGEST_TITLE_IN_LISTS);
    }
}
