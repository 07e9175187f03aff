package oakbasket.server.post;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Collection;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import oakbasket.core.identity.Identity;
import oakbasket.core.letter.LetterKind;
import oakbasket.core.letter.LetterState;
import oakbasket.core.reminder.LetterPlan;
import oakbasket.core.reminder.Recipient;
import oakbasket.core.round.RoundState;
import oakbasket.core.standing.BasketList;
import oakbasket.core.standing.Progress;
import oakbasket.server.Settings;
import oakbasket.server.basket.Basket;
import oakbasket.server.basket.Baskets;
import oakbasket.server.basket.MoreTimeGiven;
import oakbasket.server.basket.PageSeen;
import oakbasket.server.basket.PeopleAsked;
import oakbasket.server.basket.SendingFinished;
import oakbasket.server.basket.Submission;
import oakbasket.server.board.Board;
import oakbasket.server.exchange.ExchangeNews;
import oakbasket.server.lettersetting.LetterSettings;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.parcel.ParcelHandedOut;
import oakbasket.server.parcel.ParcelLink;
import oakbasket.server.parcel.ParcelSeen;
import oakbasket.server.problem.Problem;
import oakbasket.server.review.FileReturned;
import oakbasket.server.round.Rounds;
import oakbasket.server.storage.Transactions;
import org.jspecify.annotations.Nullable;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;

/** Makes letters and stops them; {@link Postman} carries them. */
@Service
public class Letters {

    /**
     * What sending to some people means.
     *
     * @param batch by which the letters can be stopped together; 0 when none were made
     * @param kinds how many letters of each kind
     * @param skipped how many people get none, by the reason
     */
    record Sending(long batch, Map<LetterKind, Integer> kinds, Map<String, Integer> skipped, Instant goesAt) {
    }

    /** Somebody already has a letter on its way. */
    static final String ON_ITS_WAY = "ON_ITS_WAY";
    /** A coordinator stopped it. */
    static final String BY_HAND = "BY_HAND";

    private final LetterTable table;
    private final Rounds rounds;
    private final Baskets baskets;
    private final Board board;
    private final LetterWriter writer;
    private final LetterSettings common;
    private final Transactions transactions;
    private final LiveHub live;
    private final Settings settings;
    private final Clock clock;

    Letters(LetterTable table, Rounds rounds, Baskets baskets, Board board, LetterWriter writer, LetterSettings common, Transactions transactions, LiveHub live, Settings settings, Clock clock) {
        this.table = table;
        this.rounds = rounds;
        this.baskets = baskets;
        this.board = board;
        this.writer = writer;
        this.common = common;
        this.transactions = transactions;
        this.live = live;
        this.settings = settings;
        this.clock = clock;
    }

    /** Has an invitation go to people who were just asked; within the transaction that asks them. */
    @EventListener
    void asked(PeopleAsked asked) {
        List<Long> basketIds = asked.baskets();
        Instant now = clock.instant();
        long batch = table.nextBatch();
        Set<Long> awaited = new HashSet<>(table.awaited(basketIds));
        baskets.byIds(basketIds).stream().filter(basket -> basket.askedAt() == null && !awaited.contains(basket.id()))
                .forEach(basket -> table.insert(fresh(basket, LetterKind.INVITATION, now.plus(settings.letterHold()), asked.account()), batch, now));
    }

    /** Tells the person of a return, unless they are told soon anyway; within the transaction that returns. */
    @EventListener
    void returned(FileReturned file) {
        Basket basket = baskets.byId(file.basketId());
        Instant now = clock.instant();
        if (rounds.opened(basket.roundId()).letters().tellReturned() && table.waiting(List.of(basket.id()), LetterKind.RETURN).isEmpty()) {
            table.insert(fresh(basket, LetterKind.RETURN, now.plus(settings.returnHold()), file.account()), table.nextBatch(), now);
        }
    }

    /** Tells people that they have more time, unless such a letter waits already; within the transaction that gives it. */
    @EventListener
    void given(MoreTimeGiven more) {
        if (!rounds.opened(more.roundId()).letters().tellExtended()) {
            return;
        }
        Instant now = clock.instant();
        long batch = table.nextBatch();
        Set<Long> waiting = new HashSet<>(table.waiting(more.baskets(), LetterKind.EXTENSION));
        baskets.byIds(more.baskets()).stream().filter(basket -> !waiting.contains(basket.id())).forEach(basket -> table.insert(fresh(basket, LetterKind.EXTENSION, now.plus(settings.returnHold()), more.account()), batch, now));
    }

