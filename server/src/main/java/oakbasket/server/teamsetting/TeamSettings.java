package oakbasket.server.teamsetting;

import java.time.Clock;
import oakbasket.core.team.Permission;
import oakbasket.core.team.Role;
import oakbasket.core.team.TeamTerms;
import oakbasket.server.account.AccountService;
import oakbasket.server.problem.Problem;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.Transactions;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** What the office has settled about its coordinators, and whether somebody may do something. */
@Service
public class TeamSettings {

    private final TeamSettingTable table;
    private final AccountService accounts;
    private final Transactions transactions;
    private final Clock clock;
    /** Each operation asks for it. */
    private volatile @Nullable TeamSetting known;

    TeamSettings(TeamSettingTable table, AccountService accounts, Transactions transactions, Clock clock) {
        this.table = table;
        this.accounts = accounts;
        this.transactions = transactions;
        this.clock = clock;
    }

    /** As it is now. */
    public TeamSetting now() {
        TeamSetting setting = known;
        if (setting == null) {
            setting = Acting.asOffice(table::now).orElse(new TeamSetting(TeamTerms.OPEN, 0));
            known = setting;
        }
        return setting;
    }

    /** @throws Problem with status 409 when it was settled otherwise since {@code version} */
    public TeamSetting change(TeamTerms terms, int version) {
        synchronized (this) {
            transactions.durably(() -> {
                if (table.now().map(TeamSetting::version).orElse(0) != version) {
                    throw Problem.conflict("changed-elsewhere");
                }
                table.put(terms, version + 1);
            });
            known = null;
        }
        return now();
    }

    /** Whether somebody of a role may do what needs a permission. */
    public boolean may(Role role, Permission permission) {
        return role.may(permission, now().terms());
    }

    /**
     * Keeps whoever this thread works for from what they may not do; the office itself may everything.
     *
     * @throws Problem with status 403
     */
    public void need(Permission permission) {
        Acting.Who who = Acting.who();
        if (who != null && !may(accounts.current(who.account()).role(), permission)) {
            throw Problem.of(Problem.Kind.FORBIDDEN, permission == Permission.OPEN_LINK ? "role-open-link" : permission == Permission.HAND_OUT ? "role-hand-out" : "role");
        }
    }

    /** How many links live of what somebody owns. */
    public int liveLinks(long owner) {
        return Acting.asOffice(() -> table.liveLinks(owner, clock.instant()));
    }

    /**
     * Keeps an owner from having too many links that live. To be called in the transaction that makes some, after it did.
     *
     * @throws Problem with status 409, saying how many there may be
     */
    public void keepLimit(long owner) {
        TeamTerms terms = now().terms();
        Integer most = terms.mostLiveLinks();
        if (most != null) {
            int live = liveLinks(owner);
            if (terms.tooMany(live) > 0) {
                throw Problem.conflict("too-many-live-links", most, terms.tooMany(live));
            }
        }
    }

    /** The same for whoever owns a round. */
    public void keepLimitOfRound(long round) {
        if (now().terms().mostLiveLinks() != null) {
            keepLimit(Acting.asOffice(() -> table.ownerOf(round)));
        }
    }
}
