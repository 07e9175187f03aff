package oakbasket.server.handout;

import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.time.format.FormatStyle;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import oakbasket.core.link.Passcode;
import oakbasket.server.account.AccountService;
import oakbasket.server.basket.Basket;
import oakbasket.server.basket.Baskets;
import oakbasket.server.brand.Brand;
import oakbasket.server.contact.Contact;
import oakbasket.server.contact.Contacts;
import oakbasket.server.link.Link;
import oakbasket.server.link.Links;
import oakbasket.server.problem.Problem;
import oakbasket.server.round.Item;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import oakbasket.server.storage.Known;
import oakbasket.server.words.SenderLanguages;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Sheets of paper that carry links, one each. */
@Service
class Handouts {

    /** How many sheets one PDF holds at most. */
    static final int MOST_SHEETS = 500;

    private final Links links;
    private final Rounds rounds;
    private final Baskets baskets;
    private final Contacts contacts;
    private final AccountService accounts;
    private final PdfMaker pdf;
    private final Words words;
    private final Brand brand;

    Handouts(Links links, Rounds rounds, Baskets baskets, Contacts contacts, AccountService accounts, PdfMaker pdf, Words words, Brand brand) {
        this.brand = brand;
        this.links = links;
        this.rounds = rounds;
        this.baskets = baskets;
        this.contacts = contacts;
        this.accounts = accounts;
        this.pdf = pdf;
        this.words = words;
    }

    /**
     * The sheets of these links as one PDF, in the order of people's names; withdrawn links get none.
     *
     * @param passcode to be torn off; empty for none. It has to be that of every link of them that asks for one
     * @param address what addresses begin with
     */
    byte[] of(List<Long> ids, String passcode, String address) {
        List<Link> wanted = links.byIds(ids).stream().filter(link -> link.terms().withdrawnAt() == null).toList();
        if (wanted.isEmpty()) {
            throw Problem.refused("handout-none");
        }
        check(wanted, passcode);
        Map<Long, Basket> opened = baskets.byIds(wanted.stream().map(Link::basketId).filter(Objects::nonNull).toList()).stream().collect(Collectors.toMap(Basket::id, basket -> basket));
        Map<Long, Contact> people = contacts.byIds(opened.values().stream().map(Basket::contactId).distinct().toList());
        Map<Long, Round> roundsOf = new HashMap<>();
        Map<Long, List<Item>> itemsOf = new HashMap<>();
        List<HandoutPage.Sheet> sheets = new ArrayList<>();
        HandoutPage.SheetLook look = HandoutPage.look(brand);
        for (Link link : wanted) {
            Round round = roundsOf.computeIfAbsent(link.roundId(), rounds::opened);
            Long basketId = link.basketId();
            Basket basket = basketId == null ? null : Known.in(opened, basketId);
            List<HandoutPage.Line> lines = itemsOf.computeIfAbsent(round.id(), rounds::items).stream().filter(item -> basket == null || owed(basket, item))
                    .map(item -> new HandoutPage.Line(item.spec().title(), item.spec().help(), item.spec().required())).toList();
            Contact person = basket == null ? null : Known.in(people, basket.contactId());
            Words spoken = words.in(SenderLanguages.ofTag(person == null ? "" : person.language()).orElse(words.language()));
            sheets.add(new HandoutPage.Sheet(spoken, brand.name(), accounts.current(round.askedBy()).name(), round.title(), person == null ? "" : person.name(),
                    round.note(), deadline(round, basket, spoken), lines, address + links.path(link), false, link.passcodeHash() != null, link.passcodeHash() == null ? "" : passcode, look));
        }
        sheets.sort(java.util.Comparator.comparing(HandoutPage.Sheet::person, String.CASE_INSENSITIVE_ORDER));
        return pdf.make(HandoutPage.of(sheets));
    }

    private static boolean owed(Basket basket, Item item) {
        return (basket.walkIn() || basket.owes(item.owedBy())) && !basket.allowance().waivedItems().containsKey(item.id());
    }

    /** A wrong passcode on paper would send everybody away; links that were given theirs together share one hash, and few different ones are looked at. */
    private void check(List<Link> wanted, String passcode) {
        Passcode.fault(passcode).ifPresent(fault -> {
            throw Problem.refused("fields").at(fault);
        });
        if (!passcode.isEmpty() && !links.allHavePasscode(wanted, passcode)) {
            throw Problem.field("passcode", "handout-passcode");
        }
    }

    private static String deadline(Round round, @Nullable Basket basket, Words words) {
        Instant deadline = round.terms(basket == null ? null : basket.allowance().extension()).effective();
        boolean dateOnly = basket != null && basket.allowance().extension() != null || round.deadline().dateOnly();
        ZoneId zone = round.zone();
        DateTimeFormatter day = DateTimeFormatter.ofLocalizedDate(FormatStyle.FULL).withLocale(dates(words)).withZone(zone);
        return dateOnly ? day.format(deadline) : moment(deadline, zone, words);
    }

    /** A moment in words, in the office's time. */
    static String moment(Instant at, ZoneId zone, Words words) {
        return words.of("handout.at", DateTimeFormatter.ofLocalizedDate(FormatStyle.FULL).withLocale(dates(words)).withZone(zone).format(at),
                DateTimeFormatter.ofPattern("HH:mm", dates(words)).withZone(zone).format(at), zone.getId().replaceAll(".*/", "").replace('_', ' '));
    }

    /** English dates as the office writes them: the day before the month. */
    private static java.util.Locale dates(Words words) {
        return words.language().getLanguage().equals("en") ? java.util.Locale.UK : words.language();
    }
}
