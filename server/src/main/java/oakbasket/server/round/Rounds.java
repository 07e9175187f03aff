package oakbasket.server.round;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import oakbasket.core.compose.RoundPlan;
import oakbasket.core.compose.RoundSheet;
import oakbasket.core.compose.SheetCheck;
import oakbasket.core.fault.Fault;
import org.jspecify.annotations.Nullable;
import oakbasket.core.round.RoundState;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.storage.Transactions;
import oakbasket.server.problem.Problem;
import org.springframework.context.annotation.Lazy;
import org.springframework.stereotype.Service;
import tools.jackson.databind.json.JsonMapper;

/** Drafts, and rounds from opening to closing. */
@Service
public class Rounds {

    /**
     * A draft or an opened round in a list.
     *
     * @param title may be empty in a draft
     */
    public record Head(long id, RoundState state, int version, String title, Instant changedAt, @Nullable Long seriesId) {
    }

    /** A draft as it stands, with what keeps it from being opened. */
    public record Draft(Head head, RoundSheet sheet, List<Fault> errors, List<Fault> oddities) {
    }

    private final RoundTable rounds;
    private final ItemTable items;
    private final Asking asking;
    private final Inviting inviting;
    private final SheetContexts contexts;
    private final Transactions transactions;
    private final LiveHub live;
    private final JsonMapper json;
    private final Clock clock;

    Rounds(RoundTable rounds, ItemTable items, @Lazy Asking asking, @Lazy Inviting inviting, SheetContexts contexts, Transactions transactions, LiveHub live, JsonMapper json,
            Clock clock) {
        this.rounds = rounds;
        this.items = items;
        this.asking = asking;
        this.inviting = inviting;
        this.contexts = contexts;
        this.transactions = transactions;
        this.live = live;
        this.json = json;
        this.clock = clock;
    }

    /** All rounds, the last changed first. */
    public List<Head> all() {
        return rounds.heads().stream().map(Rounds::head).toList();
    }

    /** The rounds that gather. */
    public List<Round> gathering() {
        return rounds.inState(RoundState.GATHERING);
    }

    /**
     * A round that is no draft.
     *
     * @throws Problem with status 404 when there is none
     */
    public Round opened(long id) {
        return rounds.opened(id).orElseThrow(() -> Problem.notFound("no-round"));
    }

    /** The checklist of a round in its order. */
    public List<Item> items(long roundId) {
        return items.ofRound(roundId);
    }

    /** Begins a draft. */
    public Draft begin(RoundSheet sheet, long askedBy) {
        long id = transactions.durably(() -> rounds.insertDraft(title(sheet), json.writeValueAsString(sheet), askedBy, clock.instant()));
        return draft(id);
    }

    /** The title of an item, also of one that was taken off its checklist. */
    public String itemTitle(long itemId) {
        return items.title(itemId);
    }

    /** A round's sheet, of a draft or of the opening. */
    public Draft draft(long id) {
        RoundTable.Head head = rounds.head(id).orElseThrow(() -> Problem.notFound("no-round"));
        RoundSheet sheet = json.readValue(rounds.sheet(id), RoundSheet.class);
        SheetCheck.Outcome outcome = SheetCheck.check(sheet, contexts.composing());
        return new Draft(head(head), sheet, outcome.errors(), outcome.oddities());
    }

    /**
     * Begins a draft with everything of another round but its dates and passcode; of a round that gathers or gathered, with its people as they are now.
     */
    public Draft copy(long id, long account) {
        RoundTable.Head head = rounds.head(id).orElseThrow(() -> Problem.notFound("no-round"));
        return begin(forAnother(head, head.title()), account);
    }

    /** A round's sheet made fit for another round. */
    RoundSheet forAnother(long id) {
        RoundTable.Head head = rounds.head(id).orElseThrow(() -> Problem.notFound("no-round"));
        return forAnother(head, head.title());
    }

    private RoundSheet forAnother(RoundTable.Head head, String title) {
        RoundSheet sheet = json.readValue(rounds.sheet(head.id()), RoundSheet.class);
        if (head.state() != RoundState.DRAFT && sheet.groups().isEmpty()) {
            sheet = sheet.asking(asking.asked(head.id()).stream().map(one -> new RoundSheet.SheetPerson(one.name(), one.email())).toList(), List.of());
        }
        return sheet.forAnother(title, "");
    }

    /** Begins a draft of a series. Runs in the caller's transaction. */
    long beginOfSeries(RoundSheet sheet, long account, long seriesId) {
        long id = rounds.insertDraft(title(sheet), json.writeValueAsString(sheet), account, clock.instant());
        rounds.ofSeries(id, seriesId);
        return id;
    }

