package oakbasket.server.account;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Supplier;
import oakbasket.core.fault.Fault;
import oakbasket.core.fault.FaultyValue;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.core.team.Role;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.SecretKeys;
import oakbasket.server.security.SlowHashes;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.Transactions;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;

/** Makes accounts and checks passwords. There is no default password: the first account is made with a code shown on the console. */
@Service
public class AccountService {

    private static final Logger LOG = LoggerFactory.getLogger(AccountService.class);
    /** Stands in for an address that could not be read, so that the name beside it is looked at all the same. */
    private static final MailAddress NOBODY = MailAddress.parse("nobody@localhost.example");
    private static final int SHORTEST_PASSWORD = 12;
    /** What bcrypt reads. */
    private static final int LONGEST_PASSWORD_BYTES = 72;
    private static final String CODE_ALPHABET = "23456789ABCDEFGHJKLMNPQRSTUVWXYZ";

    /** Whoever changes what somebody is holds this, so that two administrators cannot remove each other at the same moment. */
    private final Object roles = new Object();
    private final AccountTable accounts;
    private final Transactions transactions;
    private final PasswordEncoder encoder;
    private final SlowHashes hashes;
    private final Clock clock;
    private final String setUpCode;
    /** Compared against where no account is found, so that both answers take the same time. */
    private final String nobodysHash;

    AccountService(AccountTable accounts, Transactions transactions, PasswordEncoder encoder, SlowHashes hashes, Clock clock, SecretKeys keys) {
        this.hashes = hashes;
        this.accounts = accounts;
        this.transactions = transactions;
        this.encoder = encoder;
        this.clock = clock;
        StringBuilder code = new StringBuilder();
        for (byte b : keys.random(12)) {
            code.append(code.length() == 4 || code.length() == 9 ? "-" : "").append(CODE_ALPHABET.charAt(b & 31));
        }
        this.setUpCode = code.toString();
        this.nobodysHash = Objects.requireNonNull(encoder.encode(setUpCode));
    }

    @EventListener(ApplicationReadyEvent.class)
    void showSetUpCode() {
        if (!accounts.any()) {
            LOG.info("No account yet. Open the desk in a browser and make the first one with this one-time set-up code: {}", setUpCode);
        }
    }

    /** Whether the first account is still to be made. */
    public boolean setUpNeeded() {
        return !accounts.any();
    }

    /**
     * Makes the first account.
     *
     * @throws Problem when there is one already, the code is wrong or a field cannot be used
     */
    public Account makeFirst(String code, String name, String email, String password) {
        if (!setUpNeeded()) {
            throw Problem.conflict("already-set-up");
        }
        List<Fault> errors = new ArrayList<>();
        byte[] given = code.strip().toUpperCase(Locale.ROOT).getBytes(StandardCharsets.UTF_8);
        if (!MessageDigest.isEqual(given, setUpCode.getBytes(StandardCharsets.UTF_8))) {
            errors.add(Fault.of("code", "set-up-code"));
        }
        errors.addAll(passwordFaults(password));
        MailAddress address = reading("email", () -> MailAddress.parse(email), errors);
        Person person = reading("name", () -> new Person(name.strip(), address == null ? NOBODY : address), errors);
        if (person == null || !errors.isEmpty()) {
            throw Problem.fields(errors);
        }
        return make(person, password, Role.ADMINISTRATOR);
    }

    /** What a field says; null, and an error at that field, when it cannot be used. */
    private static <T> @Nullable T reading(String field, Supplier<T> reader, List<Fault> errors) {
        try {
            return reader.get();
        } catch (FaultyValue problem) {
            errors.add(problem.at(field));
            return null;
        }
    }

    /** Makes the account of an administrator without further questions; for the demo and tests. */
    public Account make(Person person, String password) {
        return make(person, password, Role.ADMINISTRATOR);
    }

    /**
     * Makes an account for somebody who was invited.
     *
     * @throws Problem with status 422 when the password cannot be used or the address has an account
     */
    public Account join(Person person, String password, Role role) {
        List<Fault> faults = passwordFaults(password);
        if (!faults.isEmpty()) {
            throw Problem.fields(faults);
        }
        if (known(person.address())) {
            throw Problem.field("email", "member-known");
        }
        return make(person, password, role);
    }

    /** Makes an account without further questions. */
    public Account make(Person person, String password, Role role) {
        MailAddress mail = person.address();
        String hash = Objects.requireNonNull(encoder.encode(password));
        transactions.durably(() -> accounts.insert(person.name(), mail.text(), mail.key(), hash, role, clock.instant()));
        return accounts.find(mail.key()).orElseThrow().account();
    }

    /** Whether somebody has, or had, an account under an address. */
    public boolean known(MailAddress address) {
        return accounts.known(address.key());
    }

    /** Everybody of the office, who left included. */
    public List<Member> members() {
        return accounts.members();
    }

    /** Somebody who belongs to the office, by their address; nobody where there is none or they left. */
    public Optional<Account> byAddress(String email) {
        return keyOf(email).flatMap(accounts::find).map(AccountTable.WithPassword::account);
    }

    /**
     * Makes somebody something else.
     *
     * @throws Problem with status 409 when it was changed since, or no administrator would be left
     */
    public void setRole(long id, int version, Role role) {
        synchronized (roles) {
            keepAnAdministrator(id, role == Role.ADMINISTRATOR);
            if (transactions.durably(() -> accounts.setRole(id, version, role)) != 1) {
                throw Problem.conflict("changed-elsewhere");
            }
        }
    }

