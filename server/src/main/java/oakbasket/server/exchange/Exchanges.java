package oakbasket.server.exchange;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import oakbasket.core.compose.RoundPlan;
import oakbasket.core.compose.RoundSheet;
import oakbasket.core.compose.RoundSheetBuilder;
import oakbasket.core.deadline.WorkingDays;
import oakbasket.core.exchange.ExchangeAnswer;
import oakbasket.core.exchange.ExchangeCheck;
import oakbasket.core.exchange.ExchangeTerms;
import oakbasket.core.fault.Fault;
import oakbasket.core.identity.Person;
import oakbasket.core.link.LinkState;
import oakbasket.core.link.LinkWindow;
import oakbasket.core.round.ItemSpec;
import oakbasket.server.Settings;
import oakbasket.server.basket.Basket;
import oakbasket.server.basket.Baskets;
import oakbasket.server.link.Link;
import oakbasket.server.link.Links;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.opening.Opening;
import oakbasket.server.parcel.ExchangeParcels;
import oakbasket.server.parcel.ParcelFiles;
import oakbasket.server.problem.Problem;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Drafts;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.Transactions;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/**
 * Makes exchanges and changes what may be done there. What their people put in comes in like everything that is sent: into a basket, by the rules of filing, and with a receipt.
 */
@Service
public class Exchanges {

    /**
     * What was typed of a new exchange.
     *
     * @param person whose place it is; null where {@code ofPerson} says what is wrong with it
     * @param item what its person puts in, in the office's words; empty for the usual ones
     * @param passcode empty for none
     * @param name the readable part of its address; empty for none
     * @param byLetter whether its person is written to at once
     */
    record Sheet(String title, String message, @Nullable Person person, List<Fault> ofPerson, String item, ExchangeTerms terms, LinkWindow window, String passcode, String name, boolean byLetter) {
    }

    /** Nothing is due there, so the day by which a round has to name something lies behind the longest life of a link. */
    private static final int DEADLINE_DAYS = 365;
    private static final int MOST_MEBIBYTES = 10 * 1024;
    private static final String FOLDERS = "{round}/{person}";
    private static final String NAMES = "{received:yyyy-MM-dd} {original}{ext}";
    private static final Logger LOG = LoggerFactory.getLogger(Exchanges.class);

    private final ExchangeTable table;
    private final ExchangeParcels parcels;
    private final ParcelFiles files;
    private final Drafts drafts;
    private final Opening opening;
    private final Rounds rounds;
    private final Baskets baskets;
    private final Links links;
    private final ReceivedFiles received;
    private final Transactions transactions;
    private final ApplicationEventPublisher events;
    private final LiveHub live;
    private final Words words;
    private final Settings settings;
    private final Clock clock;

    Exchanges(ExchangeTable table, ExchangeParcels parcels, ParcelFiles files, Drafts drafts, Opening opening, Rounds rounds, Baskets baskets, Links links, ReceivedFiles received,
            Transactions transactions, ApplicationEventPublisher events, LiveHub live, Words words, Settings settings, Clock clock) {
        this.table = table;
        this.parcels = parcels;
        this.files = files;
        this.drafts = drafts;
        this.opening = opening;
        this.rounds = rounds;
        this.baskets = baskets;
        this.links = links;
        this.received = received;
        this.transactions = transactions;
        this.events = events;
        this.live = live;
        this.words = words;
        this.settings = settings;
        this.clock = clock;
    }

    /** An exchange, or 404. */
    public Exchange byId(long id) {
        return table.byId(id).orElseThrow(() -> Problem.notFound("no-exchange"));
    }

    /** The exchange of a basket; empty where papers go in one direction only. */
    public Optional<Exchange> ofBasket(long basket) {
        return table.ofBasket(basket);
    }

