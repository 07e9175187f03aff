package oakbasket.server.round;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import oakbasket.core.compose.PlannedItem;
import oakbasket.core.compose.RoundPlan;
import oakbasket.core.compose.RoundSheet;
import oakbasket.core.round.RoundState;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.problem.Problem;
import oakbasket.server.storage.Transactions;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import tools.jackson.databind.json.JsonMapper;

/** Rounds and their checklists, from opening to closing. */
@Service
public class Rounds {

    /**
     * A draft or an opened round in a list.
     *
     * @param title may be empty in a draft
     * @param forExchange whether it is there for an exchange only, and stands in no list of rounds
     */
    public record Head(long id, RoundState state, int version, String title, Instant changedAt, @Nullable Long seriesId, boolean forExchange) {
    }

    private final RoundTable rounds;
    private final ItemTable items;
    private final Transactions transactions;
    private final LiveHub live;
    private final JsonMapper json;
    private final Clock clock;

    Rounds(RoundTable rounds, ItemTable items, Transactions transactions, LiveHub live, JsonMapper json, Clock clock) {
        this.rounds = rounds;
        this.items = items;
        this.transactions = transactions;
        this.live = live;
        this.json = json;
        this.clock = clock;
    }

    /** All rounds, the last changed first. */
    public List<Head> all() {
        return rounds.heads();
    }

    /** A draft or an opened round, or 404. */
    public Head head(long id) {
        return rounds.head(id).orElseThrow(() -> Problem.notFound("no-round"));
    }

    /** The rounds that somebody composed: all but those that are there for an exchange only. */
    public List<Head> composed() {
        return rounds.heads().stream().filter(head -> !head.forExchange()).toList();
    }

    /** Has a round be there for an exchange only. Runs in the caller's transaction. */
    public void forExchange(long id) {
        rounds.forExchange(id);
    }

    /** The rounds that gather. */
    public List<Round> gathering() {
        return rounds.inState(RoundState.GATHERING);
    }

    /** Rounds that are no drafts and whose retention date is before a day. */
    public List<Round> keptUntilBefore(LocalDate day) {
        return rounds.keptUntilBefore(day);
    }

    /**
     * A round that is no draft.
     *
     * @throws Problem with status 404 when there is none
     */
    public Round opened(long id) {
        return rounds.opened(id).orElseThrow(() -> Problem.notFound("no-round"));
    }

    /** Rounds by id; drafts and ids that do not exist are left out. */
    public List<Round> opened(Collection<Long> ids) {
        return rounds.opened(ids);
    }

    /** The sheet a round was opened with, or last changed to; of a draft as typed. */
    public RoundSheet sheet(long id) {
        return json.readValue(rounds.sheet(id), RoundSheet.class);
    }

    /** The account that asks, also of a draft. */
    public long askedBy(long id) {
        return rounds.askedBy(id);
    }

    /** The checklist of a round in its order. */
    public List<Item> items(long roundId) {
        return items.ofRound(roundId);
    }

    /** The checklists of rounds, each in its order, by the round. */
    public Map<Long, List<Item>> itemsOf(Collection<Long> roundIds) {
        return items.ofRounds(roundIds);
    }

    /** The titles of items, also of those taken off their checklist. */
    public Map<Long, String> itemTitles(Collection<Long> itemIds) {
        return items.titles(itemIds);
    }

    /** The title of an item, also of one that was taken off its checklist. */
    public String itemTitle(long itemId) {
        return items.title(itemId);
    }

    /**
     * Makes a draft a gathering round with the items of its plan. Runs in the caller's transaction.
     *
     * @throws Problem with status 409 when it changed since {@code version}
     */
    public void open(long id, int version, RoundPlan plan, RoundSheet kept) {
        if (rounds.open(id, version, plan, json.writeValueAsString(kept), clock.instant()) != 1) {
            throw Problem.conflict("changed-elsewhere");
        }
        for (int i = 0; i < plan.items().size(); i++) {
            items.insert(id, i + 1, plan.items().get(i));
        }
    }

    /**
     * Changes a gathering round to a plan. Items that are not in it any more are taken off. Runs in the caller's transaction.
     *
     * @throws Problem with status 409 when it changed since {@code version}
     */
    public void alter(long id, int version, RoundPlan plan, RoundSheet kept) {
        Instant now = clock.instant();
        if (rounds.alter(id, version, plan, json.writeValueAsString(kept), now) != 1) {
            throw Problem.conflict("changed-elsewhere");
        }
        Set<Long> gone = items.ofRound(id).stream().map(Item::id).collect(Collectors.toCollection(HashSet::new));
        items.clearPositions(id);
        for (int i = 0; i < plan.items().size(); i++) {
            PlannedItem item = plan.items().get(i);
            Long known = item.id();
            if (known == null) {
                items.insert(id, i + 1, item);
            } else {
                items.update(known, i + 1, item);
                gone.remove(known);
            }
        }
        gone.forEach(item -> items.remove(item, now));
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
}
