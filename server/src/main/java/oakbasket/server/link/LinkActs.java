package oakbasket.server.link;

import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Base64;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import oakbasket.core.link.LinkChange;
import oakbasket.core.link.LinkTerms;
import oakbasket.core.team.Permission;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.problem.Problem;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import oakbasket.server.security.Hash;
import oakbasket.server.security.SecretKeys;
import oakbasket.server.storage.Known;
import oakbasket.server.storage.Transactions;
import oakbasket.server.teamsetting.TeamSettings;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;
import tools.jackson.databind.json.JsonMapper;

/** What coordinators do to one link or to many at once. All of it happens or none; each act can be undone as long as nobody did anything to these links since. */
@Service
public class LinkActs {

    private static final int MOST_SHOWN = 200;

    /** What was done: its number, by which it can be undone, and how many links it changed; 0 and 0 when there was nothing to change. */
    public record LinksChanged(long act, int changed) {
    }

    private record Next(LinkHeld held, byte @Nullable [] tokenHash, byte @Nullable [] tokenSealed) {
    }

    private final LinkTable links;
    private final LinkActTable acts;
    private final Rounds rounds;
    private final SecretKeys keys;
    private final PasswordEncoder encoder;
    private final Transactions transactions;
    private final LiveHub live;
    private final Words words;
    private final JsonMapper json;
    private final Clock clock;
    private final TeamSettings team;

    LinkActs(LinkTable links, LinkActTable acts, Rounds rounds, SecretKeys keys, PasswordEncoder encoder, Transactions transactions, LiveHub live, Words words, JsonMapper json,
            Clock clock, TeamSettings team) {
        this.team = team;
        this.links = links;
        this.acts = acts;
        this.rounds = rounds;
        this.keys = keys;
        this.encoder = encoder;
        this.transactions = transactions;
        this.live = live;
        this.words = words;
        this.json = json;
        this.clock = clock;
    }

    /**
     * Changes the terms of links; those on which it would change nothing are left alone.
     *
     * @throws Problem with status 409 when one of them was changed by somebody else in the same moment
     */
    public LinksChanged apply(Collection<Long> ids, LinkChange change, long account) {
        Instant now = clock.instant();
        Map<Long, ZoneId> zones = new HashMap<>();
        return change(links.byIds(ids), kind(change), saidOfRenewal(change), account, link -> {
            ZoneId zone = zones.computeIfAbsent(link.roundId(), id -> rounds.opened(id).zone());
            return new Next(LinkHeld.of(change.on(link.terms(), now, zone), link.name(), link.passcodeHash()), null, null);
        });
    }

    /**
     * Gives one link other terms and another readable name.
     *
     * @param version the link as the coordinator saw it
     * @throws Problem with status 422 naming the field, 409 when somebody changed it meanwhile
     */
    public LinksChanged setTerms(long id, int version, LinkChange.Terms terms, String name, long account) {
        Link link = seen(id, version);
        Instant now = clock.instant();
        terms.window().fault(now).ifPresent(fault -> {
            throw Problem.refused("fields").at(fault);
        });
        terms.limits().fault().ifPresent(fault -> {
            throw Problem.refused("fields").at(fault);
        });
        Round round = rounds.opened(link.roundId());
        LinkTerms after = terms.on(link.terms(), now, round.zone());
        return change(List.of(link), "link-terms", saidOf(after, round.zone()), account, same -> new Next(LinkHeld.of(after, name, link.passcodeHash()), null, null));
    }

    /** Asks for a passcode from now on, or for none where it is empty. Whoever typed the one before has to type this one. */
    LinksChanged setPasscode(long id, int version, String passcode, long account) {
        return setPasscode(List.of(seen(id, version)), passcode, account);
    }

    /** The same for many links at once; they share the one slow hash. */
    LinksChanged setPasscode(Collection<Long> ids, String passcode, long account) {
        return setPasscode(links.byIds(ids), passcode, account);
    }

    private LinksChanged setPasscode(List<Link> some, String passcode, long account) {
        String hash = passcode.isEmpty() ? null : encoder.encode(passcode);
        return change(some, hash == null ? "link-no-passcode" : "link-passcode", "", account, link -> new Next(LinkHeld.of(link.terms(), link.name(), hash), null, null));
    }

    /** Gives a link a new address; the one before is unknown from now on. */
    LinksChanged newAddress(long id, int version, long account) {
        Link link = seen(id, version);
        String token = keys.token();
        return change(List.of(link), "link-address", "", account,
                same -> new Next(LinkHeld.of(link), Hash.of(token), keys.seal(token.getBytes(StandardCharsets.US_ASCII))));
    }

    private Link seen(long id, int version) {
        Link link = links.byId(id).orElseThrow(() -> Problem.notFound("no-link"));
        if (link.version() != version) {
            throw Problem.conflict("changed-elsewhere");
        }
        return link;
    }

