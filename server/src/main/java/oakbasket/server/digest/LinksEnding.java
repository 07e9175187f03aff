package oakbasket.server.digest;

import java.time.Clock;
import java.time.Instant;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import oakbasket.core.digest.DigestPlan;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.server.Settings;
import oakbasket.server.account.Account;
import oakbasket.server.account.AccountService;
import oakbasket.server.brand.Brand;
import oakbasket.server.link.LinkList;
import oakbasket.server.mail.MailTrouble;
import oakbasket.server.mail.Mailer;
import oakbasket.server.mail.OutgoingMail;
import oakbasket.server.post.LinkAddress;
import oakbasket.server.storage.Transactions;
import oakbasket.server.words.Words;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** Tells whoever is told of what comes also of the links that begin to end soon: in the morning, each link once while its end stays the same. */
@Component
class LinksEnding {

    private static final DateTimeFormatter AT = DateTimeFormatter.ofPattern("EEE d MMM, HH:mm", Locale.UK);
    private static final int MOST_NAMES = 5;
    private static final Logger LOG = LoggerFactory.getLogger(LinksEnding.class);

    private final DigestTable table;
    private final LinkList links;
    private final AccountService accounts;
    private final Mailer mailer;
    private final Transactions transactions;
    private final LinkAddress addresses;
    private final Settings settings;
    private final Brand brand;
    private final Words words;
    private final Clock clock;

    LinksEnding(DigestTable table, LinkList links, AccountService accounts, Mailer mailer, Transactions transactions, LinkAddress addresses, Settings settings, Words words, Clock clock, Brand brand) {
        this.brand = brand;
        this.table = table;
        this.links = links;
        this.accounts = accounts;
        this.mailer = mailer;
        this.transactions = transactions;
        this.addresses = addresses;
        this.settings = settings;
        this.words = words;
        this.clock = clock;
    }

    /** Tells an account, where it is time and there is something to tell. */
    void tell(Wanted wanted) {
        Instant now = clock.instant();
        Instant told = table.toldEnding(wanted.accountId()).orElse(wanted.toldAt());
        if (!DigestPlan.DAILY.due(told, told, told, now, settings.zone())) {
            return;
        }
        List<LinkList.Ending> ending = links.endingSince(told, MOST_NAMES).stream().filter(one -> !Digests.muted(wanted).contains(one.roundId())).toList();
        if (!ending.isEmpty()) {
            Account account = accounts.current(wanted.accountId());
            Person person = new Person(account.name(), MailAddress.parse(account.email()));
            String from = settings.letterSender();
            String id = "oak-ending-" + wanted.accountId() + "-" + told.toEpochMilli() + from.substring(from.lastIndexOf('@'));
            try {
                mailer.send(new OutgoingMail(id, person, person, words.of("ending.subject", ending.stream().mapToInt(LinkList.Ending::links).sum()), body(ending), now));
            } catch (MailTrouble trouble) {
                LOG.warn("Links that end soon could not be told to account {}: {}", wanted.accountId(), words.of(trouble.reason()));
                return;
            }
        }
        transactions.own(() -> table.toldEnding(wanted.accountId(), now));
    }

    private String body(List<LinkList.Ending> ending) {
        String rounds = ending.stream().map(round -> words.of("ending.round", LinkAddress.plain(round.round()), round.links(), AT.format(round.first().atZone(settings.zone())),
                round.people().stream().map(LinkAddress::plain).collect(Collectors.joining(", ")), addresses.base() + "/links?round=" + round.roundId() + "&listing=ENDS_SOON")).collect(Collectors.joining("\n"));
        return words.of("ending.body", brand.name(), rounds, addresses.base());
    }
}
