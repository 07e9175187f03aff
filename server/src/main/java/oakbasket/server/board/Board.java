package oakbasket.server.board;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.time.Clock;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import oakbasket.core.deadline.DeadlineTerms;
import oakbasket.core.deadline.Timeliness;
import oakbasket.core.deadline.WorkingDays;
import oakbasket.core.standing.BasketList;
import oakbasket.core.standing.BasketStanding;
import oakbasket.core.standing.BasketView;
import oakbasket.core.standing.FileFact;
import oakbasket.core.standing.ItemState;
import oakbasket.core.standing.Progress;
import oakbasket.core.standing.RoundCounts;
import oakbasket.core.standing.RoundEffect;
import oakbasket.core.standing.Tile;
import oakbasket.server.basket.Basket;
import oakbasket.server.basket.Baskets;
import oakbasket.server.calendar.Calendars;
import oakbasket.server.contact.Contact;
import oakbasket.server.round.Item;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import oakbasket.server.storage.Known;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Puts rounds, baskets and files together and lets the rules judge them. */
@Service
public class Board {

    private static final long MINUTES_OF_A_DAY = 24 * 60;

    /** What would happen to one person's basket. */
    public record Affected(String name, RoundEffect effect) {
    }

    /**
     * One basket.
     *
     * @param version counts what coordinators did to it
     * @param groups the contact's groups, parted by commas
     * @param removed whether it was taken out of the round; such a basket enters no count
     * @param deadline the effective deadline
     * @param extended whether that is an extension
     * @param pastDeadlineMinutes how far past the deadline, in whole minutes, when overdue or late; else 0
     * @param pastDeadlineWorkingDays the same in working days of the round's calendar and zone
     * @param lastArrival null when nothing has come
     * @param finishedAt when the last required item became satisfied; null while unfinished
     * @param claimed how many files are kept apart until somebody says whose they are
     * @param lists every list of the round that it belongs to
     * @param tiles its items as they are shown, in the order of the checklist; a number each in JSON, see {@link TileCode}
     */
    @RecordBuilder
    public record Row(long id, int version, long contactId, String name, String email, String organisation, String reference, String groups, boolean provisional,
            boolean walkIn, boolean waived, boolean paused, boolean removed, String note, Progress progress, Timeliness.State timeliness, Instant deadline,
            boolean extended, long pastDeadlineMinutes, int pastDeadlineWorkingDays, int files, int toCheck, int claimed, @Nullable Instant lastArrival,
            @Nullable Instant finishedAt, Set<BasketList> lists, List<Tile> tiles) {

        /** Whether time has changed nothing that is shown: how long something is overdue is told to the minute on the first day, and by the day afterwards. */
        boolean readsAs(@Nullable Row other) {
            return other != null && timeliness == other.timeliness && pastDeadlineWorkingDays == other.pastDeadlineWorkingDays && shownMinutes() == other.shownMinutes()
                    && lists.equals(other.lists) && tiles.equals(other.tiles);
        }

        private long shownMinutes() {
            return pastDeadlineMinutes < MINUTES_OF_A_DAY ? pastDeadlineMinutes : pastDeadlineMinutes / MINUTES_OF_A_DAY * MINUTES_OF_A_DAY;
        }

        /** Whether it belongs to a list of its round. */
        public boolean in(BasketList list) {
            return lists.contains(list);
        }
    }

    /** A whole round, judged at one instant; the rows with those of removed baskets. */
    public record Judged(Instant now, Round round, List<Item> items, List<Row> rows, RoundCounts counts) {
    }

    /** A round and its totals. */
    public record Counted(Round round, RoundCounts counts) {
    }

    /** Rows that only the clock changed. */
    public record Moved(Instant now, List<Row> rows) {
    }

    private record JudgedBasket(BasketView view, DeadlineTerms terms) {
        BasketStanding standing() {
            return view.standing();
        }
    }

    private final Rounds rounds;
    private final Baskets baskets;
    private final RoundMemory memory;
    private final Calendars calendars;
    private final Clock clock;

