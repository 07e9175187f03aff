package oakbasket.server.team;

import java.util.List;
import oakbasket.core.team.Role;
import oakbasket.server.account.Account;
import oakbasket.server.account.AccountService;
import oakbasket.server.account.AccountSessions;
import oakbasket.server.account.Member;
import oakbasket.server.account.SecondFactor;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.problem.Problem;
import oakbasket.server.sharing.Sharing;
import oakbasket.server.teamsetting.TeamSettings;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Who belongs to the office, and as what. Whoever leaves hands over what was theirs as a whole. */
@Service
class Team {

    /**
     * Somebody who belongs to the office, or did.
     *
     * @param rounds how many rounds they own
     * @param liveLinks how many links live of their rounds and parcels
     */
    record TeamMember(Member member, int rounds, int liveLinks) {
    }

    private final AccountService accounts;
    private final AccountSessions sessions;
    private final Sharing sharing;
    private final TeamSettings settings;
    private final SecondFactor factors;
    private final TeamLetters letters;
    private final LiveHub live;

    Team(AccountService accounts, AccountSessions sessions, Sharing sharing, TeamSettings settings, SecondFactor factors, TeamLetters letters, LiveHub live) {
        this.live = live;
        this.accounts = accounts;
        this.sessions = sessions;
        this.sharing = sharing;
        this.settings = settings;
        this.factors = factors;
        this.letters = letters;
    }

    List<TeamMember> all() {
        return accounts.members().stream().map(one -> new TeamMember(one, sharing.owned(one.id()), settings.liveLinks(one.id()))).toList();
    }

    /**
     * Makes somebody something else.
     *
     * @throws Problem with status 409 when no administrator would be left, or somebody who only reads would own rounds
     */
    void setRole(long id, int version, Role role) {
        active(id);
        if (role == Role.READER && sharing.owns(id)) {
            throw Problem.conflict("reader-owns");
        }
        accounts.setRole(id, version, role);
        live.publish(LiveEvent.TEAM);
    }

    /**
     * Lets somebody leave: they cannot sign in any more, their sessions, programs and calendar feeds end at once, and what they own goes to somebody else.
     *
     * @param to who gets what they own; null where they own nothing
     * @throws Problem with status 422 when somebody has to be named and is not, or cannot own it; 409 when no administrator would be left
     */
    void leave(long id, int version, @Nullable Long to) {
        active(id);
        if (to == null && sharing.owns(id) || to != null && to == id) {
            throw Problem.field("to", "hand-over-to");
        }
        accounts.end(id, version, () -> {
            if (to != null) {
                sharing.handOver(id, to);
            } else if (sharing.owns(id)) {
                throw Problem.field("to", "hand-over-to");
            }
        });
        sessions.endAll(id);
        live.publish(LiveEvent.TEAM);
    }

    void back(long id, int version) {
        accounts.back(id, version);
        live.publish(LiveEvent.TEAM);
    }

    /** Lets somebody sign in with the password alone again, who lost what makes their codes. */
    void endSecondFactor(long id) {
        Account account = accounts.member(id);
        factors.end(account);
        letters.changed(PasswordResets.person(account), "factor");
    }

    private Member active(long id) {
        return accounts.members().stream().filter(one -> one.id() == id && one.endedAt() == null).findFirst().orElseThrow(() -> Problem.notFound("no-member"));
    }
}
