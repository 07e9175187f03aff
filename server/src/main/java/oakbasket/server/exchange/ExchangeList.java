package oakbasket.server.exchange;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import oakbasket.core.exchange.ExchangeAnswer;
import oakbasket.core.exchange.ExchangeState;
import oakbasket.core.exchange.ExchangeTerms;
import oakbasket.core.link.LinkState;
import oakbasket.core.standing.Review;
import oakbasket.server.Settings;
import oakbasket.server.account.AccountService;
import oakbasket.server.basket.Basket;
import oakbasket.server.basket.Baskets;
import oakbasket.server.contact.Contact;
import oakbasket.server.contact.Contacts;
import oakbasket.server.link.Link;
import oakbasket.server.link.Links;
import oakbasket.server.parcel.ExchangeParcels;
import oakbasket.server.parcel.ParcelFile;
import oakbasket.server.parcel.ParcelFiles;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.Known;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Exchanges as the desk lists and shows them. */
@Service
class ExchangeList {

    private static final int PAGE = 100;

    /**
     * An exchange in a list.
     *
     * @param asksFirst whether its person has to accept the invitation first
     * @param lying how many files lie there for its person
     * @param came how many files its person put in
     * @param toCheck how many of those nobody has looked at
     * @param lastCame when the last of them came; null when none did
     */
    @RecordBuilder
    @RecordBuilder.Options(builderMode = RecordBuilder.BuilderMode.STANDARD_AND_STAGED)
    record ListedExchange(long id, String title, long roundId, long basketId, long contactId, String person, String email, ExchangeState state, boolean alone, boolean putIn, boolean see,
            boolean takeAway, boolean asksFirst, int lying, int came, int toCheck, @Nullable Instant lastCame, Instant endsAt, boolean passcode) {
    }

    record ExchangePage(List<ListedExchange> exchanges, boolean more) {
    }

    /**
     * A file that lies there for its person.
     *
     * @param taken how often it was taken away whole
     * @param answersId the received file that it answers; null when none
     * @param answers the name under which that was sent; empty when none
     */
    @RecordBuilder
    @RecordBuilder.Options(builderMode = RecordBuilder.BuilderMode.STANDARD_AND_STAGED)
    record LyingFile(long id, int number, String name, long bytes, long came, ParcelFile.State state, String trouble, String mediaType, boolean unchecked, boolean picked, int taken,
            @Nullable Instant lastAt, @Nullable Long answersId, String answers) {
    }

    /** A file that its person put in. @param answered the names of the files that lie there and answer it */
    record CameFile(long id, String name, String item, long bytes, String mediaType, Instant at, Review review, String reason, List<String> answered) {
    }

    record ExchangeEvent(long id, Instant at, String by, String what, String said) {
    }

    /**
     * An exchange in full.
     *
     * @param path of its page; empty for whoever only reads, and where its link was withdrawn
     * @param linkId the link that is its address; null where it was withdrawn
     * @param answeredAt when its person accepted or declined; null when they did not
     * @param seenAt when its page was first seen; null when it was not
     * @param purgeAt when its files are destroyed, as far as is known now
     */
    @RecordBuilder
    @RecordBuilder.Options(builderMode = RecordBuilder.BuilderMode.STANDARD_AND_STAGED)
    record ExchangeInFull(ListedExchange exchange, int version, String message, String path, @Nullable Long linkId, @Nullable Instant beginsAt, ExchangeAnswer answer, @Nullable Instant answeredAt,
            @Nullable Instant seenAt, Instant purgeAt, String zone, List<LyingFile> files, List<LyingFile> takenBack, List<CameFile> received, List<ExchangeEvent> story) {
    }

    private final ExchangeTable table;
    private final Exchanges exchanges;
    private final ExchangeParcels parcels;
    private final ParcelFiles parcelFiles;
    private final Rounds rounds;
    private final Baskets baskets;
    private final Links links;
    private final ReceivedFiles received;
    private final Contacts contacts;
    private final AccountService accounts;
    private final Settings settings;
    private final Clock clock;

    ExchangeList(ExchangeTable table, Exchanges exchanges, ExchangeParcels parcels, ParcelFiles parcelFiles, Rounds rounds, Baskets baskets, Links links, ReceivedFiles received, Contacts contacts,
            AccountService accounts, Settings settings, Clock clock) {
        this.table = table;
        this.exchanges = exchanges;
        this.parcels = parcels;
        this.parcelFiles = parcelFiles;
        this.rounds = rounds;
        this.baskets = baskets;
        this.links = links;
        this.received = received;
        this.contacts = contacts;
        this.accounts = accounts;
        this.settings = settings;
        this.clock = clock;
    }

    /**
     * A page of exchanges, the newest first.
     *
     * @param find part of a title, name or address; empty for all
     * @param before the last one seen; null for the first page
     */
    ExchangePage page(String find, @Nullable Long before) {
        String words = find.strip().toLowerCase(Locale.ROOT);
        String pattern = "%" + words.replace("!", "!!").replace("%", "!%").replace("_", "!_") + "%";
        List<Exchange> page = table.page(pattern, before == null ? Long.MAX_VALUE : before, PAGE + 1);
        return new ExchangePage(listed(page.subList(0, Math.min(PAGE, page.size()))), page.size() > PAGE);
    }