    Board(Rounds rounds, Baskets baskets, RoundMemory memory, Calendars calendars, Clock clock) {
        this.rounds = rounds;
        this.baskets = baskets;
        this.memory = memory;
        this.calendars = calendars;
        this.clock = clock;
    }

    /** Judges a round now. */
    public Judged judge(long roundId) {
        return judge(rounds.opened(roundId), rounds.items(roundId), clock.instant());
    }

    /**
     * The rows of a round that stand differently now than at an earlier instant though nobody did anything.
     *
     * @param since the instant of which the rows are known; in the future it is now
     */
    public Moved moved(long roundId, Instant since) {
        Round round = rounds.opened(roundId);
        List<Item> items = rounds.items(roundId);
        Instant now = clock.instant();
        List<Row> before = judge(round, items, since.isAfter(now) ? now : since).rows();
        List<Row> after = judge(round, items, now).rows();
        Map<Long, Row> known = before.stream().collect(Collectors.toMap(Row::id, row -> row));
        return new Moved(now, after.stream().filter(row -> !row.readsAs(known.get(row.id()))).toList());
    }

    /** Judges rounds now, in their order. */
    public List<Judged> judge(List<Round> chosen) {
        Map<Long, List<Item>> items = rounds.itemsOf(chosen.stream().map(Round::id).toList());
        Instant now = clock.instant();
        return chosen.stream().map(round -> judge(round, items.getOrDefault(round.id(), List.of()), now)).toList();
    }

    private Judged judge(Round round, List<Item> items, Instant now) {
        WorkingDays days = calendars.days(round.calendarId());
        List<Row> rows = new ArrayList<>();
        List<BasketView> views = new ArrayList<>();
        for (RoundMemory.BasketFacts facts : memory.of(round.id())) {
            JudgedBasket judged = judge(round, items, facts, now);
            rows.add(row(round, facts, judged, days, now));
            views.add(judged.view());
        }
        return new Judged(now, round, items, rows, RoundCounts.of(views));
    }

    /** The totals of rounds now, by their ids; drafts are left out. */
    public Map<Long, Counted> counts(Collection<Long> roundIds) {
        Map<Long, List<Item>> items = rounds.itemsOf(roundIds);
        Instant now = clock.instant();
        Map<Long, Counted> counted = new HashMap<>();
        for (Round round : rounds.opened(roundIds)) {
            List<Item> list = items.getOrDefault(round.id(), List.of());
            counted.put(round.id(), new Counted(round, RoundCounts.of(memory.of(round.id()).stream().map(facts -> judge(round, list, facts, now).view()).toList())));
        }
        return counted;
    }

    /** Judges one basket now, at a cost that does not depend on the size of its round. */
    public Row judgeBasket(long basketId) {
        return judgeBaskets(List.of(baskets.byId(basketId))).get(0);
    }

    /** Judges baskets of whatever rounds now, in their order. */
    public List<Row> judgeBaskets(List<Basket> chosen) {
        List<Long> ids = chosen.stream().map(Basket::roundId).distinct().toList();
        Map<Long, Round> known = rounds.opened(ids).stream().collect(Collectors.toMap(Round::id, round -> round));
        Map<Long, List<Item>> items = rounds.itemsOf(ids);
        Map<Long, RoundMemory.BasketFacts> facts = memory.ofBaskets(chosen);
        Instant now = clock.instant();
        return chosen.stream().map(basket -> {
            Round round = Known.in(known, basket.roundId());
            RoundMemory.BasketFacts here = Known.in(facts, basket.id());
            return row(round, here, judge(round, items.getOrDefault(round.id(), List.of()), here, now), calendars.days(round.calendarId()), now);
        }).toList();
    }

