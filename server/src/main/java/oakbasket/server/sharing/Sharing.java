package oakbasket.server.sharing;

import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import oakbasket.core.team.Role;
import oakbasket.core.team.Share;
import oakbasket.server.account.Account;
import oakbasket.server.account.AccountService;
import oakbasket.server.account.Member;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.problem.Problem;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.Transactions;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Shares rounds and parcels within the office, and hands them over. What is hidden by it is kept from every question in {@code storage.SeenRows}. */
@Service
public class Sharing {

    private static final int MOST_SHARES = 10_000;

    private final ShareTable table;
    private final AccountService accounts;
    private final Transactions transactions;
    private final LiveHub live;
    /** How rounds are shared, for open desks; a copy of each server, forgotten when a round or the team changes. */
    private final Map<Long, Share> shares = new ConcurrentHashMap<>();

    Sharing(ShareTable table, AccountService accounts, Transactions transactions, LiveHub live) {
        this.table = table;
        this.accounts = accounts;
        this.transactions = transactions;
        this.live = live;
        live.seenBy(this::sees);
        live.listen(event -> {
            if (event.type().equals("round")) {
                shares.remove(event.roundId());
            } else if (event.equals(LiveEvent.TEAM)) {
                shares.clear();
            }
        });
    }

    /** Whether somebody sees a round, by the core's rule. */
    private boolean sees(long account, long round) {
        if (shares.size() > MOST_SHARES) {
            shares.clear();
        }
        // In one step, so that what was read before a change is never kept after it.
        Share share = shares.computeIfAbsent(round, this::stored);
        // A round that is not there any more is nobody's secret; and most are seen by everybody, whatever their role.
        return share == null || share.sees(account, Role.READER) || share.sees(account, accounts.roleOf(account));
    }

    private @Nullable Share stored(long round) {
        return Acting.asOffice(() -> table.of(round)).orElse(null);
    }

    /** What has to be kept to where something is done for an account. */
    public Acting.Who acting(Account account) {
        return new Acting.Who(account.id(), account.role() != Role.READER, account.role() != Role.ADMINISTRATOR && Acting.asOffice(() -> table.hidesFrom(account.id())));
    }

    /** The same of the account with this number. */
    public Acting.Who acting(long account) {
        return acting(accounts.current(account));
    }

    /** How a round is shared; 404 where it is not seen. */
    Share of(long round) {
        return table.of(round).orElseThrow(() -> Problem.notFound("no-round"));
    }

    /**
     * Shares a round otherwise, or hands it over.
     *
     * @throws Problem with status 403 for whoever does not own it, 422 when somebody does not belong to the office or only reads and is to own it
     */
    Share change(long round, Share wanted, Account by) {
        if (!of(round).settles(by.id(), by.role())) {
            throw Problem.of(Problem.Kind.FORBIDDEN, "not-owner");
        }
        accounts.settled(() -> transactions.durably(() -> {
            table.set(round, allowed(wanted));
            return true;
        }));
        live.publish(new LiveEvent("round", round, null));
        live.publish(LiveEvent.SHARED);
        return Acting.asOffice(() -> of(round));
    }

    /** As wanted, without what says nothing. @throws Problem with status 422 when somebody does not belong to the office, or only reads and is to own it */
    private Share allowed(Share wanted) {
        mayOwn(wanted.owner(), "owner");
        Set<Long> with = new HashSet<>(wanted.with());
        with.remove(wanted.owner());
        if (!active().keySet().containsAll(with)) {
            throw Problem.field("with", "no-member");
        }
        return new Share(wanted.owner(), wanted.wholeOffice(), wanted.wholeOffice() ? Set.of() : with);
    }

    /** How a parcel is shared, which is there and seen. */
    public Share ofParcel(long parcel) {
        return table.ofParcel(parcel);
    }