    private LinksChanged change(List<Link> wanted, String kind, String said, long account, java.util.function.Function<Link, Next> next) {
        List<Link> changed = new ArrayList<>();
        long act = transactions.durably(() -> {
            long[] number = {0};
            for (Link link : wanted) {
                Next after = next.apply(link);
                boolean moved = after.tokenHash() != null;
                if (!moved && after.held().equals(LinkHeld.of(link))) {
                    continue;
                }
                LinkHeld before = moved ? LinkHeld.of(link).withToken(Base64.getEncoder().encodeToString(link.tokenSealed())) : LinkHeld.of(link);
                if (changed.isEmpty()) {
                    number[0] = acts.insert(kind, said, account, clock.instant());
                }
                int rows = after.tokenHash() != null && after.tokenSealed() != null ? links.setToken(link.id(), link.version(), after.tokenHash(), after.tokenSealed())
                        : links.set(link.id(), link.version(), after.held());
                if (rows != 1) {
                    throw Problem.conflict("changed-elsewhere");
                }
                acts.insert(number[0], new LinkActTable.Done(link.id(), link.version() + 1, json.writeValueAsString(before)));
                changed.add(link);
            }
            revived(changed);
            return number[0];
        });
        tell(changed);
        return new LinksChanged(act, changed.size());
    }

    /**
     * Undoes an act as a whole.
     *
     * @throws Problem with status 409 when it was undone before, or one of its links was changed since
     */
    LinksChanged undo(long actId) {
        List<LinkActTable.Done> done = acts.byId(actId).map(act -> acts.done(act.id())).orElseThrow(() -> Problem.notFound("no-act"));
        Map<Long, Link> now = links.byIds(done.stream().map(LinkActTable.Done::linkId).toList()).stream().collect(Collectors.toMap(Link::id, link -> link));
        transactions.durably(() -> {
            if (acts.undo(actId, clock.instant()) != 1) {
                throw Problem.conflict("undone-already");
            }
            for (LinkActTable.Done one : done) {
                LinkHeld held = json.readValue(one.held(), LinkHeld.class);
                int version = Known.in(now, one.linkId()).version();
                if (version != one.versionAfter() || links.set(one.linkId(), version, held) != 1) {
                    throw Problem.conflict("links-changed-since");
                }
                String sealed = held.tokenSealed();
                if (sealed != null) {
                    byte[] before = Base64.getDecoder().decode(sealed);
                    links.setToken(one.linkId(), version + 1, Hash.of(new String(keys.open(before), StandardCharsets.US_ASCII)), before);
                }
            }
            revived(now.values());
        });
        tell(now.values());
        return new LinksChanged(actId, done.size());
    }

    /** Looks whether links that did not work before may work now, in the transaction that changed them. */
    private void revived(Collection<Link> before) {
        Instant now = clock.instant();
        List<Link> dead = before.stream().filter(link -> link.terms().withdrawnAt() != null || link.terms().window().ended(now)).toList();
        if (dead.stream().anyMatch(link -> link.basketId() == null)) {
            team.need(Permission.OPEN_LINK);
        }
        dead.stream().map(Link::roundId).distinct().forEach(team::keepLimitOfRound);
    }

    /** What was done to a link, the oldest first. */
    List<LinkAct> ofLink(long id) {
        return acts.ofLink(id);
    }

    /** What was done to the links of a basket, the oldest first. */
    public List<LinkAct> ofBasket(long basketId) {
        return acts.ofBasket(basketId);
    }

    /** What was done to links of a round, the newest first. */
    public List<LinkAct> ofRound(long roundId) {
        return acts.ofRound(roundId, MOST_SHOWN);
    }

    private void tell(Collection<Link> changed) {
        if (changed.size() <= MOST_SHOWN) {
            changed.forEach(link -> live.publish(new LiveEvent(LiveEvent.LINK, link.roundId(), link.basketId())));
        } else {
            changed.stream().map(Link::roundId).distinct().forEach(round -> live.publish(new LiveEvent(LiveEvent.LINK, round, null)));
        }
    }

    private static String kind(LinkChange change) {
        if (change instanceof LinkChange.Pause pause) {
            return pause.on() ? "link-pause" : "link-go-on";
        }
        if (change instanceof LinkChange.Withdraw withdraw) {
            return withdraw.on() ? "link-withdraw" : "link-give-back";
        }
        return change instanceof LinkChange.Renew ? "link-renew" : "link-terms";
    }

    private String saidOfRenewal(LinkChange change) {
        if (!(change instanceof LinkChange.Renew renew)) {
            return "";
        }
        Integer days = renew.days();
        return days == null ? words.of("link.while-gathering") : words.of("link.for-days", days);
    }

    private String saidOf(LinkTerms terms, ZoneId zone) {
        DateTimeFormatter when = DateTimeFormatter.ofPattern("d MMM yyyy, HH:mm", words.language()).withZone(zone);
        UnaryOperator<String> from = rest -> {
            Instant begins = terms.window().beginsAt();
            return begins == null ? rest : words.of("link.from", when.format(begins), rest);
        };
        Instant ends = terms.window().endsAt();
        return from.apply(ends == null ? words.of("link.while-gathering") : words.of("link.until", when.format(ends)));
    }
}
