package oakbasket.server.tray;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Collectors;
import oakbasket.core.filing.ItemGuess;
import oakbasket.core.filing.PersonGuess;
import oakbasket.core.identity.Identity;
import oakbasket.server.account.AccountService;
import oakbasket.server.basket.Basket;
import oakbasket.server.basket.Baskets;
import oakbasket.server.contact.Contact;
import oakbasket.server.contact.Contacts;
import oakbasket.server.loose.LooseFile;
import oakbasket.server.loose.LooseFiles;
import oakbasket.server.round.Item;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import oakbasket.server.storage.Known;
import oakbasket.server.storage.Roots;
import oakbasket.server.tray.TrayList.Suggestion;
import oakbasket.server.tray.TrayList.TrayEntry;
import oakbasket.server.tray.TrayList.TrayFile;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** What waits in the tray of papers that came without a link, with whose they may be and what, in the rounds that gather. */
@Component
class LooseList {

    private static final int MOST_NAMED = 4;

    private final LooseFiles loose;
    private final Rounds rounds;
    private final Baskets baskets;
    private final Contacts contacts;
    private final AccountService accounts;
    private final Roots roots;
    private final Words words;

    LooseList(LooseFiles loose, Rounds rounds, Baskets baskets, Contacts contacts, AccountService accounts, Roots roots, Words words) {
        this.loose = loose;
        this.rounds = rounds;
        this.baskets = baskets;
        this.contacts = contacts;
        this.accounts = accounts;
        this.roots = roots;
        this.words = words;
    }

    List<TrayEntry> all() {
        List<LooseFile> waiting = loose.open();
        if (waiting.isEmpty()) {
            return List.of();
        }
        Asked asked = asked();
        Map<Long, String> putInBy = accounts.names(waiting.stream().map(LooseFile::accountId).filter(Objects::nonNull).distinct().toList());
        return waiting.stream().map(paper -> entry(paper, asked, putInBy)).toList();
    }

    /** Who is asked in the rounds that gather. */
    private record Asked(Map<Long, Round> rounds, Map<Long, List<Item>> items, Map<Long, List<Basket>> ofContacts, Map<Long, String> names, PersonGuess people) {
    }

    private Asked asked() {
        List<Round> gathering = rounds.gathering().stream().sorted(Comparator.comparing(round -> round.deadline().instant())).toList();
        Map<Long, List<Basket>> ofContacts = new HashMap<>();
        for (Round round : gathering) {
            baskets.ofRound(round.id()).stream().filter(basket -> !basket.removed()).forEach(basket -> ofContacts.computeIfAbsent(basket.contactId(), id -> new ArrayList<>()).add(basket));
        }
        Map<Long, String> names = contacts.byIds(List.copyOf(new HashSet<>(ofContacts.keySet()))).values().stream().collect(Collectors.toMap(Contact::id, Contact::name));
        return new Asked(gathering.stream().collect(Collectors.toMap(Round::id, round -> round)), rounds.itemsOf(gathering.stream().map(Round::id).toList()), ofContacts, names,
                new PersonGuess(names.entrySet().stream().map(one -> new PersonGuess.Person(one.getKey(), one.getValue())).toList()));
    }

    /** Who it may be of; the basket is null where nobody is supposed. */
    private record Supposed(@Nullable Basket basket, Suggestion suggestion) {
    }

    private TrayEntry entry(LooseFile paper, Asked asked, Map<Long, String> putInBy) {
        Long account = paper.accountId();
        String why = paper.cameBy() == LooseFile.Way.MAIL ? words.of("tray.MAIL", paper.fromAddress()) : paper.cameBy() == LooseFile.Way.DISK ? words.of("tray.DISK", roots.words(paper.foundAt())) : words.of("tray.DESK", account == null ? "" : putInBy.getOrDefault(account, ""));
        Supposed supposed = supposed(paper, asked);
        Basket basket = supposed.basket();
        Round round = basket == null ? null : asked.rounds().get(basket.roundId());
        return new TrayEntry("loose-" + paper.id(), TrayList.Cause.OTHER_WAY, 0, round == null ? 0 : round.id(), round == null ? "" : round.title(), 0, "", "", Identity.PUT_IN, paper.cameAt(), why,
                List.of(new TrayFile(paper.id(), paper.fileName(), paper.sizeBytes(), paper.mediaType(), 0, "")), paper.cameBy() == LooseFile.Way.DISK, supposed.suggestion());
    }

    private Supposed supposed(LooseFile paper, Asked asked) {
        Optional<Basket> mailed = asked.ofContacts().values().stream().flatMap(List::stream).filter(one -> Objects.equals(paper.basketHint(), one.id())).findFirst();
        if (mailed.isPresent()) {
            return suggested(mailed.get(), asked.names().getOrDefault(mailed.get().contactId(), ""), words.of("tray.person-mail"), paper, asked);
        }
        Optional<PersonGuess.Guess> person = asked.people().of(paper.foundAt() + " " + paper.fileName());
        List<Basket> baskets = person.map(guess -> asked.ofContacts().getOrDefault(guess.person(), List.of())).orElse(List.of());
        // Who is asked in several rounds is asked for this where an item is called like it.
        Basket basket = baskets.stream().max(Comparator.comparingInt(one -> guess(paper, one, asked).map(guess -> guess.words().size()).orElse(-1))).orElse(null);
        String personWhy = person.map(guess -> words.of("tray.person-words", String.join(" ", guess.words()))).orElse(words.of("tray.person-unknown"));
        return suggested(basket, person.map(guess -> asked.names().getOrDefault(guess.person(), "")).orElse(""), personWhy, paper, asked);
    }

    private Supposed suggested(@Nullable Basket basket, String name, String personWhy, LooseFile paper, Asked asked) {
        ItemGuess.@Nullable Guess item = basket == null ? null : guess(paper, basket, asked).orElse(null);
        if (item != null && item.alike().size() > 1) {
            // A tie is no suggestion: whoever accepts what is suggested would have chosen the first by chance.
            String both = Known.in(asked.items(), Objects.requireNonNull(basket).roundId()).stream().filter(one -> item.alike().contains(one.id())).map(one -> one.spec().title()).limit(MOST_NAMED).collect(Collectors.joining(", ")) + (item.alike().size() > MOST_NAMED ? " …" : "");
            return new Supposed(basket, new Suggestion(basket.id(), name, personWhy, null, "", words.of("tray.item-tie", both)));
        }
        String title = item == null ? "" : Known.in(asked.items(), Objects.requireNonNull(basket).roundId()).stream().filter(one -> one.id() == item.item()).map(one -> one.spec().title()).findFirst().orElse("");
        String itemWhy = item == null ? words.of("tray.item-unknown") : item.words().isEmpty() ? words.of("tray.item-kind") : words.of("tray.item-words", String.join(", ", item.words()));
        return new Supposed(basket, new Suggestion(basket == null ? null : basket.id(), name, personWhy, item == null ? null : item.item(), title, itemWhy));
    }

    private static Optional<ItemGuess.Guess> guess(LooseFile paper, Basket basket, Asked asked) {
        return ItemGuess.of(paper.fileName(), asked.items().getOrDefault(basket.roundId(), List.of()).stream().map(item -> new ItemGuess.Item(item.id(), item.spec().title(), item.spec().kinds())).toList());
    }
}