    /**
     * Shares a parcel otherwise, or hands it over.
     *
     * @param rounds the rounds of the files in it
     * @throws Problem as {@link #change}, and with status 422 when somebody would see files of a round that they do not see
     */
    public void changeOfParcel(long parcel, Share wanted, Set<Long> rounds, Account by) {
        if (!ofParcel(parcel).settles(by.id(), by.role())) {
            throw Problem.of(Problem.Kind.FORBIDDEN, "not-owner");
        }
        accounts.settled(() -> transactions.durably(() -> {
            Share share = allowed(wanted);
            if (!inside(share, rounds)) {
                throw Problem.field(share.wholeOffice() ? "wholeOffice" : "with", "parcel-wider");
            }
            table.setOfParcel(parcel, share);
            return true;
        }));
        live.publish(LiveEvent.PARCELS);
    }

    /**
     * Sees to it that everybody who sees a parcel sees the rounds of the files that are put into it. One that is still empty is shared with no more than those from now on. Runs in the caller's transaction.
     *
     * @param exchange the round of the exchange behind which the parcel is, whose sharing it has; null where it is none
     * @throws Problem with status 409 when somebody sees the parcel and not the rounds
     */
    public void narrow(long parcel, @Nullable Long exchange, Set<Long> rounds, boolean empty) {
        Share share = exchange == null ? ofParcel(parcel) : of(exchange);
        if (inside(share, rounds)) {
            return;
        }
        Share narrower = share;
        for (Share round : shares(rounds)) {
            narrower = narrower.within(round);
        }
        if (!empty || exchange != null || !inside(narrower, rounds)) {
            throw Problem.conflict("parcel-wider");
        }
        table.setOfParcel(parcel, narrower);
    }

    private boolean inside(Share share, Set<Long> rounds) {
        return shares(rounds).stream().allMatch(share::noWiderThan);
    }

    private List<Share> shares(Set<Long> rounds) {
        return Acting.asOffice(() -> rounds.stream().flatMap(round -> table.of(round).stream()).toList());
    }

    /** How something is shared, as the desk shows it to somebody. */
    public SharingView view(Share share, Account account) {
        return new SharingView(share.owner(), accounts.names(List.of(share.owner())).getOrDefault(share.owner(), ""), share.wholeOffice(), share.with().stream().sorted().toList(), share.settles(account.id(), account.role()),
                accounts.members().stream().filter(one -> one.endedAt() == null).map(one -> new SharingView.Colleague(one.id(), one.name(), one.role())).toList());
    }

    /** A round that is made of another one is seen by those who see that one, whoever owns it. Runs in the caller's transaction. */
    public void inherit(long from, long made, long owner) {
        table.of(from).ifPresent(share -> table.set(made, like(share, owner)));
    }

    /** The same for a series that is made of a round. */
    public void inheritSeries(long round, long series, long owner) {
        table.of(round).ifPresent(share -> table.setOfSeries(series, like(share, owner)));
    }

    /** The same for a round that is made by a series. */
    public void inheritFromSeries(long series, long made) {
        table.set(made, table.ofSeries(series));
    }

    private static Share like(Share share, long owner) {
        return new Share(owner, true, Set.of()).within(share);
    }

    /** How many rounds somebody owns. */
    public int owned(long account) {
        return Acting.asOffice(() -> table.owned(account));
    }

    /** Whether somebody owns anything that has to go to somebody else when they leave: a round, a series, a parcel. */
    public boolean owns(long account) {
        return Acting.asOffice(() -> table.owns(account));
    }

    /** Hands over whatever somebody owns. Runs in the caller's transaction. */
    public void handOver(long from, long to) {
        mayOwn(to, "to");
        table.handOver(from, to);
    }

    /** @throws Problem with status 422 naming the field when somebody cannot own a round */
    private void mayOwn(long account, String field) {
        Member owner = active().get(account);
        if (owner == null || owner.role() == Role.READER) {
            throw Problem.field(field, owner == null ? "no-member" : "owner-reads");
        }
    }

    private Map<Long, Member> active() {
        List<Member> all = accounts.members();
        return all.stream().filter(one -> one.endedAt() == null).collect(Collectors.toMap(Member::id, one -> one));
    }
}