    private List<ListedExchange> listed(List<Exchange> page) {
        Map<Long, Basket> its = baskets.byIds(page.stream().map(Exchange::basketId).toList()).stream().collect(Collectors.toMap(Basket::id, one -> one));
        Map<Long, Contact> people = contacts.byIds(its.values().stream().map(Basket::contactId).distinct().toList());
        Map<Long, Round> of = rounds.opened(page.stream().map(Exchange::roundId).distinct().toList()).stream().collect(Collectors.toMap(Round::id, one -> one));
        Map<Long, Integer> lying = parcels.counts(page.stream().map(Exchange::id).toList());
        Map<Long, List<ReceivedFile>> came = received.ofBaskets(its.keySet()).stream().filter(ReceivedFile::counts).collect(Collectors.groupingBy(ReceivedFile::basketId));
        Instant now = clock.instant();
        List<ListedExchange> listed = new ArrayList<>();
        for (Exchange exchange : page) {
            Basket basket = Known.in(its, exchange.basketId());
            Contact person = Known.in(people, basket.contactId());
            Round round = Known.in(of, exchange.roundId());
            Link link = links.lastOf(basket.id()).orElseThrow();
            List<ReceivedFile> sent = came.getOrDefault(basket.id(), List.of());
            ExchangeTerms terms = exchange.terms();
            listed.add(ExchangeListListedExchangeBuilder.stagedBuilder().id(exchange.id()).title(round.title()).roundId(round.id()).basketId(basket.id()).contactId(person.id()).person(person.name())
                    .email(person.email()).state(ExchangeState.of(terms, exchange.answer(), LinkState.of(link.terms(), round.state(), now))).alone(exchange.alone()).putIn(terms.putIn()).see(terms.see())
                    .takeAway(terms.takeAway()).asksFirst(terms.asksFirst()).lying(lying.getOrDefault(exchange.id(), 0)).came(sent.size())
                    .toCheck((int) sent.stream().filter(file -> file.review() == Review.NONE).count()).lastCame(sent.stream().map(ReceivedFile::receivedAt).max(Instant::compareTo).orElse(null))
                    .endsAt(link.terms().window().end()).passcode(link.passcodeHash() != null).build());
        }
        return listed;
    }

    /** An exchange with everything known of it. */
    ExchangeInFull inFull(Exchange exchange) {
        ListedExchange listed = listed(List.of(exchange)).get(0);
        Round round = rounds.opened(exchange.roundId());
        Link link = links.ofBasket(exchange.basketId()).orElse(null);
        List<ExchangeParcels.Lying> lying = parcels.lying(exchange.id(), exchange.wayId());
        Map<Long, String> items = rounds.items(round.id()).stream().collect(Collectors.toMap(item -> item.id(), item -> item.spec().title()));
        Map<Long, List<String>> answered = lying.stream().filter(one -> one.file().answersId() != null)
                .collect(Collectors.groupingBy(one -> Objects.requireNonNull(one.file().answersId()), Collectors.mapping(one -> one.file().fileName(), Collectors.toList())));
        List<ExchangeParcels.Done> story = parcels.story(exchange.id());
        Map<Long, String> by = accounts.names(story.stream().map(ExchangeParcels.Done::accountId).filter(Objects::nonNull).distinct().toList());
        return ExchangeListExchangeInFullBuilder.stagedBuilder().exchange(listed).version(exchange.version()).message(round.note())
                .path(link == null || Acting.readsOnly() ? "" : links.path(link)).linkId(link == null ? null : link.id()).beginsAt(link == null ? null : link.terms().window().beginsAt())
                .answer(exchange.answer()).answeredAt(exchange.answeredAt()).seenAt(baskets.byId(exchange.basketId()).openedAt()).purgeAt(exchanges.purgeAt(exchange)).zone(settings.zone().getId())
                .files(lying.stream().map(ExchangeList::lying).toList())
                .takenBack(parcelFiles.takenBack(exchange.id()).stream().map(file -> lying(new ExchangeParcels.Lying(file, 0, null))).toList())
                .received(received.ofBasket(exchange.basketId()).stream().filter(ReceivedFile::counts).map(file -> new CameFile(file.id(), file.originalName(), items.getOrDefault(file.itemId(), ""),
                        file.sizeBytes(), file.mediaType(), file.receivedAt(), file.review(), file.reviewReason(), answered.getOrDefault(file.id(), List.of()))).toList())
                .story(story.stream().map(done -> new ExchangeEvent(done.id(), done.at(), done.accountId() == null ? "" : by.getOrDefault(done.accountId(), ""), done.what(), done.said())).toList()).build();
    }

    private static LyingFile lying(ExchangeParcels.Lying one) {
        ParcelFile file = one.file();
        return ExchangeListLyingFileBuilder.stagedBuilder().id(file.id()).number(file.number()).name(file.fileName()).bytes(file.sizeBytes()).came(file.offsetBytes()).state(file.state())
                .trouble(file.trouble()).mediaType(file.mediaType()).unchecked(file.unchecked()).picked(file.receivedFileId() != null).taken(one.taken()).lastAt(one.lastAt()).answersId(file.answersId())
                .answers(file.answers()).build();
    }
}