    /**
     * Lets somebody leave. What they have open ends with {@link AccountSessions#endAll}.
     *
     * @param before done in the same transaction, such as handing over what was theirs
     * @throws Problem with status 409 when it was changed since, or no administrator would be left
     */
    public void end(long id, int version, Runnable before) {
        synchronized (roles) {
            keepAnAdministrator(id, false);
            transactions.durably(() -> {
                before.run();
                if (accounts.end(id, version, clock.instant()) != 1) {
                    throw Problem.conflict("changed-elsewhere");
                }
            });
        }
    }

    /** Lets somebody who left come back, as what they were. */
    public void back(long id, int version) {
        if (transactions.durably(() -> accounts.end(id, version, null)) != 1) {
            throw Problem.conflict("changed-elsewhere");
        }
    }

    /** @throws Problem with status 422 at the field {@code password} when it is not the one of the account */
    void checkPassword(Account account, String password) {
        if (!isPassword(account, password)) {
            throw Problem.field("password", "password-wrong");
        }
    }

    private boolean isPassword(Account account, String password) {
        return hashes.matches(password, accounts.find(keyOf(account.email()).orElseThrow()).orElseThrow().passwordHash(), true, "");
    }

    /** Does something while nobody leaves and nobody becomes something else. */
    public <T> T settled(Supplier<T> work) {
        synchronized (roles) {
            return work.get();
        }
    }

    private void keepAnAdministrator(long changed, boolean staysOne) {
        if (!staysOne && accounts.members().stream().noneMatch(one -> one.id() != changed && one.role() == Role.ADMINISTRATOR && one.endedAt() == null)) {
            throw Problem.conflict("last-administrator");
        }
    }

    /**
     * Sets a password without asking for the present one.
     *
     * @throws Problem with status 422 when it cannot be used
     */
    public void setPassword(Account account, String next) {
        List<Fault> faults = passwordFaults(next);
        if (!faults.isEmpty()) {
            throw Problem.fields(faults);
        }
        String fresh = Objects.requireNonNull(encoder.encode(next));
        transactions.durably(() -> accounts.setPassword(account.id(), fresh));
    }

    /**
     * The account with this address and password.
     *
     * @param knownBrowser whether the browser signed in to this account before
     * @param caller from which address
     * @throws Problem with status 401, the same whether the address or the password is wrong
     */
    public Account signIn(String email, String password, boolean knownBrowser, String caller) {
        Optional<AccountTable.WithPassword> found = keyOf(email).flatMap(accounts::find);
        boolean right = hashes.matches(password, found.map(AccountTable.WithPassword::passwordHash).orElse(nobodysHash), knownBrowser, caller);
        if (found.isEmpty() || !right) {
            throw Problem.of(Problem.Kind.SIGN_IN_NEEDED, "sign-in-wrong");
        }
        return found.get().account();
    }

    /**
     * Changes a password.
     *
     * @throws Problem with status 422 when the present one is wrong or the new one cannot be used
     */
    public void changePassword(Account account, String present, String next) {
        if (!isPassword(account, present)) {
            throw Problem.field("present", "password-wrong");
        }
        Acting.own(() -> {
            setPassword(account, next);
            return true;
        });
    }

    private static List<Fault> passwordFaults(String password) {
        if (password.codePointCount(0, password.length()) < SHORTEST_PASSWORD) {
            return List.of(Fault.of("password", "password-short", SHORTEST_PASSWORD));
        }
        return password.getBytes(StandardCharsets.UTF_8).length > LONGEST_PASSWORD_BYTES ? List.of(Fault.of("password", "longest-bytes", LONGEST_PASSWORD_BYTES)) : List.of();
    }

    /** An account, where there is one of this number. */
    Optional<Account> find(long id) {
        return accounts.byId(id);
    }

    /** The account as it stands now. */
    public Account current(long id) {
        return accounts.byId(id).orElseThrow(() -> Problem.of(Problem.Kind.SIGN_IN_NEEDED, "sign-in-needed"));
    }

    /** What somebody may do; what a reader may, where the account is not there any more. */
    public Role roleOf(long id) {
        return accounts.byId(id).map(Account::role).orElse(Role.READER);
    }

    /** Somebody who belongs to the office, or 404. */
    public Account member(long id) {
        return accounts.byId(id).orElseThrow(() -> Problem.notFound("no-member"));
    }

    /** The names of accounts, by their ids. */
    public Map<Long, String> names(Collection<Long> ids) {
        return accounts.names(ids);
    }

    /** Marks everything that is in as seen. */
    public void look(Account account) {
        transactions.own(() -> accounts.look(account.id(), clock.instant()));
    }

    /** Sets when arrivals were last marked as seen; only the demo does. */
    public void backdateLook(long account, Instant at) {
        transactions.quickly(() -> {
            accounts.look(account, at);
            return true;
        });
    }

    /** What identifies the mailbox of an address as typed; nothing when it is none. */
    static Optional<String> keyOf(String email) {
        try {
            return Optional.of(MailAddress.parse(email).key());
        } catch (IllegalArgumentException notAnAddress) {
            return Optional.empty();
        }
    }
}
