package oakbasket.server.basket;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import oakbasket.core.deadline.DeadlineTerms;
import oakbasket.core.deadline.Timeliness;
import oakbasket.core.deadline.WorkingDays;
import oakbasket.core.standing.BasketStanding;
import oakbasket.core.standing.ItemStanding;
import oakbasket.core.standing.ItemState;
import oakbasket.core.standing.Progress;
import oakbasket.core.standing.RoundCounts;
import oakbasket.server.contact.Contact;
import oakbasket.server.contact.Contacts;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Item;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Puts rounds, baskets and files together and lets the rules judge them. */
@Service
public class Board {

    /**
     * One item of one basket.
     *
     * @param late whether it became satisfied after grace
     * @param overdue whether it is still owed after grace
     */
    public record Tile(ItemStanding standing, int files, int toCheck, boolean late, boolean overdue) {
    }

    /**
     * One basket.
     *
     * @param deadline the effective deadline
     * @param extended whether that is an extension
     * @param pastDeadlineMinutes how far past the deadline, in whole minutes, when overdue or late; else 0
     * @param pastDeadlineWorkingDays the same in working days of the round's zone
     * @param lastArrival null when nothing has come
     * @param finishedAt when the last required item became satisfied; null while unfinished
     */
    public record Row(long id, long contactId, String name, String email, String organisation, String group, boolean walkIn, boolean waived,
            Progress progress, Timeliness.State timeliness, Instant deadline, boolean extended, long pastDeadlineMinutes, int pastDeadlineWorkingDays,
            int files, int toCheck, @Nullable Instant lastArrival, @Nullable Instant finishedAt, List<Tile> tiles) {
    }

    /** A whole round, judged at one instant. */
    public record Judged(Instant now, Round round, List<Item> items, List<Row> rows, RoundCounts counts) {
    }

    private record JudgedBasket(Row row, RoundCounts.Entry entry) {
    }

    private final Rounds rounds;
    private final BasketTable baskets;
    private final Contacts contacts;
    private final ReceivedFiles files;
    private final Clock clock;

    Board(Rounds rounds, BasketTable baskets, Contacts contacts, ReceivedFiles files, Clock clock) {
        this.rounds = rounds;
        this.baskets = baskets;
        this.contacts = contacts;
        this.files = files;
        this.clock = clock;
    }

    /** Judges a round now. */
    public Judged judge(long roundId) {
        Round round = rounds.opened(roundId);
        List<Item> items = rounds.items(roundId);
        List<Basket> all = baskets.ofRound(roundId);
        Map<Long, Contact> people = contacts.byIds(all.stream().map(Basket::contactId).toList());
        Map<Long, Map<Long, Instant>> waivers = baskets.waiversOfRound(roundId);
        Map<Long, List<ReceivedFile>> received = new HashMap<>();
        files.ofRound(roundId).forEach(file -> received.computeIfAbsent(file.basketId(), id -> new ArrayList<>()).add(file));
        Instant now = clock.instant();
        List<JudgedBasket> judged = all.stream().map(basket -> judge(round, items, basket, people.get(basket.contactId()),
                waivers.getOrDefault(basket.id(), Map.of()), received.getOrDefault(basket.id(), List.of()), now)).toList();
        return new Judged(now, round, items, judged.stream().map(JudgedBasket::row).toList(), RoundCounts.of(judged.stream().map(JudgedBasket::entry).toList()));
    }

    /** Judges one basket now, at a cost that does not depend on the size of its round. */
    public Row judgeBasket(long basketId) {
        Basket basket = baskets.byId(basketId).orElseThrow(() -> oakbasket.server.web.Problem.notFound("no-basket"));
        return judge(rounds.opened(basket.roundId()), rounds.items(basket.roundId()), basket, contacts.byId(basket.contactId()),
                baskets.waiversOfBasket(basketId), files.ofBasket(basketId), clock.instant()).row();
    }

    private static JudgedBasket judge(Round round, List<Item> items, Basket basket, Contact contact, Map<Long, Instant> waivers,
            List<ReceivedFile> received, Instant now) {
        DeadlineTerms terms = round.terms(basket.extensionDate(), basket.extensionTime());
        List<ItemState> states = items.stream().map(item -> ItemState.of(item.spec().required(), item.spec().minFiles(), waivers.get(item.id()),
                received.stream().filter(file -> file.itemId() == item.id()).map(ReceivedFile::fact).toList())).toList();
        BasketStanding standing = BasketStanding.of(basket.story(), states, terms, now);
        List<Tile> tiles = states.stream().map(state -> tile(state, standing, terms, now)).toList();
        Timeliness timeliness = standing.timeliness();
        Instant judgedAt = terms.effective().plus(timeliness.by());
        int workingDays = timeliness.by().isZero() ? 0 : WorkingDays.MONDAY_TO_FRIDAY.late(terms.effective(), judgedAt, round.zone());
        Row row = new Row(basket.id(), contact.id(), contact.name(), contact.email(), contact.organisation(), contact.group(), basket.walkIn(),
                standing.waived(), standing.progress(), timeliness.state(), terms.effective(), basket.extensionDate() != null,
                timeliness.by().toMinutes(), workingDays,
                states.stream().mapToInt(ItemState::files).sum(), states.stream().mapToInt(ItemState::toCheck).sum(),
                received.isEmpty() ? null : received.get(received.size() - 1).receivedAt(), standing.finishedAt(), tiles);
        return new JudgedBasket(row, new RoundCounts.Entry(standing, basket.walkIn(), states));
    }

    private static Tile tile(ItemState state, BasketStanding basket, DeadlineTerms terms, Instant now) {
        boolean satisfied = state.standing().satisfied();
        boolean late = satisfied && state.standing() != ItemStanding.WAIVED && state.satisfiedAt() != null && state.satisfiedAt().isAfter(terms.graceEnd());
        boolean overdue = !satisfied && state.required() && !basket.waived() && now.isAfter(terms.graceEnd());
        ItemStanding shown = basket.waived() && !satisfied ? ItemStanding.WAIVED : state.standing();
        return new Tile(shown, state.files(), state.toCheck(), late, overdue);
    }
}
