package oakbasket.server.link;

import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Collectors;
import oakbasket.core.link.LinkAdmission;
import oakbasket.core.link.LinkWindow;
import oakbasket.core.team.Permission;
import oakbasket.server.problem.Problem;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import oakbasket.server.security.Hash;
import oakbasket.server.security.Limits;
import oakbasket.server.security.PasscodeTickets;
import oakbasket.server.security.SecretKeys;
import oakbasket.server.security.SlowHashes;
import oakbasket.server.teamsetting.TeamSettings;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/**
 * Makes request links and admits who comes through them. A token has 160 random bits. The database holds its hash, to find it, and the token
 * sealed with a key outside the database, to show it again.
 */
@Service
public class Links {

    private static final int MOST_PASSCODES = 8;

    private final LinkTable table;
    private final Rounds rounds;
    private final SecretKeys keys;
    private final PasscodeTickets tickets;
    private final SlowHashes hashes;
    private final Limits limits;
    private final Clock clock;
    private final TeamSettings team;

    Links(LinkTable table, Rounds rounds, SecretKeys keys, PasscodeTickets tickets, SlowHashes hashes, Limits limits, Clock clock, TeamSettings team) {
        this.team = team;
        this.hashes = hashes;
        this.table = table;
        this.rounds = rounds;
        this.keys = keys;
        this.tickets = tickets;
        this.limits = limits;
        this.clock = clock;
    }

    /** A link that somebody was admitted through, and its round. */
    public record Admitted(Link link, Round round) {
    }

    /** Makes a personal link. Runs in the caller's transaction. */
    public void makePersonal(long roundId, long basketId) {
        make(roundId, basketId, null);
    }

    /** Makes an open link. Runs in the caller's transaction. */
    public void makeOpen(long roundId, String passcode) {
        team.need(Permission.OPEN_LINK);
        make(roundId, null, tickets.hash(passcode));
    }

    private void make(long roundId, @Nullable Long basketId, @Nullable String passcodeHash) {
        String token = keys.token();
        table.insert(roundId, basketId, Hash.of(token), keys.seal(token.getBytes(StandardCharsets.US_ASCII)), passcodeHash, clock.instant());
    }

    /** The personal link of a basket. */
    public Optional<Link> ofBasket(long basketId) {
        return table.ofBasket(basketId);
    }

    /** The last personal link of a basket, withdrawn or not. */
    public Optional<Link> lastOf(long basketId) {
        return table.lastOf(basketId);
    }

    /** The personal links of a round that work, by their baskets. */
    public Map<Long, Link> ofRound(long roundId) {
        return table.ofRound(roundId).stream().collect(Collectors.toMap(link -> Objects.requireNonNull(link.basketId()), link -> link, (older, newer) -> newer));
    }

    /** Makes the open link of a round work, the last one again where there was one. Runs in the caller's transaction. */
    public void reopenOpen(long roundId) {
        if (table.openOf(roundId).isEmpty()) {
            team.need(Permission.OPEN_LINK);
            if (table.giveBackOpen(roundId) == 0) {
                make(roundId, null, null);
            }
            keepLimit(roundId);
        }
    }

    /**
     * Keeps the owner of a round from having too many links that live. To be called in the transaction that makes some, after it did.
     *
     * @throws Problem with status 409
     */
    public void keepLimit(long roundId) {
        team.keepLimitOfRound(roundId);
    }

    /** Withdraws the open link of a round; {@link #reopenOpen} takes it back. Runs in the caller's transaction. */
    public void withdrawOpen(long roundId) {
        table.withdrawOpen(roundId, clock.instant());
    }

    /** Sets the passcode of the open link; an empty one takes it away. Runs in the caller's transaction. */
    public void setPasscode(long roundId, String passcode) {
        table.setPasscode(roundId, tickets.hash(passcode));
    }

    /** Whether a basket ever had a personal link. */
    public boolean ever(long basketId) {
        return table.ever(basketId);
    }

    /** The open link of a round. */
    public Optional<Link> openOf(long roundId) {
        return table.openOf(roundId);
    }

    /** Withdraws the personal links of a basket. Runs in the caller's transaction. */
    public void withdrawPersonal(long basketId, Instant at) {
        table.withdrawPersonal(basketId, at);
    }

    /** Gives back those personal links of a basket that were withdrawn at this moment. Runs in the caller's transaction. */
    public void giveBackPersonal(long basketId, Instant withdrawnAt) {
        table.giveBackPersonal(basketId, withdrawnAt);
    }

    /** Has the personal links of one basket open another. Runs in the caller's transaction. */
    public List<Long> repoint(long fromBasket, long toBasket) {
        return table.repoint(fromBasket, toBasket);
    }

    /** Takes {@link #repoint} back. Runs in the caller's transaction. */
    public void giveBack(List<Long> linkIds, long basketId) {
        table.give(linkIds, basketId);
    }

    /** Links by id; ids that do not exist are left out. */
    public List<Link> byIds(Collection<Long> ids) {
        return table.byIds(ids);
    }

    /** The open link behind a token that was not withdrawn; empty for every other token. */
    public Optional<Link> openLinkOf(@Nullable String token) {
        return token == null || token.length() > 100 ? Optional.empty() : table.byTokenHash(Hash.of(token)).filter(link -> link.isOpen() && link.terms().withdrawnAt() == null);
    }