    /** Compares a gathering round as it is with how it would be; baskets that nothing happens to are left out. */
    public List<Affected> compare(Round before, List<Item> itemsBefore, Round after, List<Item> itemsAfter) {
        Instant now = clock.instant();
        List<RoundMemory.BasketFacts> in = memory.of(before.id()).stream().filter(facts -> !facts.basket().removed() && !facts.basket().walkIn()).toList();
        Map<Long, String> names = new HashMap<>();
        in.forEach(facts -> names.put(facts.basket().id(), facts.contact().name()));
        List<RoundEffect> effects = RoundEffect.of(in.stream().map(facts -> side(before, itemsBefore, facts, now)).toList(),
                in.stream().map(facts -> side(after, itemsAfter, facts, now)).toList());
        return effects.stream().map(effect -> new Affected(Known.in(names, effect.basketId()), effect)).toList();
    }

    private static RoundEffect.Side side(Round round, List<Item> items, RoundMemory.BasketFacts facts, Instant now) {
        JudgedBasket judged = judge(round, items, facts, now);
        return new RoundEffect.Side(facts.basket().id(), judged.standing(), judged.terms().effective());
    }

    private static JudgedBasket judge(Round round, List<Item> items, RoundMemory.BasketFacts facts, Instant now) {
        Basket basket = facts.basket();
        DeadlineTerms terms = round.terms(basket.extension());
        List<ItemState> states = new ArrayList<>(items.size());
        for (Item item : items) {
            List<FileFact> received = new ArrayList<>();
            for (int i = 0; i < facts.items().length; i++) {
                if (facts.items()[i] == item.id()) {
                    received.add(facts.files()[i]);
                }
            }
            states.add(basket.owes(item.owedBy()) ? ItemState.of(item.spec().required(), item.spec().minFiles(), basket.allowance().waivedItems().get(item.id()), received)
                    : ItemState.notOwed(received));
        }
        BasketStanding standing = BasketStanding.of(basket.story(), states, terms, now);
        return new JudgedBasket(new BasketView(standing, states, basket.walkIn(), basket.allowance().pausedAt() != null, basket.removed()), terms);
    }

    private static Row row(Round round, RoundMemory.BasketFacts facts, JudgedBasket judged, WorkingDays days, Instant now) {
        Basket basket = facts.basket();
        Contact contact = facts.contact();
        BasketStanding standing = judged.standing();
        Timeliness timeliness = standing.timeliness();
        Instant deadline = judged.terms().effective();
        int workingDays = timeliness.by().isZero() ? 0 : days.late(deadline, deadline.plus(timeliness.by()), round.zone());
        BasketView view = judged.view();
        Instant last = null;
        for (FileFact file : facts.files()) {
            if (file.keptApart()) {
                continue;
            }
            last = last == null || file.receivedAt().isAfter(last) ? file.receivedAt() : last;
        }
        // The plain builder: of the staged one every component is an object, which is felt at thousands of rows.
        return BoardRowBuilder.builder().id(basket.id()).version(basket.version()).contactId(contact.id()).name(contact.name())
                .email(contact.email()).organisation(contact.organisation()).reference(contact.reference())
                .groups(String.join(", ", contact.groups())).provisional(contact.provisional()).walkIn(basket.walkIn()).waived(standing.waived())
                .paused(basket.allowance().pausedAt() != null).removed(basket.removed()).note(basket.allowance().note()).progress(standing.progress())
                .timeliness(timeliness.state()).deadline(deadline).extended(basket.extension() != null)
                .pastDeadlineMinutes(timeliness.by().toMinutes()).pastDeadlineWorkingDays(workingDays).files(view.files()).toCheck(view.toCheck())
                .claimed(view.claimed()).lastArrival(seconds(last)).finishedAt(seconds(standing.finishedAt())).lists(view.lists())
                .tiles(view.tiles(judged.terms().graceEnd(), now)).build();
    }

    /** Rounded down to the second; nobody reads more, and it keeps a large board small. */
    private static @Nullable Instant seconds(@Nullable Instant at) {
        return at == null ? null : at.truncatedTo(ChronoUnit.SECONDS);
    }
}
