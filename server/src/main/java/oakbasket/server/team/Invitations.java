package oakbasket.server.team;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import oakbasket.core.fault.Fault;
import oakbasket.core.fault.FaultyValue;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.core.team.Role;
import oakbasket.server.account.Account;
import oakbasket.server.account.AccountService;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.mail.MailReach;
import oakbasket.server.post.LinkAddress;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.Hash;
import oakbasket.server.security.Limits;
import oakbasket.server.security.SecretKeys;
import oakbasket.server.storage.Transactions;
import org.springframework.stereotype.Service;

/** Asks people to belong to the office. Whoever holds the link of an invitation makes one account with it. */
@Service
class Invitations {

    static final int DAYS = 7;
    private static final int MOST = 200;
    private static final int LONGEST_TOKEN = 200;

    /** An invitation and its link, which is never shown again. */
    record Invited(Invitation invitation, String link) {
    }

    private final TeamTable table;
    private final AccountService accounts;
    private final TeamLetters letters;
    private final LinkAddress addresses;
    private final SecretKeys keys;
    private final Limits limits;
    private final Transactions transactions;
    private final LiveHub live;
    private final MailReach reach;
    private final Clock clock;

    Invitations(TeamTable table, AccountService accounts, TeamLetters letters, LinkAddress addresses, SecretKeys keys, Limits limits, Transactions transactions, LiveHub live, MailReach reach, Clock clock) {
        this.reach = reach;
        this.live = live;
        this.table = table;
        this.accounts = accounts;
        this.letters = letters;
        this.addresses = addresses;
        this.keys = keys;
        this.limits = limits;
        this.transactions = transactions;
        this.clock = clock;
    }

    List<Invitation> all() {
        return table.invitations();
    }

    /**
     * Invites somebody, by a letter.
     *
     * @throws Problem with status 422 naming the field
     */
    Invited invite(String name, String email, Role role, Account by) {
        Person person = person(name, email);
        if (accounts.known(person.address())) {
            throw Problem.field("email", "member-known");
        }
        if (table.invited(person.address().key())) {
            throw Problem.field("email", "member-invited");
        }
        if (table.invitations().size() >= MOST) {
            throw Problem.refused("invitations-many", MOST);
        }
        String token = keys.token();
        Instant now = clock.instant();
        long id = transactions.durably(() -> table.invite(person, role, Hash.of(token), by.id(), now, now.plus(Duration.ofDays(DAYS))));
        return sent(id, token, by);
    }

    /** Sends an invitation again, with a new link; the one before does not work any more. */
    Invited again(long id, Account by) {
        String token = keys.token();
        if (transactions.durably(() -> table.again(id, Hash.of(token), clock.instant().plus(Duration.ofDays(DAYS)))) != 1) {
            throw Problem.notFound("no-invitation");
        }
        return sent(id, token, by);
    }

    private Invited sent(long id, String token, Account by) {
        Invitation made = table.invitation(id).orElseThrow();
        String link = addresses.base() + "/join#" + token;
        String trouble = letters.invitation(new Person(made.name(), MailAddress.parse(made.email())), new Person(by.name(), MailAddress.parse(by.email())), link, DAYS);
        if (!trouble.isEmpty()) {
            transactions.durably(() -> table.trouble(id, trouble));
        }
        live.publish(LiveEvent.TEAM);
        return new Invited(table.invitation(id).orElseThrow(), link);
    }

    void withdraw(long id) {
        if (transactions.durably(() -> table.withdraw(id)) != 1) {
            throw Problem.notFound("no-invitation");
        }
        live.publish(LiveEvent.TEAM);
    }

    /**
     * The invitation of whoever holds its secret.
     *
     * @throws Problem with status 404 when there is none such, or it ended
     */
    Invitation held(String token, String caller) {
        return (token.length() > LONGEST_TOKEN ? java.util.Optional.<Invitation>empty() : table.byToken(Hash.of(token))).filter(one -> one.endsAt().isAfter(clock.instant())).orElseThrow(() -> {
            limits.count(Limits.Kind.UNKNOWN_LINK, caller);
            return Problem.notFound("no-invitation-held");
        });
    }

    /**
     * Makes the account of whoever was invited; the invitation is used up.
     *
     * @throws Problem with status 422 naming the field
     */
    Account join(String token, String name, String password, String caller) {
        Invitation held = held(token, caller);
        Person person = person(name, held.email());
        synchronized (this) {
            held(token, caller);
            Account made = accounts.join(person, password, held.role());
            transactions.durably(() -> table.withdraw(held.id()));
            live.publish(LiveEvent.TEAM);
            return made;
        }
    }

    private Person person(String name, String email) {
        MailAddress address;
        try {
            address = reach.needed(MailAddress.parse(email));
        } catch (FaultyValue wrong) {
            throw Problem.fields(List.of(wrong.at("email")));
        }
        try {
            return new Person(name.strip(), address);
        } catch (FaultyValue wrong) {
            Fault fault = wrong.at("name");
            throw Problem.fields(List.of(fault));
        }
    }
}
