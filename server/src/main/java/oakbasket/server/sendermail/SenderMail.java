package oakbasket.server.sendermail;

import java.time.Clock;
import java.util.Base64;
import java.util.concurrent.Semaphore;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.server.Settings;
import oakbasket.server.account.Account;
import oakbasket.server.account.AccountService;
import oakbasket.server.mail.MailTrouble;
import oakbasket.server.mail.Mailer;
import oakbasket.server.mail.OutgoingMail;
import oakbasket.server.problem.Problem;
import oakbasket.server.round.Round;
import oakbasket.server.security.SecretKeys;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** Hands a mail over while its reader waits for it, who is told at once when that fails. A mail server that hangs holds a few threads and no more. */
@Component
class SenderMail {

    private static final Logger LOG = LoggerFactory.getLogger(SenderMail.class);
    private static final int AT_ONCE = 4;
    private static final int ID_BYTES = 12;

    private final Mailer mailer;
    private final AccountService accounts;
    private final Settings settings;
    private final SecretKeys keys;
    private final Clock clock;
    private final Semaphore places = new Semaphore(AT_ONCE);

    SenderMail(Mailer mailer, AccountService accounts, Settings settings, SecretKeys keys, Clock clock) {
        this.mailer = mailer;
        this.accounts = accounts;
        this.settings = settings;
        this.keys = keys;
        this.clock = clock;
    }

    /**
     * Sends it.
     *
     * @param round whose coordinator reads answers
     * @throws Problem with status 503 when no mail can be handed over now, 422 when the address takes none
     */
    void send(Person to, Round round, String subject, String body) {
        if (!places.tryAcquire()) {
            throw Problem.of(Problem.Kind.BUSY, "mail-later");
        }
        try {
            Account asker = accounts.current(round.askedBy());
            String from = settings.letterSender();
            String id = "oak-sender-" + Base64.getUrlEncoder().withoutPadding().encodeToString(keys.random(ID_BYTES)) + from.substring(from.lastIndexOf('@'));
            mailer.send(new OutgoingMail(id, to, new Person(asker.name(), MailAddress.parse(asker.email())), subject, body, clock.instant()));
        } catch (MailTrouble trouble) {
            LOG.warn("A mail to a sender could not be handed over ({})", trouble.kind());
            throw trouble.kind() == MailTrouble.Kind.REFUSED ? Problem.refused("mail-refused") : Problem.of(Problem.Kind.BUSY, "mail-later");
        } finally {
            places.release();
        }
    }
}