    /**
     * Whether this is the passcode of all of these links that ask for one. A few different ones are looked at; where there are more, it is not.
     */
    public boolean allHavePasscode(Collection<Link> some, String passcode) {
        List<String> different = some.stream().map(Link::passcodeHash).filter(Objects::nonNull).distinct().limit(MOST_PASSCODES + 1L).toList();
        return different.size() <= MOST_PASSCODES && different.stream().allMatch(hash -> hashes.matches(passcode, hash, true, ""));
    }

    /** A link known to exist. */
    public Link byId(long id) {
        return table.byId(id).orElseThrow();
    }

    /** The path of the basket page behind a link, for the coordinator to hand on. */
    public String path(Link link) {
        return "/b/" + (link.name().isEmpty() ? "" : link.name() + "/") + new String(keys.open(link.tokenSealed()), StandardCharsets.US_ASCII);
    }

    /**
     * Counts one submission through a link. Runs in the caller's transaction.
     *
     * @throws Problem with status 410 when others used it up meanwhile
     */
    public void use(long linkId) {
        if (table.use(linkId) != 1) {
            throw refusal(LinkAdmission.USED_UP);
        }
    }

    /**
     * Admits whoever holds this token.
     *
     * @param ticket what {@link #unlock} gave; null when none
     * @param caller the address of the caller, to slow down guessing
     * @throws Problem saying plainly why not; unknown and withdrawn links cannot be told apart
     */
    public Admitted admit(@Nullable String token, @Nullable String ticket, String caller) {
        return admit(token, ticket, caller, 0);
    }

    /**
     * The same for a submission that has brought something, for which a link that is used up since goes on.
     *
     * @param countedThrough the link among whose uses the submission is counted; 0 when it is among none
     */
    public Admitted admit(@Nullable String token, @Nullable String ticket, String caller, long countedThrough) {
        Link link = token == null || token.length() > 100 ? null : table.byTokenHash(Hash.of(token)).orElse(null);
        if (link == null || link.terms().withdrawnAt() != null) {
            // Before anything else is asked of a withdrawn one, so that it takes no longer, and is counted like any other that is not known.
            limits.count(Limits.Kind.UNKNOWN_LINK, caller);
            throw refusal(LinkAdmission.UNKNOWN);
        }
        Round round = rounds.opened(link.roundId());
        LinkAdmission admission = LinkAdmission.decide(link.terms(), round.state(), round.closesAt(), link.id() == countedThrough,
                tickets.admits(ticket, PasscodeTickets.Of.LINK, link.id(), link.passcodeHash()), clock.instant());
        if (admission != LinkAdmission.ADMITTED) {
            throw refusal(admission);
        }
        return new Admitted(link, round);
    }

    /**
     * The same for whoever is about to put something in.
     *
     * @throws Problem with status 403 too where nothing can be put in through the link
     */
    public Admitted admitSending(@Nullable String token, @Nullable String ticket, String caller, long countedThrough) {
        Admitted in = admit(token, ticket, caller, countedThrough);
        if (!in.link().takesIn()) {
            throw Problem.of(Problem.Kind.FORBIDDEN, "link-takes-nothing");
        }
        return in;
    }

    /** Begins the personal link of a basket with terms of its own. Runs in the caller's transaction. @param passcodeHash null for none */
    public void begin(long basketId, LinkWindow window, String name, @Nullable String passcodeHash) {
        Link link = table.ofBasket(basketId).orElseThrow();
        if (table.set(link.id(), link.version(), LinkHeld.of(link.terms().with(window), name, passcodeHash)) != 1) {
            throw new IllegalStateException("The link of basket " + basketId + " was changed while it was made");
        }
    }

    /** The hash of a passcode; null of an empty one. It is slow, so it is made before a transaction begins. */
    public @Nullable String passcodeHash(String passcode) {
        return tickets.hash(passcode);
    }

    /** Lets the personal links of a basket take things in, or not; also those that it will have. Runs in the caller's transaction. */
    public void takeIn(long basketId, boolean on) {
        table.takeIn(basketId, on);
    }

    /**
     * Checks a passcode and gives a ticket that stands for it for some hours, also across restarts.
     *
     * @throws Problem when the link does not admit, the passcode is wrong, or too many were wrong
     */
    public String unlock(@Nullable String token, String passcode, String caller) {
        try {
            admit(token, null, caller);
            return "";
        } catch (Problem refused) {
            if (!refused.code().equals("link-passcode-needed")) {
                throw refused;
            }
        }
        Link link = table.byTokenHash(Hash.of(String.valueOf(token))).orElseThrow();
        return tickets.unlock(PasscodeTickets.Of.LINK, link.id(), String.valueOf(link.passcodeHash()), passcode, caller);
    }

    private static Problem refusal(LinkAdmission admission) {
        return switch (admission) {
            case UNKNOWN -> Problem.notFound("link-unknown");
            case PAUSED -> Problem.of(Problem.Kind.FORBIDDEN, "link-paused");
            case NOT_YET_BEGUN -> Problem.of(Problem.Kind.FORBIDDEN, "link-not-begun");
            case CLOSED -> Problem.of(Problem.Kind.GONE, "link-closed");
            case USED_UP -> Problem.of(Problem.Kind.GONE, "link-used-up");
            case PASSCODE_NEEDED -> Problem.of(Problem.Kind.SIGN_IN_NEEDED, "link-passcode-needed");
            case ADMITTED -> throw new IllegalStateException("Admitted is no refusal");
        };
    }
}