    /**
     * Saves a draft as typed.
     *
     * @throws Problem with status 409 when it was saved elsewhere since {@code version}, or is no draft any more
     */
    public Draft save(long id, int version, RoundSheet sheet) {
        int changed = transactions.durably(() -> rounds.saveDraft(id, version, title(sheet), json.writeValueAsString(sheet), clock.instant()));
        if (changed != 1) {
            throw rounds.head(id).isEmpty() ? Problem.notFound("no-round") : Problem.conflict("changed-elsewhere");
        }
        return draft(id);
    }

    /**
     * A round to be rehearsed.
     *
     * @param openOnly whether nobody is asked by name, so that the open link is the way in
     */
    public record Rehearsed(Round round, List<Item> items, boolean openOnly) {
    }

    /**
     * A round as its senders will see it, also while it is a draft.
     *
     * @throws Problem with status 422 naming every field that keeps a draft from being shown
     */
    public Rehearsed rehearse(long id) {
        RoundTable.Head head = rounds.head(id).orElseThrow(() -> Problem.notFound("no-round"));
        RoundSheet sheet = json.readValue(rounds.sheet(id), RoundSheet.class);
        if (head.state() != RoundState.DRAFT) {
            return new Rehearsed(opened(id), items(id), sheet.people().isEmpty());
        }
        SheetCheck.Outcome outcome = SheetCheck.check(sheet, contexts.composing());
        RoundPlan plan = outcome.plan().orElseThrow(() -> Problem.fields(outcome.errors()));
        Round round = new Round(id, head.state(), head.version(), plan.title(), plan.note(), plan.deadline(), plan.warning(), plan.grace(),
                plan.folderPattern(), plan.namePattern(), rounds.askedBy(id), clock.instant(), plan.closesAt(), null, plan.keepUntil(), plan.calendarId(), plan.takesActive(), plan.letters());
        List<Item> list = RoundChanges.asItems(plan.items());
        return new Rehearsed(round, list, plan.people().isEmpty());
    }

    /** Throws a draft away. */
    public void discard(long id) {
        if (transactions.durably(() -> rounds.deleteDraft(id)) != 1) {
            throw Problem.notFound("no-draft");
        }
    }

    /**
     * Opens a draft: from now on its links admit senders.
     *
     * @throws Problem with status 422 naming every field that keeps it from being opened, or 409 when it changed since {@code version}
     */
    public Round open(long id, int version) {
        RoundTable.Head head = rounds.head(id).orElseThrow(() -> Problem.notFound("no-round"));
        head.state().after(RoundState.Change.OPEN);
        RoundSheet sheet = json.readValue(rounds.sheet(id), RoundSheet.class);
        SheetCheck.Outcome outcome = SheetCheck.check(sheet, contexts.composing());
        RoundPlan plan = outcome.plan().orElseThrow(() -> Problem.fields(outcome.errors()));
        transactions.durably(() -> {
            if (rounds.open(id, version, plan, json.writeValueAsString(sheet.withoutPasscode()), clock.instant()) != 1) {
                throw Problem.conflict("changed-elsewhere");
            }
            for (int i = 0; i < plan.items().size(); i++) {
                items.insert(id, i + 1, plan.items().get(i));
            }
            List<Long> asked = asking.ask(id, plan.people(), plan.groups(), plan.openLink(), plan.passcode());
            if (plan.letters().invite()) {
                inviting.invite(asked, rounds.askedBy(id));
            }
        });
        live.publish(new LiveEvent("round", id, null));
        return opened(id);
    }

    /** Closes or reopens a round, at once also for links already sent out. */
    public Round change(long id, RoundState.Change change) {
        Round round = opened(id);
        RoundState after = round.state().after(change);
        Instant now = clock.instant();
        if (transactions.durably(() -> rounds.change(id, round.state(), after, after == RoundState.CLOSED ? now : null, now)) != 1) {
            throw Problem.conflict("changed-elsewhere");
        }
        live.publish(new LiveEvent("round", id, null));
        return opened(id);
    }

    /** Moves a round's dates into the past, so that the demo shows a round in full swing. */
    public void backdate(long id, Instant opened, LocalDate deadline) {
        transactions.quickly(() -> {
            rounds.openedAt(id, opened, deadline);
            return true;
        });
    }

    private static Head head(RoundTable.Head head) {
        return new Head(head.id(), head.state(), head.version(), head.title(), head.changedAt(), head.seriesId());
    }

    private static String title(RoundSheet sheet) {
        String title = sheet.title().strip();
        return title.length() <= 200 ? title : title.substring(0, 200);
    }
}
