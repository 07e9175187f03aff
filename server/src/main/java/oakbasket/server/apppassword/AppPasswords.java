package oakbasket.server.apppassword;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import oakbasket.core.fault.FaultyValue;
import oakbasket.core.identity.MailAddress;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.Hash;
import oakbasket.server.security.Limits;
import oakbasket.server.security.SecretKeys;
import oakbasket.server.storage.Transactions;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Makes, checks and revokes passwords of programs. One has 160 random bits, so it cannot be guessed; wrong ones are counted all the same. */
@Service
public class AppPasswords {

    static final int LONGEST_NAME = 100;
    private static final int MOST = 20;
    private static final int RANDOM_BYTES = 20;
    private static final int LONGEST_TYPED = 200;
    private static final Duration NOTED_EVERY = Duration.ofMinutes(1);

    private final AppPasswordTable table;
    private final SecretKeys keys;
    private final Limits limits;
    private final Transactions transactions;
    private final Clock clock;
    private final Map<Long, Instant> noted = new ConcurrentHashMap<>();

    AppPasswords(AppPasswordTable table, SecretKeys keys, Limits limits, Transactions transactions, Clock clock) {
        this.table = table;
        this.keys = keys;
        this.limits = limits;
        this.transactions = transactions;
        this.clock = clock;
    }

    List<AppPassword> of(long account) {
        return table.of(account);
    }

    /**
     * Makes one.
     *
     * @return the password, which is never shown again
     * @throws Problem with status 422 when it has no name, or there are too many
     */
    String make(long account, String typed) {
        String name = typed.strip();
        if (name.isEmpty() || name.length() > LONGEST_NAME) {
            throw name.isEmpty() ? Problem.field("name", "name-missing") : Problem.field("name", "longest", LONGEST_NAME);
        }
        if (table.of(account).size() >= MOST) {
            throw Problem.refused("app-passwords-many", MOST);
        }
        // Letters and digits alone: many a program takes what begins with a dash for one of its options.
        String password = HexFormat.of().formatHex(keys.random(RANDOM_BYTES));
        transactions.own(() -> table.insert(account, name, Hash.of(password), clock.instant()));
        return password;
    }

    /**
     * Revokes one.
     *
     * @throws Problem with status 404 when this account has none such
     */
    void revoke(long id, long account) {
        if (transactions.own(() -> table.revoke(id, account, clock.instant())) != 1) {
            throw Problem.notFound("no-app-password");
        }
    }

    /**
     * Checks what a program says.
     *
     * @param caller see {@link oakbasket.server.web.Caller}
     * @return the account it comes in for; null when it may not
     * @throws Problem with status 429 after too many wrong ones
     */
    public @Nullable Long check(String email, String password, String caller) {
        if (password.length() > LONGEST_TYPED || email.length() > MailAddress.MOST_OCTETS) {
            limits.count(Limits.Kind.APP_PASSWORD, caller);
            return null;
        }
        var owner = table.owner(Hash.of(password), key(email));
        if (owner.isEmpty()) {
            limits.count(Limits.Kind.APP_PASSWORD, caller);
            return null;
        }
        note(owner.get().id());
        return owner.get().accountId();
    }

    private static String key(String email) {
        try {
            return MailAddress.parse(email).key();
        } catch (FaultyValue none) {
            return "";
        }
    }

    private void note(long id) {
        Instant now = clock.instant();
        Instant before = noted.getOrDefault(id, Instant.EPOCH);
        if (before.plus(NOTED_EVERY).isBefore(now)) {
            noted.put(id, now);
            transactions.quickly(() -> {
                table.used(id, now);
                return true;
            });
        }
    }
}
