package oakbasket.server.post;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import oakbasket.core.letter.LetterKind;
import oakbasket.core.letter.LetterState;
import oakbasket.server.account.AccountService;
import oakbasket.server.contact.Contact;
import oakbasket.server.contact.Contacts;
import oakbasket.server.parcel.Parcel;
import oakbasket.server.parcel.ParcelLink;
import oakbasket.server.parcel.ParcelLinks;
import oakbasket.server.parcel.Parcels;
import oakbasket.server.round.Rounds;
import oakbasket.server.storage.Known;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Letters as the desk lists and shows them. */
@Service
class LetterList {

    private static final int PAGE = 100;
    private static final int MOST_FOUND = 500;

    /** A round that a letter is about. */
    record LetterAbout(long basketId, long roundId, String round) {
    }

    /**
     * A letter in a list.
     *
     * @param at when it went, was given up or stopped; while it waits, when it goes
     * @param by the coordinator who sent it; null when the plan of a round did
     * @param trouble why it did not go, or not yet: the mail server's words, or the name of a reason
     * @param parcelId the parcel it is about, and {@code parcel} its title; null where it is about rounds
     * @param openedAt when the link in it was first opened; null when it was not, as far as is known
     */
    @RecordBuilder
    @RecordBuilder.Options(builderMode = RecordBuilder.BuilderMode.STANDARD_AND_STAGED)
    record ListedLetter(long id, LetterKind kind, LetterState state, long contactId, String name, String address, List<LetterAbout> about, Instant madeAt, Instant at, @Nullable String by,
            String subject, int tries, String trouble, @Nullable Instant openedAt, @Nullable Long parcelId, @Nullable String parcel) {
    }

    record LetterPage(List<ListedLetter> letters, boolean more, Map<LetterState, Integer> counts) {
    }

    /** A letter with its words; of one that has not gone yet, those it would have now. */
    record LetterInFull(ListedLetter letter, String subject, String body, String language) {
    }

    private final LetterTable table;
    private final Letters letters;
    private final Postman postman;
    private final LinkAddress links;
    private final Contacts contacts;
    private final Rounds rounds;
    private final Parcels parcels;
    private final ParcelLinks parcelLinks;
    private final AccountService accounts;

    LetterList(LetterTable table, Letters letters, Postman postman, LinkAddress links, Contacts contacts, Rounds rounds, Parcels parcels, ParcelLinks parcelLinks, AccountService accounts) {
        this.table = table;
        this.letters = letters;
        this.postman = postman;
        this.links = links;
        this.contacts = contacts;
        this.rounds = rounds;
        this.parcels = parcels;
        this.parcelLinks = parcelLinks;
        this.accounts = accounts;
    }

    /**
     * A page of letters, the newest first.
     *
     * @param states which letters; none for all
     * @param find part of a name, address, organisation or reference; empty for all
     * @param before the last one seen; null for the first page
     */
    LetterPage page(List<LetterState> states, String find, @Nullable Long round, @Nullable Long before) {
        Collection<Long> found = find.isBlank() ? null : contacts.find(find.strip(), MOST_FOUND).stream().map(Contact::id).toList();
        List<Letter> page = table.page(new LetterTable.Wanted(states, found, round), before == null ? Long.MAX_VALUE : before, PAGE + 1);
        return new LetterPage(listed(page.subList(0, Math.min(PAGE, page.size()))), page.size() > PAGE, table.counts());
    }

    LetterInFull inFull(long id) {
        Letter letter = letters.byId(id);
        ListedLetter listed = listed(List.of(letter)).get(0);
        String kept = table.body(id);
        if (!kept.isEmpty() && letter.state() != LetterState.WAITING) {
            return new LetterInFull(listed, letter.subject(), links.open(kept, Locale.forLanguageTag(letter.language())), letter.language());
        }
        LetterWriter.Written written = postman.asOfNow(letter);
        return new LetterInFull(listed, written.subject(), links.open(written.body(), written.language()), written.language().getLanguage());
    }

    /** Every letter to a contact, also from before contacts were merged. */
    List<ListedLetter> toContact(long id) {
        contacts.byId(id);
        return listed(table.page(new LetterTable.Wanted(List.of(), contacts.withMerged(id), null), Long.MAX_VALUE, MOST_FOUND));
    }

    /** Every letter about a basket. */
    List<ListedLetter> ofBasket(long basketId) {
        return listed(table.ofBasket(basketId));
    }

    /** Every letter about a parcel. */
    List<ListedLetter> ofParcel(long parcelId) {
        return listed(table.ofParcelLinks(parcelLinks.ofParcels(List.of(parcels.byId(parcelId).id())).stream().map(ParcelLink::id).toList()));
    }

    /** The parcels that letters are about, by the links they bring. */
    private Map<Long, Parcel> parcelsOf(List<Letter> page) {
        List<ParcelLink> brought = parcelLinks.byIds(page.stream().map(Letter::parcelLinkId).filter(Objects::nonNull).toList());
        Map<Long, Parcel> byId = parcels.byIds(brought.stream().map(ParcelLink::parcelId).distinct().toList()).stream().collect(Collectors.toMap(Parcel::id, one -> one));
        return brought.stream().collect(Collectors.toMap(ParcelLink::id, link -> Known.in(byId, link.parcelId())));
    }

    private List<ListedLetter> listed(List<Letter> page) {
        Map<Long, Contact> people = contacts.byIds(page.stream().map(Letter::contactId).distinct().toList());
        Map<Long, String> titles = rounds.all().stream().collect(Collectors.toMap(Rounds.Head::id, Rounds.Head::title));
        Map<Long, List<LetterAbout>> about = table.about(page.stream().map(Letter::id).toList()).stream().collect(Collectors.groupingBy(Letter.About::letterId,
                Collectors.mapping(one -> new LetterAbout(one.basketId(), one.roundId(), titles.getOrDefault(one.roundId(), "")), Collectors.toList())));
        Map<Long, String> senders = accounts.names(page.stream().map(Letter::accountId).filter(Objects::nonNull).distinct().toList());
        Map<Long, Parcel> parcelOf = parcelsOf(page);
        List<ListedLetter> listed = new ArrayList<>();
        for (Letter letter : page) {
            Contact person = Known.in(people, letter.contactId());
            Long account = letter.accountId();
            Instant settled = letter.settledAt();
            Parcel parcel = letter.parcelLinkId() == null ? null : Known.in(parcelOf, letter.parcelLinkId());
            listed.add(LetterListListedLetterBuilder.stagedBuilder().id(letter.id()).kind(letter.kind()).state(letter.state())
                    .contactId(letter.contactId()).name(person.name()).address(letter.toAddress().isEmpty() ? person.email() : letter.toAddress())
                    .about(about.getOrDefault(letter.id(), List.of())).madeAt(letter.madeAt()).at(letter.bouncedAt() != null ? letter.bouncedAt() : settled == null ? letter.notBefore() : settled)
                    .by(account == null ? null : senders.get(account)).subject(letter.subject()).tries(letter.tries()).trouble(letter.trouble()).openedAt(letter.openedAt())
                    .parcelId(parcel == null ? null : parcel.id()).parcel(parcel == null ? null : parcel.title())
                    .build());
        }
        return listed;
    }
}