    /** Sends the receipt, or thanks where nothing is owed any more, if the round wants it; within the transaction that gives the receipt. An address that was only typed is nobody's. */
    @EventListener
    void finished(SendingFinished finished) {
        Submission sending = finished.submission();
        Long basketId = sending.basketId();
        if (basketId == null || sending.identity() == Identity.SELF_DECLARED || sending.identity() == Identity.PUT_IN) {
            return;
        }
        Basket basket = baskets.byId(basketId);
        LetterPlan plan = rounds.opened(basket.roundId()).letters();
        if (!plan.tellReceived() && !plan.thank()) {
            return;
        }
        boolean thanks = plan.thank() && board.judgeBasket(basketId).progress().finished() && !table.wasTold(basketId, LetterKind.THANKS);
        if (thanks || plan.tellReceived()) {
            Instant now = clock.instant();
            table.insert(new Letter.Fresh(basket.contactId(), thanks ? LetterKind.THANKS : LetterKind.RECEIPT, thanks ? now.plus(settings.letterHold()) : now, null,
                    List.of(new Letter.FreshAbout(basketId, basket.roundId(), null)), plan.tellReceived() ? sending.id() : null, null), table.nextBatch(), now);
        }
    }

    /** Has a letter go to people who got a link to a parcel, unless one is on its way; within the transaction that gives it. */
    @EventListener
    void handedOut(ParcelHandedOut out) {
        Instant now = clock.instant();
        long batch = table.nextBatch();
        Set<Long> awaited = new HashSet<>(table.awaitedParcels(out.links().stream().map(ParcelLink::id).toList()));
        for (ParcelLink link : out.links()) {
            Long contact = link.contactId();
            if (contact != null && !awaited.contains(link.id())) {
                table.insert(new Letter.Fresh(contact, out.reminder() ? LetterKind.PICK_UP : LetterKind.PARCEL, out.account() == null ? now : now.plus(settings.letterHold()), out.account(), List.of(), null, link.id()), batch, now);
            }
        }
    }

    /** Has a letter go to the person of an exchange, unless one is on its way; within the transaction that wants it. */
    @EventListener
    void news(ExchangeNews news) {
        if (table.waiting(List.of(news.basketId()), LetterKind.EXCHANGE).isEmpty()) {
            Instant now = clock.instant();
            table.insert(fresh(baskets.byId(news.basketId()), LetterKind.EXCHANGE, now.plus(settings.letterHold()), news.account()), table.nextBatch(), now);
        }
    }

    /** Notes that the link in the letters about a parcel was opened. */
    @EventListener
    void seen(ParcelSeen page) {
        if (transactions.quickly(() -> table.openedParcel(page.linkId(), clock.instant())) > 0) {
            live.publish(new LiveEvent(LiveEvent.LETTER, 0, null));
        }
    }

    /** Notes that the link in the letters about a basket was opened. */
    @EventListener
    void seen(PageSeen page) {
        if (transactions.quickly(() -> table.opened(page.basketId(), clock.instant())) > 0) {
            live.publish(new LiveEvent(LiveEvent.LETTER, baskets.byId(page.basketId()).roundId(), page.basketId()));
        }
    }

    /**
     * Notes that a letter arrived of which nobody knew.
     *
     * @throws Problem with status 409 when that is not the question
     */
    void arrived(long id) {
        Letter letter = byId(id);
        if (letter.state() != LetterState.UNCERTAIN || transactions.durably(() -> table.settle(letter, letter.state().after(LetterState.Event.ARRIVED), letter.notBefore(), letter.tries(), "", letter.settledAt())) != 1) {
            throw Problem.conflict("letter-gone");
        }
        if (letter.kind().bringsLink()) {
            table.about(List.of(id)).forEach(about -> baskets.invited(about.basketId(), clock.instant()));
        }
        tell(letter);
    }

    /**
     * Takes in a report about a letter that the mail server had taken.
     *
     * @param failed whether it will not be delivered; else only not yet
     * @param status the enhanced status code (RFC 3463); empty when the report gave none
     * @param why what it says
     * @return whether it changed anything
     */
    public boolean reported(long letterId, boolean failed, String status, String why) {
        Letter letter = table.byId(letterId).orElse(null);
        if (letter == null || letter.state() != LetterState.SENT && letter.state() != LetterState.UNCERTAIN) {
            return false;
        }
        if (failed) {
            transactions.durably(() -> table.bounced(letter, letter.state().after(LetterState.Event.BOUNCE), clock.instant(), status, why));
        } else {
            transactions.durably(() -> table.delayed(letterId, why));
        }
        tell(letter);
        return true;
    }

