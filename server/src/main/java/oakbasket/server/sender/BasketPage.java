package oakbasket.server.sender;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.time.Clock;
import java.time.Instant;
import java.util.HexFormat;
import java.util.List;
import oakbasket.core.allowance.Allowance;
import oakbasket.core.arrival.Archives;
import oakbasket.core.filekind.FileKind;
import oakbasket.core.standing.ItemStanding;
import oakbasket.core.standing.ItemState;
import oakbasket.core.standing.Review;
import oakbasket.server.account.AccountService;
import oakbasket.server.basket.Basket;
import oakbasket.server.basket.Baskets;
import oakbasket.server.brand.Brand;
import oakbasket.server.contact.Contact;
import oakbasket.server.contact.Contacts;
import oakbasket.server.exchangepage.ExchangePage;
import oakbasket.server.form.Forms;
import oakbasket.server.held.HeldFile;
import oakbasket.server.held.HeldFiles;
import oakbasket.server.link.Link;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Drafts;
import oakbasket.server.round.Item;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import oakbasket.server.security.Hash;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import tools.jackson.databind.json.JsonMapper;

/** What a sender may see: what is asked, by whom, by when, and of their own sending only how much came and when. */
@Service
class BasketPage {

    /**
     * An item as the sender sees it.
     *
     * @param number stands for the item in everything the sender sends
     * @param kinds the accepted kinds; empty means any
     * @param endings the name endings of these kinds
     * @param arrived how many files that count have come
     * @param lastArrival when the last one came; null when none
     * @param returnedBecause why the office sent it back; null when it did not
     * @param opensArchives whether a ZIP is opened into its files
     * @param malware how many files were received and turned out to hold malware later
     * @param form the name of the blank form to take along; null when there is none
     */
    @RecordBuilder
    @RecordBuilder.Options(builderMode = RecordBuilder.BuilderMode.STANDARD_AND_STAGED)
    record PageItem(int number, String title, String help, boolean required, int minFiles, int maxFiles, List<FileKind> kinds, List<String> endings, long maxBytes,
            int arrived, @Nullable Instant lastArrival, boolean excused, boolean done, @Nullable String returnedBecause,
            boolean opensArchives, int malware, @Nullable String form) {
    }

    /**
     * The page.
     *
     * @param person the name of the one asked; null on an open link
     * @param until when the link ends at the latest; null for a rehearsal
     * @param place where papers go in both directions; null where they do not
     * @param mark another one whenever something of the page is another
     * @param language the language tag known of that person; empty when none is known
     */
    @RecordBuilder
    @RecordBuilder.Options(builderMode = RecordBuilder.BuilderMode.STANDARD_AND_STAGED)
    record Page(String office, String askedBy, String title, String note, @Nullable String person, String language, boolean open, Instant deadline, String zone, boolean dateOnly,
            boolean late, @Nullable Instant until, List<PageItem> items, ExchangePage.@Nullable ExchangePlace place, String mark) {
    }

    private static final int MARK_BYTES = 9;

    private final Rounds rounds;
    private final Baskets baskets;
    private final ReceivedFiles files;
    private final HeldFiles held;
    private final Contacts contacts;
    private final AccountService accounts;
    private final Forms forms;
    private final Words words;
    private final Brand brand;
    private final Clock clock;
    private final ExchangePage exchanges;
    private final JsonMapper json;

    BasketPage(Rounds rounds, Baskets baskets, ReceivedFiles files, HeldFiles held, Contacts contacts, AccountService accounts, Forms forms, Words words, Clock clock, Brand brand,
            ExchangePage exchanges, JsonMapper json) {
        this.exchanges = exchanges;
        this.json = json;
        this.brand = brand;
        this.rounds = rounds;
        this.baskets = baskets;
        this.files = files;
        this.held = held;
        this.contacts = contacts;
        this.accounts = accounts;
        this.forms = forms;
        this.words = words;
        this.clock = clock;
    }

