package oakbasket.server.team;

import jakarta.annotation.PreDestroy;
import java.time.Clock;
import java.time.Duration;
import java.util.Optional;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.server.account.Account;
import oakbasket.server.account.AccountService;
import oakbasket.server.account.AccountSessions;
import oakbasket.server.post.LinkAddress;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.Hash;
import oakbasket.server.security.Limits;
import oakbasket.server.security.SecretKeys;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.Transactions;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Service;

/**
 * Lets somebody who forgot their password set a new one, by a link sent to their address. Asking for it says nothing about whether there is such an account, neither in
 * words nor in time, changes nothing by itself, and fills nobody's mailbox.
 */
@Service
class PasswordResets {

    static final int MINUTES = 60;
    private static final int LONGEST_TOKEN = 200;
    private static final int MOST_WAITING = 200;
    private static final Logger LOG = LoggerFactory.getLogger(PasswordResets.class);

    private final TeamTable table;
    private final AccountService accounts;
    private final AccountSessions sessions;
    private final TeamLetters letters;
    private final LinkAddress addresses;
    private final SecretKeys keys;
    private final Limits limits;
    private final Transactions transactions;
    private final Clock clock;
    private final ExecutorService writer = new ThreadPoolExecutor(0, 1, 10, TimeUnit.SECONDS, new LinkedBlockingQueue<>(MOST_WAITING), work -> {
        Thread thread = new Thread(work, "password-letters");
        thread.setDaemon(true);
        return thread;
    }, new ThreadPoolExecutor.DiscardPolicy());

    PasswordResets(TeamTable table, AccountService accounts, AccountSessions sessions, TeamLetters letters, LinkAddress addresses, SecretKeys keys, Limits limits, Transactions transactions, Clock clock) {
        this.table = table;
        this.accounts = accounts;
        this.sessions = sessions;
        this.letters = letters;
        this.addresses = addresses;
        this.keys = keys;
        this.limits = limits;
        this.transactions = transactions;
        this.clock = clock;
    }

    @PreDestroy
    void stop() {
        writer.shutdownNow();
    }

    /**
     * Sends a link to an address, if it has an account.
     *
     * @throws Problem with status 429 when one caller asks too often
     */
    void ask(String email, String caller) {
        limits.count(Limits.Kind.RESET, caller);
        writer.execute(Acting.office(() -> {
            try {
                accounts.byAddress(email).ifPresent(this::write);
            } catch (RuntimeException problem) {
                LOG.error("A letter about a forgotten password could not be written", problem);
            }
        }));
    }

    private void write(Account account) {
        try {
            limits.count(Limits.Kind.RESET_OF_ADDRESS, Long.toString(account.id()));
        } catch (Problem often) {
            return;
        }
        letters.reset(person(account), link(account), MINUTES);
    }

    /** A link by which somebody can set a new password, for an administrator to hand over where letters do not arrive. */
    String link(Account account) {
        String token = keys.token();
        transactions.durably(() -> table.reset(account.id(), Hash.of(token), clock.instant().plus(Duration.ofMinutes(MINUTES))));
        return addresses.base() + "/new-password#" + token;
    }

    /**
     * Sets the password of whoever holds the secret of such a link, once. All their sessions end.
     *
     * @throws Problem with status 404 when there is none such or it ended, 422 when the password cannot be used
     */
    void set(String token, String password, String caller) {
        Optional<Long> id = token.length() > LONGEST_TOKEN ? Optional.empty() : table.resets(Hash.of(token), clock.instant());
        if (id.isEmpty()) {
            limits.count(Limits.Kind.UNKNOWN_LINK, caller);
            throw Problem.notFound("no-reset");
        }
        Account account = accounts.current(id.get());
        synchronized (this) {
            // Two who hold the same link at the same moment: one of them sets a password.
            if (table.resets(Hash.of(token), clock.instant()).isEmpty()) {
                throw Problem.notFound("no-reset");
            }
            accounts.setPassword(account, password);
            transactions.durably(() -> table.resetDone(account.id()));
        }
        sessions.endAll(account.id());
        letters.changed(person(account), "password");
    }

    static Person person(Account account) {
        return new Person(account.name(), MailAddress.parse(account.email()));
    }
}