    /** The baskets a letter is about; none where there is no such letter. */
    public List<Long> basketsOf(long letterId) {
        return table.about(List.of(letterId)).stream().map(Letter.About::basketId).toList();
    }

    /** Whether there is a letter. */
    public boolean exists(long letterId) {
        return table.byId(letterId).isPresent();
    }

    /** Whether a letter was made at this millisecond, as its message id says. */
    public boolean hasId(long letterId, long madeAtMillis) {
        return table.byId(letterId).filter(letter -> letter.madeAt().toEpochMilli() == madeAtMillis).isPresent();
    }

    /** The people of a round whom the last letter did not reach. */
    List<Unreachable> unreachable(long roundId) {
        return table.unreachable(roundId);
    }

    /** Says what sending to these people would mean; makes nothing. */
    Sending preview(long roundId, Collection<Long> basketIds, boolean allTheSame) {
        Instant now = clock.instant();
        return sorted(roundId, basketIds, allTheSame, now).sending(0, now.plus(settings.letterHold()));
    }

    /**
     * Writes to these people by hand: an invitation to those not asked yet, else a reminder or an overdue notice; none to whoever owes nothing.
     *
     * @param allTheSame whether also those are written to who are not chased, or who got a letter less than a day ago
     */
    Sending send(long roundId, Collection<Long> basketIds, boolean allTheSame, long account) {
        Instant now = clock.instant();
        Sorted sorted = sorted(roundId, basketIds, allTheSame, now);
        Instant goes = now.plus(settings.letterHold());
        if (sorted.rows().isEmpty()) {
            return sorted.sending(0, goes);
        }
        long batch = transactions.durably(() -> {
            long number = table.nextBatch();
            sorted.rows().forEach((row, kind) -> table.insert(
                    new Letter.Fresh(row.contactId(), kind, goes, account, List.of(new Letter.FreshAbout(row.id(), roundId, null))), number, now));
            return number;
        });
        live.publish(new LiveEvent(LiveEvent.LETTER, roundId, null));
        return sorted.sending(batch, goes);
    }

    /** Makes the letters of a plan. Runs in the caller's transaction. */
    void plan(Collection<Letter.Fresh> fresh, Instant now) {
        long batch = table.nextBatch();
        fresh.forEach(one -> table.insert(one, batch, now));
    }

    /** Stops what still waits of a batch; says how many letters that were. */
    int stopBatch(long batch) {
        List<Letter> waiting = table.waitingOfBatch(batch);
        return (int) waiting.stream().filter(this::stopped).count();
    }

    /**
     * Stops a letter that waits.
     *
     * @throws Problem with status 409 when it does not wait any more
     */
    void stop(long id) {
        if (!stopped(byId(id))) {
            throw Problem.conflict("letter-gone");
        }
    }

    private boolean stopped(Letter letter) {
        if (letter.state() != LetterState.WAITING) {
            return false;
        }
        LetterState to = letter.state().after(LetterState.Event.STOP);
        boolean stopped = transactions.durably(() -> table.settle(letter, to, letter.notBefore(), letter.tries(), BY_HAND, clock.instant())) == 1;
        tell(letter);
        return stopped;
    }

    /**
     * Has a letter that failed, came back, may not have arrived or was stopped go after all.
     *
     * @throws Problem with status 409 when it went or waits
     */
    void sendAgain(long id) {
        Letter letter = byId(id);
        if (!letter.state().undelivered() && letter.state() != LetterState.STOPPED && letter.state() != LetterState.UNCERTAIN) {
            throw Problem.conflict("letter-gone");
        }
        LetterState to = letter.state().after(LetterState.Event.SEND_AGAIN);
        if (transactions.durably(() -> table.settle(letter, to, clock.instant(), 0, "", null)) != 1) {
            throw Problem.conflict("letter-gone");
        }
        tell(letter);
    }

    /** How many letters of each kind about a round went, by the hour. */
    List<LettersWent> went(long roundId) {
        return table.went(roundId);
    }

    /** How many letters did not arrive and still need somebody. */
    int needingSomebody() {
        return table.needingSomebody();
    }

