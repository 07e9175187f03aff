package oakbasket.server.post;

import java.time.Clock;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.core.letter.LetterFacts;
import oakbasket.core.letter.LetterKind;
import oakbasket.core.letter.LetterText;
import oakbasket.core.parcel.ParcelState;
import oakbasket.server.Settings;
import oakbasket.server.account.Account;
import oakbasket.server.account.AccountService;
import oakbasket.server.brand.Brand;
import oakbasket.server.contact.Contact;
import oakbasket.server.contact.Contacts;
import oakbasket.server.lettersetting.LetterSetting;
import oakbasket.server.lettersetting.LetterSettings;
import oakbasket.server.parcel.Parcel;
import oakbasket.server.parcel.ParcelFile;
import oakbasket.server.parcel.ParcelFiles;
import oakbasket.server.parcel.ParcelLink;
import oakbasket.server.parcel.ParcelLinks;
import oakbasket.server.parcel.Parcels;
import oakbasket.server.parcel.PickUps;
import oakbasket.server.words.Words;
import org.springframework.stereotype.Component;

/** Writes letters about files that are handed out: what can be taken away at this moment. */
@Component
class ParcelLetters {

    /** As many files are named; a letter is no list. */
    private static final int MOST_NAMED = 20;

    private final Parcels parcels;
    private final ParcelLinks links;
    private final ParcelFiles files;
    private final PickUps pickUps;
    private final Contacts contacts;
    private final AccountService accounts;
    private final LetterTexts texts;
    private final LetterSettings common;
    private final Words words;
    private final Settings settings;
    private final Brand brand;
    private final Clock clock;

    ParcelLetters(Parcels parcels, ParcelLinks links, ParcelFiles files, PickUps pickUps, Contacts contacts, AccountService accounts, LetterTexts texts, LetterSettings common, Words words, Settings settings,
            Clock clock, Brand brand) {
        this.brand = brand;
        this.parcels = parcels;
        this.links = links;
        this.files = files;
        this.pickUps = pickUps;
        this.contacts = contacts;
        this.accounts = accounts;
        this.texts = texts;
        this.common = common;
        this.words = words;
        this.settings = settings;
        this.clock = clock;
    }

    /** Why a letter that brings this link is not to go after all; empty when nothing speaks against it. */
    Optional<String> against(LetterKind kind, long linkId) {
        ParcelLink link = links.byId(linkId);
        Parcel parcel = parcels.byId(link.parcelId());
        ParcelState state = parcel.state(clock.instant());
        if (link.withdrawnAt() != null || state != ParcelState.LIVE && state != ParcelState.WAITING) {
            return Optional.of("PARCEL_OVER");
        }
        return kind == LetterKind.PICK_UP && parcels.finishedAt(parcel, link).isPresent() ? Optional.of("PICKED_UP") : Optional.empty();
    }

    /** The letter that brings a link, in the language of its person. */
    LetterWriter.Written write(LetterKind kind, long linkId) {
        Contact contact = person(links.byId(linkId));
        Locale language = LetterWriter.language(contact);
        return write(texts.of(kind, language).text(), kind, linkId, language);
    }

    /** The same in words of one's own. */
    LetterWriter.Written write(LetterText text, LetterKind kind, long linkId, Locale language) {
        ParcelLink link = links.byId(linkId);
        Parcel parcel = parcels.byId(link.parcelId());
        Contact contact = person(link);
        Account by = accounts.current(parcel.accountId());
        Words spoken = words.in(language);
        LetterLines lines = new LetterLines(spoken);
        Set<Long> taken = new HashSet<>(kind == LetterKind.PICK_UP ? pickUps.times(List.of(linkId)).stream().filter(one -> one.times() > 0).map(PickUps.Times::fileId).toList() : List.of());
        List<ParcelFile> left = files.of(parcel.id()).stream().filter(file -> !taken.contains(file.id())).toList();
        List<String> named = left.stream().limit(MOST_NAMED).map(file -> LinkAddress.plain(file.fileName())).collect(Collectors.toList());
        if (left.size() > MOST_NAMED) {
            named.add(spoken.of("letter.more-files", left.size() - MOST_NAMED));
        }
        LetterFacts.Papers papers = new LetterFacts.Papers(LinkAddress.plain(parcel.title()), LinkAddress.plain(parcel.message()), lines.until(parcel.window().end(), settings.zone(), contact.zone()), named,
                LinkAddress.parcelMark(linkId));
        LetterFacts facts = new LetterFacts(LinkAddress.plain(contact.name()), LinkAddress.plain(brand.name()), LinkAddress.plain(by.name()), List.of(papers));
        LetterSetting setting = common.now();
        return new LetterWriter.Written(new Person(contact.name(), MailAddress.parse(contact.email())), common.replyTo(setting, new Person(by.name(), MailAddress.parse(by.email())), ""),
                text.subjectFor(facts), LetterSettings.signed(setting, text.bodyFor(facts)), language, null);
    }

    private Contact person(ParcelLink link) {
        return contacts.byId(java.util.Objects.requireNonNull(link.contactId()));
    }
}