    /**
     * Makes a place of its own for somebody.
     *
     * @throws Problem with status 422 naming fields
     */
    long make(Sheet sheet, long account) {
        Instant now = clock.instant();
        List<Fault> faults = new ArrayList<>(sheet.ofPerson());
        faults.addAll(ExchangeCheck.faults(new ExchangeCheck.Typed(sheet.title(), sheet.message(), sheet.terms(), sheet.window(), sheet.passcode()), now));
        if (sheet.item().length() > ItemSpec.LONGEST_TITLE) {
            faults.add(Fault.of("item", "longest", ItemSpec.LONGEST_TITLE));
        }
        Person person = sheet.person();
        if (person == null || !faults.isEmpty()) {
            throw Problem.fields(faults);
        }
        RoundSheet asked = roundOf(sheet, person, LocalDate.ofInstant(now, settings.zone()));
        RoundPlan plan = drafts.plan(asked);
        String passcode = links.passcodeHash(sheet.passcode());
        long made = transactions.durably(() -> {
            long round = drafts.beginOfExchange(asked, account);
            long basket = opening.open(round, rounds.head(round).version(), asked, plan).get(0);
            links.begin(basket, sheet.window(), sheet.name(), passcode);
            Exchange exchange = made(round, baskets.byId(basket), sheet.title().strip(), sheet.terms(), true, account);
            if (sheet.byLetter()) {
                write(exchange, account);
            }
            return exchange.id();
        });
        live.publish(LiveEvent.PARCELS);
        return made;
    }

    private RoundSheet roundOf(Sheet sheet, Person person, LocalDate today) {
        String item = sheet.item().isBlank() ? words.of("exchange.item") : sheet.item().strip();
        return RoundSheetBuilder.builder().title(sheet.title().strip()).note(sheet.message().strip())
                .items(List.of(RoundSheet.SheetItem.of(item, "", false, 1, ExchangeCheck.MOST_FILES_IN, List.of(), MOST_MEBIBYTES)))
                .people(List.of(new RoundSheet.SheetPerson(person.name(), person.address().text()))).deadlineDate(today.plusDays(DEADLINE_DAYS).toString()).zone(settings.zone().getId())
                .folderPattern(FOLDERS).namePattern(NAMES)
                .letters(new RoundSheet.SheetLetters(false, true, false, true, false, List.of(), 5, 0, WorkingDays.Shift.EARLIER)).build();
    }

    /** Has papers go in both directions in the basket of somebody who is asked in a round. @return the one that is there already, where there is one */
    long makeOn(long basketId, ExchangeTerms terms, long account) {
        Optional<Exchange> there = table.ofBasket(basketId);
        if (there.isPresent()) {
            return there.get().id();
        }
        Basket basket = baskets.byId(basketId);
        Round round = rounds.opened(basket.roundId());
        check(terms);
        long made = transactions.durably(() -> {
            if (links.ofBasket(basketId).isEmpty()) {
                throw Problem.conflict("exchange-without-link");
            }
            return made(round.id(), basket, round.title(), terms, false, account).id();
        });
        live.publish(LiveEvent.PARCELS);
        return made;
    }

    private Exchange made(long round, Basket basket, String title, ExchangeTerms terms, boolean alone, long account) {
        ExchangeParcels.Made made = parcels.make(account, round, title, basket.contactId());
        Exchange exchange = new Exchange(made.parcel(), round, basket.id(), made.way(), alone, terms, ExchangeAnswer.NONE, null, 1);
        table.insert(exchange);
        links.takeIn(basket.id(), exchange.rights().putIn());
        return exchange;
    }

    private static void check(ExchangeTerms terms) {
        List<Fault> faults = ExchangeCheck.faults(terms);
        if (!faults.isEmpty()) {
            throw Problem.fields(faults);
        }
    }

    /** Changes what may be done there; it holds at once, also in the middle of what is being taken away. */
    void change(long id, int version, ExchangeTerms terms, long account) {
        Exchange before = byId(id);
        check(terms);
        transactions.durably(() -> {
            if (table.change(id, version, terms) != 1) {
                throw Problem.conflict("changed-elsewhere");
            }
            parcels.noteRights(id, account);
            links.takeIn(before.basketId(), byId(id).rights().putIn());
        });
        tell(before);
    }

    /**
     * Writes to its person what lies there for them.
     *
     * @throws Problem with status 409 when its link does not admit
     */
    void write(long id, long account) {
        Exchange exchange = byId(id);
        LinkState state = linkState(exchange);
        if (state != LinkState.LIVE && state != LinkState.WAITING) {
            throw Problem.conflict("exchange-not-live");
        }
        transactions.durably(() -> write(exchange, account));
        tell(exchange);
    }

    private void write(Exchange exchange, long account) {
        parcels.noteWritten(exchange.id(), account);
        events.publishEvent(new ExchangeNews(exchange.basketId(), account));
    }

