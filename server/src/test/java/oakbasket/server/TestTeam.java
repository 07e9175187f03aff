package oakbasket.server;

import java.util.concurrent.atomic.AtomicInteger;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.core.team.Role;
import oakbasket.server.account.Account;
import oakbasket.server.account.AccountService;

/** Somebody else of the office, who is signed in. */
final class TestTeam {

    private static final AtomicInteger COUNT = new AtomicInteger();

    final Account account;
    final Http desk;

    private TestTeam(Account account, Http desk) {
        this.account = account;
        this.desk = desk;
    }

    /** A new colleague of a role. */
    static TestTeam of(Role role) {
        String email = role.name().toLowerCase() + COUNT.incrementAndGet() + "@example.org";
        Account account = RunningApp.bean(AccountService.class).make(new Person("Colleague " + COUNT.get(), MailAddress.parse(email)), RunningApp.PASSWORD, role);
        return new TestTeam(account, Http.signedIn(email, RunningApp.PASSWORD));
    }

    long id() {
        return account.id();
    }
}
