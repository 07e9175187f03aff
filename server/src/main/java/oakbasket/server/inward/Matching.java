package oakbasket.server.inward;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Pattern;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.inward.AuthenticationResults;
import oakbasket.core.inward.MailTrust;
import oakbasket.core.round.RoundState;
import oakbasket.server.Settings;
import oakbasket.server.account.AccountService;
import oakbasket.server.basket.Basket;
import oakbasket.server.basket.Baskets;
import oakbasket.server.contact.Contact;
import oakbasket.server.contact.Contacts;
import oakbasket.server.post.Letters;
import oakbasket.server.post.MailTags;
import oakbasket.server.round.Rounds;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Supposes whose a message is: by the mark of a letter or basket in an address, by the code in the subject, else by the sender's address. */
@Component
class Matching {

    /**
     * What is supposed.
     *
     * @param contact whose it is; null where nobody is supposed
     * @param letterId the letter it answers
     * @param baskets theirs that gather, those that are meant before others
     * @param certain whether exactly the first of these is meant
     * @param theirAddress whether it says it is from their address; an answer to another one names nobody
     */
    record Match(@Nullable Contact contact, @Nullable Long letterId, List<Basket> baskets, boolean certain, MailTrust trust, boolean theirAddress) {
    }

    /** As our own messages are called. */
    private static final Pattern OUR_ID = Pattern.compile("\\s*<oak-");

    private final MailTags tags;
    private final Letters letters;
    private final Baskets baskets;
    private final Contacts contacts;
    private final Rounds rounds;
    private final AccountService accounts;
    private final Settings settings;

    Matching(MailTags tags, Letters letters, Baskets baskets, Contacts contacts, Rounds rounds, AccountService accounts, Settings settings) {
        this.accounts = accounts;
        this.tags = tags;
        this.letters = letters;
        this.baskets = baskets;
        this.contacts = contacts;
        this.rounds = rounds;
        this.settings = settings;
    }

    /** The mark that a message was sent to, or that stands in its subject. */
    Optional<MailTags.Tag> tag(ReadMail mail, MailTags.Of... of) {
        List<MailTags.Of> wanted = List.of(of);
        return mail.recipients().stream().map(tags::inAddress).flatMap(Optional::stream).filter(tag -> wanted.contains(tag.of())).findFirst()
                .or(() -> wanted.contains(MailTags.Of.BASKET) ? tags.inSubject(mail.subject()) : Optional.empty());
    }

    /** Whether it is a message that this program sent: it comes from where papers are sent to, or bears an id as only our own do. */
    boolean ours(ReadMail mail) {
        String from = mail.from().toLowerCase(Locale.ROOT);
        return !settings.collecting().isEmpty() && (from.equals(settings.collecting().toLowerCase(Locale.ROOT)) || tags.inAddress(from).isPresent())
                || from.equals(settings.letterSender().toLowerCase(Locale.ROOT)) && OUR_ID.matcher(mail.headers().first("Message-ID")).lookingAt();
    }

    /** Whether it says it is from somebody of the office: what they pass on is for the tray, not theirs. */
    boolean colleague(ReadMail mail) {
        return mail.from().equalsIgnoreCase(settings.letterSender()) || accounts.byAddress(mail.from()).isPresent();
    }

    /** Whose something is supposed to be that somebody of the office passes on: of who sent the message that is forwarded, or of whom the mark tells. */
    Match passedOn(ReadMail mail) {
        Match marked = of(mail);
        Optional<Contact> sender = mail.parts().stream().map(ReadMail.Part::forwardedFrom).filter(from -> !from.isEmpty()).findFirst().flatMap(this::byAddress);
        if (sender.isEmpty()) {
            return new Match(marked.contact(), marked.letterId(), marked.baskets(), marked.certain(), MailTrust.DECLARED, false);
        }
        List<Basket> all = gathering(baskets.ofContacts(contacts.withMerged(sender.get().id())));
        return new Match(sender.get(), null, all, all.size() == 1, MailTrust.DECLARED, false);
    }

    Match of(ReadMail mail) {
        Settings.MailboxSettings mailbox = settings.mailbox();
        AuthenticationResults.Word server = AuthenticationResults.of(mail.headers().all("Authentication-Results"), mailbox == null ? "" : mailbox.serverId(), mail.authorDomain());
        Optional<Contact> sender = byAddress(mail.from());
        Optional<MailTags.Tag> tag = tag(mail, MailTags.Of.LETTER, MailTags.Of.BASKET);
        List<Basket> meant = tag.map(this::meant).orElse(List.of());
        Long letter = tag.filter(one -> one.of() == MailTags.Of.LETTER).map(MailTags.Tag::id).orElse(null);
        if (!meant.isEmpty()) {
            Contact marked = contacts.byId(meant.get(0).contactId());
            boolean theirs = mail.oneAuthor() && sender.filter(one -> one.id() == marked.id()).isPresent();
            List<Basket> gathering = gathering(meant);
            return new Match(marked, letter, gathering, gathering.size() == 1, MailTrust.of(true, theirs, server), theirs);
        }
        List<Basket> all = sender.map(one -> gathering(baskets.ofContacts(contacts.withMerged(one.id())))).orElse(List.of());
        return new Match(sender.orElse(null), letter, all, all.size() == 1, MailTrust.of(false, mail.oneAuthor() && sender.isPresent(), server), sender.isPresent());
    }

    private List<Basket> meant(MailTags.Tag tag) {
        return tag.of() == MailTags.Of.LETTER ? baskets.byIds(letters.basketsOf(tag.id())) : baskets.byIds(List.of(tag.id()));
    }

    private List<Basket> gathering(List<Basket> some) {
        List<Basket> found = new ArrayList<>();
        for (Basket basket : some) {
            if (!basket.removed() && rounds.head(basket.roundId()).state() == RoundState.GATHERING) {
                found.add(basket);
            }
        }
        found.sort(Comparator.comparing((Basket basket) -> rounds.opened(basket.roundId()).deadline().instant()));
        return found;
    }

    private Optional<Contact> byAddress(String address) {
        try {
            return contacts.withAddress(MailAddress.parse(address));
        } catch (IllegalArgumentException none) {
            return Optional.empty();
        }
    }
}