    /** How its link stands; one that was taken away counts as withdrawn. */
    public LinkState linkState(Exchange exchange) {
        Round round = rounds.opened(exchange.roundId());
        return links.ofBasket(exchange.basketId()).map(link -> LinkState.of(link.terms(), round.state(), clock.instant())).orElse(LinkState.WITHDRAWN);
    }

    /**
     * Takes in what its person says to the invitation.
     *
     * @throws Problem with status 409 when nothing is asked, or it was said already
     */
    public void answer(Exchange exchange, boolean accepts) {
        ExchangeAnswer said = accepts ? ExchangeAnswer.ACCEPTED : ExchangeAnswer.DECLINED;
        if (!exchange.terms().asksFirst() || !exchange.answer().mayBecome(said)) {
            throw Problem.conflict("exchange-answered");
        }
        transactions.durably(() -> {
            if (table.answer(exchange.id(), exchange.answer(), said, clock.instant()) != 1) {
                throw Problem.conflict("exchange-answered");
            }
            parcels.noteAnswer(exchange.id(), said);
            links.takeIn(exchange.basketId(), byId(exchange.id()).rights().putIn());
        });
        tell(exchange);
    }

    /** Puts a file that was taken back there again. */
    void putBack(long id, long file, long account) {
        files.putBack(byId(id).id(), file, account);
    }

    /** Notes that a file that lies there answers one that its person sent, such as a corrected form. */
    void answers(long id, long file, long receivedFile) {
        Exchange exchange = byId(id);
        ReceivedFile sent = received.find(receivedFile).filter(one -> one.basketId() == exchange.basketId()).orElseThrow(() -> Problem.notFound("no-file"));
        files.answers(exchange.id(), file, sent);
    }

    /**
     * Whether files may still be on their way to its person: all of them lie there, they may take them away, and its link was neither paused, withdrawn nor given a new address.
     *
     * @param begun the link as it was when the taking away began
     */
    public boolean mayGoOn(long id, Link begun, List<Long> sent) {
        return table.byId(id).filter(one -> one.rights().takeAway()).flatMap(one -> links.ofBasket(one.basketId())).filter(link -> link.terms().pausedAt() == null && Arrays.equals(link.tokenSealed(), begun.tokenSealed())).isPresent() && files.lie(id, sent);
    }

    private void tell(Exchange exchange) {
        live.publish(LiveEvent.PARCELS);
        live.publish(new LiveEvent(LiveEvent.LINK, exchange.roundId(), exchange.basketId()));
    }

    /** Destroys the files of exchanges that ended a while ago. */
    @Scheduled(initialDelayString = "${oakbasket.purge-first:PT2M}", fixedDelayString = "${oakbasket.purge-every:PT1H}")
    public void purge() {
        Acting.officeDoes(this::purgeNow);
    }

    private void purgeNow() {
        Instant now = clock.instant();
        for (Exchange exchange : table.holding()) {
            Optional<Instant> ended = endedAt(exchange, now);
            if (ended.isPresent() && !now.isBefore(ended.get().plus(ExchangeCheck.KEPT_AFTER_END))) {
                parcels.purge(exchange.id());
                LOG.info("The files of exchange {} were kept for {} days after its end and are destroyed", exchange.id(), ExchangeCheck.KEPT_AFTER_END.toDays());
            }
        }
    }

    /** When it ended; empty while it has not, since a link can be renewed. */
    private Optional<Instant> endedAt(Exchange exchange, Instant now) {
        Instant closed = rounds.opened(exchange.roundId()).closedAt();
        if (closed != null) {
            return Optional.of(closed);
        }
        Link link = links.lastOf(exchange.basketId()).orElseThrow();
        Instant withdrawn = link.terms().withdrawnAt();
        return withdrawn != null ? Optional.of(withdrawn) : Optional.of(link.terms().window().end()).filter(now::isAfter);
    }

    /** The last instant at which its files are there, as far as is known now. */
    Instant purgeAt(Exchange exchange) {
        return endedAt(exchange, clock.instant()).orElseGet(() -> links.lastOf(exchange.basketId()).orElseThrow().terms().window().end()).plus(ExchangeCheck.KEPT_AFTER_END);
    }
}