    /** The page behind a link. */
    Page behind(Link link, Round round) {
        Long basketId = link.basketId();
        List<Item> items = rounds.items(round.id());
        Page page = basketId == null ? page(round, items, null, List.of(), link) : page(round, items, baskets.byId(basketId), files.ofBasket(basketId), link);
        return page.place() == null ? page : BasketPagePageBuilder.builder(page).mark(HexFormat.of().formatHex(Hash.sha256().digest(json.writeValueAsBytes(page)), 0, MARK_BYTES)).build();
    }

    /** The page as a sender with nothing sent yet will see it. */
    Page rehearsal(Drafts.Rehearsed rehearsed) {
        Page page = page(rehearsed.round(), rehearsed.items(), null, List.of(), null);
        return rehearsed.openOnly() ? page : BasketPagePageBuilder.builder(page).person(rehearsed.person().isEmpty() ? words.of("example.person") : rehearsed.person()).open(false).build();
    }

    private Page page(Round round, List<Item> items, @Nullable Basket basket, List<ReceivedFile> received, @Nullable Link link) {
        Long mostBytes = link == null ? null : link.terms().limits().fileBytes();
        ExchangePage.ExchangePlace place = link == null ? null : exchanges.behind(link);
        // Whoever may not put anything in is asked for nothing.
        List<Item> shown = place == null || place.putIn() ? items : List.of();
        Allowance allowance = basket == null ? Allowance.NONE : basket.allowance();
        Contact asked = basket == null ? null : contacts.byId(basket.contactId());
        List<HeldFile> bad = basket == null ? List.of() : held.ownOf(basket.id()).stream().filter(file -> !file.waits() && file.outcome() != HeldFile.Outcome.RELEASED).toList();
        Instant deadline = round.terms(allowance.extension()).effective();
        boolean dateOnly = allowance.extension() != null || round.deadline().dateOnly();
        return BasketPagePageBuilder.stagedBuilder().office(brand.name()).askedBy(accounts.current(round.askedBy()).name()).title(round.title())
                .note(round.note()).person(asked == null ? null : asked.name()).language(asked == null ? "" : asked.language()).open(basket == null).deadline(deadline)
                .zone(round.zone().getId()).dateOnly(dateOnly).late(clock.instant().isAfter(deadline)).until(link == null ? null : link.terms().window().end())
                .items(shown.stream().filter(item -> basket == null || basket.walkIn() || basket.owes(item.owedBy())).map(item -> item(item, mostBytes, allowance.waivedItems().get(item.id()), allowance.waivedAt() != null, received.stream().filter(file -> file.itemId() == item.id()).toList(),
                        (int) bad.stream().filter(file -> file.itemId() == item.id()).count())).toList())
                .place(place).mark("").build();
    }

    private PageItem item(Item item, @Nullable Long mostBytes, @Nullable Instant waived, boolean excusedAll, List<ReceivedFile> received, int malware) {
        ItemState state = ItemState.of(item.spec().required(), item.spec().minFiles(), waived, received.stream().map(ReceivedFile::fact).toList());
        List<ReceivedFile> counting = received.stream().filter(file -> file.review() != Review.RETURNED).toList();
        String because = state.standing() != ItemStanding.RETURNED ? null
                : received.stream().filter(file -> file.review() == Review.RETURNED).reduce((first, second) -> second).map(ReceivedFile::reviewReason).orElse("");
        return BasketPagePageItemBuilder.stagedBuilder().number(item.number()).title(item.spec().title()).help(item.spec().help())
                .required(item.spec().required()).minFiles(item.spec().minFiles()).maxFiles(item.spec().maxFiles())
                .kinds(item.spec().kinds().stream().sorted().toList()).endings(item.spec().kinds().stream().flatMap(kind -> kind.endings().stream()).sorted().toList()).maxBytes(mostBytes == null ? item.spec().maxBytes() : Math.min(mostBytes, item.spec().maxBytes()))
                .arrived(state.files()).lastArrival(counting.isEmpty() ? null : counting.get(counting.size() - 1).receivedAt())
                .excused(excusedAll || waived != null).done(state.standing().satisfied()).returnedBecause(because)
                .opensArchives(item.spec().arrival().archives() != Archives.AS_SENT).malware(state.standing().satisfied() ? 0 : malware)
                .form(item.formId() == null ? null : forms.name(item.formId())).build();
    }
}