    Letter byId(long id) {
        return table.byId(id).orElseThrow(() -> Problem.notFound("no-letter"));
    }

    /** What decides whether somebody is written to about one basket, without the gap between letters. */
    static Recipient recipient(boolean gathering, Board.Row row, boolean reachable, @Nullable Instant lastLetter) {
        return new Recipient(gathering, row.removed(), row.walkIn(), row.waived(), row.finishedAt(), row.paused(), row.progress() != Progress.NOT_ASKED, reachable, lastLetter);
    }

    /** Tells open desks that something about this letter changed. */
    void tell(Letter letter) {
        if (letter.parcelLinkId() != null) {
            live.publish(LiveEvent.PARCELS);
            live.publish(new LiveEvent(LiveEvent.LETTER, 0, null));
        }
        table.about(List.of(letter.id())).forEach(about -> live.publish(new LiveEvent(LiveEvent.LETTER, about.roundId(), about.basketId())));
    }

    /**
     * Records letters of the past; only the demo does.
     *
     * @param refusal what a mail server said against them; empty when it took them
     */
    public void backdate(Collection<Long> basketIds, LetterKind kind, Instant at, String refusal) {
        transactions.quickly(() -> {
            long batch = table.nextBatch();
            for (Basket basket : baskets.byIds(basketIds)) {
                Letter letter = byId(table.insert(fresh(basket, kind, at, null), batch, at));
                table.settle(letter, LetterState.SENDING, at, 0, "", null);
                Letter going = byId(letter.id());
                LetterWriter.Written written = writer.write(kind, List.of(new LetterWriter.Told(basket.roundId(), board.judgeBasket(basket.id()))), null, "");
                table.words(letter.id(), written.to().address().text(), written.subject(), written.body(), written.language().getLanguage());
                table.settle(going, refusal.isEmpty() ? LetterState.SENT : LetterState.FAILED, at, 1, refusal, at);
            }
            return true;
        });
    }

    /** Who of these gets which letter, and why the others get none. */
    private record Sorted(Map<Board.Row, LetterKind> rows, Map<String, Integer> skipped) {
        Sending sending(long batch, Instant goes) {
            Map<LetterKind, Integer> kinds = new EnumMap<>(LetterKind.class);
            rows.values().forEach(kind -> kinds.merge(kind, 1, Integer::sum));
            return new Sending(batch, kinds, skipped, goes);
        }
    }

    private Sorted sorted(long roundId, Collection<Long> basketIds, boolean allTheSame, Instant now) {
        Board.Judged judged = board.judge(roundId);
        Set<Long> wanted = new HashSet<>(basketIds);
        List<Board.Row> rows = judged.rows().stream().filter(row -> wanted.contains(row.id())).toList();
        if (rows.size() != wanted.size()) {
            throw Problem.notFound("no-basket");
        }
        Set<Long> awaited = new HashSet<>(table.awaited(wanted));
        Map<Long, Instant> last = allTheSame ? Map.of() : table.lastTo(now.minus(common.now().gap()));
        Map<Board.Row, LetterKind> get = new LinkedHashMap<>();
        Map<String, Integer> skipped = new TreeMap<>();
        Duration gap = common.now().gap();
        boolean gathering = judged.round().state() == RoundState.GATHERING;
        for (Board.Row row : rows) {
            Recipient recipient = recipient(gathering, row, true, null).spaced(gap, last.get(row.contactId()));
            String reason = recipient.againstOwing().map(Enum::name).or(() -> awaited.contains(row.id()) ? Optional.of(ON_ITS_WAY) : Optional.empty())
                    .or(() -> allTheSame ? Optional.empty() : recipient.againstByHand(now).map(Enum::name)).orElse(null);
            if (reason != null) {
                skipped.merge(reason, 1, Integer::sum);
            } else {
                get.put(row, row.in(BasketList.HAND_OVER) ? LetterKind.INVITATION : row.deadline().isBefore(now) ? LetterKind.OVERDUE : LetterKind.REMINDER);
            }
        }
        return new Sorted(get, skipped);
    }

    private static Letter.Fresh fresh(Basket basket, LetterKind kind, Instant notBefore, @Nullable Long account) {
        return new Letter.Fresh(basket.contactId(), kind, notBefore, account, List.of(new Letter.FreshAbout(basket.id(), basket.roundId(), null)));
    }
}
