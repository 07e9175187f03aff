package oakbasket.server.basket;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import oakbasket.core.allowance.Allowance;
import oakbasket.core.allowance.AllowanceChange;
import oakbasket.core.identity.Person;
import oakbasket.core.round.RoundState;
import oakbasket.server.contact.Contact;
import oakbasket.server.contact.Contacts;
import oakbasket.server.link.Links;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.problem.Problem;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import oakbasket.server.storage.Known;
import oakbasket.server.storage.Transactions;
import org.jspecify.annotations.Nullable;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import tools.jackson.databind.json.JsonMapper;

/** What coordinators do to one basket or to many at once. All of it happens or none; each act can be undone as long as nobody did anything since. */
@Service
public class BasketActs {

    private static final int MOST_NAMES = 5;
    private static final int MOST_SHOWN = 200;

    /** A basket as the coordinator saw it. */
    record Target(long id, int version) {
    }

    /** What was done: its number, by which it can be undone, and how many baskets it changed. */
    record BasketsChanged(long act, int changed) {
    }

    /** What holds before an act, and the version it left. */
    record Before(long id, int versionAfter, @Nullable LocalDate extension, String extensionReason, @Nullable Instant waivedAt, Map<Long, Instant> waivedItems,
            @Nullable Instant pausedAt, @Nullable Instant removedAt, String note) {

        static Before of(Basket basket, int versionAfter) {
            Allowance held = basket.allowance();
            return new Before(basket.id(), versionAfter, held.extension(), held.extensionReason(), held.waivedAt(), new TreeMap<>(held.waivedItems()), held.pausedAt(),
                    held.removedAt(), held.note());
        }

        Allowance allowance() {
            return new Allowance(extension, extensionReason, waivedAt, waivedItems, pausedAt, removedAt, note);
        }
    }

    private record Detail(List<Before> before) {
    }

    private final BasketTable baskets;
    private final ActTable acts;
    private final Rounds rounds;
    private final Contacts contacts;
    private final Links links;
    private final ApplicationEventPublisher events;
    private final Transactions transactions;
    private final LiveHub live;
    private final JsonMapper json;
    private final Clock clock;

    BasketActs(BasketTable baskets, ActTable acts, Rounds rounds, Contacts contacts, Links links, ApplicationEventPublisher events, Transactions transactions, LiveHub live,
            JsonMapper json, Clock clock) {
        this.baskets = baskets;
        this.acts = acts;
        this.rounds = rounds;
        this.contacts = contacts;
        this.links = links;
        this.events = events;
        this.transactions = transactions;
        this.live = live;
        this.json = json;
        this.clock = clock;
    }

    /**
     * Changes baskets of one round.
     *
     * @throws Problem with status 422 when the change cannot be made, 409 naming the people whose basket somebody else changed meanwhile
     */
    BasketsChanged apply(long roundId, List<Target> targets, AllowanceChange change, long account) {
        Round round = rounds.opened(roundId);
        change.fault(clock.instant(), round.zone(), round.deadline().date()).ifPresent(fault -> {
            throw Problem.refused("fields").at(fault);
        });
        if (change instanceof AllowanceChange.ExcuseItem excuse && rounds.items(roundId).stream().noneMatch(item -> item.id() == excuse.itemId())) {
            throw Problem.notFound("no-item");
        }
        Instant now = clock.instant();
        BasketsChanged done = transactions.durably(() -> change(round, known(round, targets), change, account, now));
        tell(roundId, targets.stream().map(Target::id).toList());
        return done;
    }

    private BasketsChanged change(Round round, Map<Basket, Integer> seen, AllowanceChange change, long account, Instant now) {
        List<Before> before = new ArrayList<>();
        List<Basket> changedElsewhere = new ArrayList<>();
        seen.forEach((basket, version) -> {
            Allowance next = basket.allowance().after(change, now);
            if (basket.version() != version) {
                changedElsewhere.add(basket);
            } else if (!next.equals(basket.allowance())) {
                before.add(set(basket, next));
            }
        });
        if (!changedElsewhere.isEmpty()) {
            throw elsewhere(changedElsewhere);
        }
        if (before.isEmpty()) {
            return new BasketsChanged(0, 0);
        }
        if (change instanceof AllowanceChange.Extend extend && extend.until() != null) {
            List<Long> longer = before.stream().filter(one -> one.extension() == null || one.extension().isBefore(extend.until())).map(Before::id).toList();
            if (!longer.isEmpty()) {
                events.publishEvent(new MoreTimeGiven(round.id(), longer, account));
            }
        }
        long act = acts.insert(round.id(), account, now, kind(change), said(change, round.id()), json.writeValueAsString(new Detail(before)),
                before.stream().map(Before::id).toList());
        return new BasketsChanged(act, before.size());
    }

    /** What was done in a round, the newest first. */
    List<RoundAct> ofRound(long roundId) {
        return acts.ofRound(roundId, MOST_SHOWN);
    }

    /** Asks people in a round that gathers already. Whoever was removed is put back; whoever is in it is left alone. */
    BasketsChanged addLate(long roundId, List<Person> people, List<String> groups, long account) {
        Round round = rounds.opened(roundId);
        if (round.state() != RoundState.GATHERING) {
            throw Problem.conflict("round-not-gathering");
        }
        Instant now = clock.instant();
        List<Long> touched = new ArrayList<>();
        BasketsChanged done = transactions.durably(() -> {
            List<Long> wanted = new ArrayList<>(people.stream().map(contacts::asked).toList());
            groups.forEach(group -> wanted.addAll(contacts.idsOfGroup(group)));
            Map<Long, Basket> there = baskets.ofRound(roundId).stream().collect(Collectors.toMap(Basket::contactId, basket -> basket));
            Map<Long, Contact> known = contacts.byIds(wanted);
            List<Before> before = new ArrayList<>();
            for (long contact : wanted.stream().distinct().toList()) {
                Basket basket = there.get(contact);
                if (basket == null) {
                    long id = baskets.insert(roundId, contact, false, Known.in(known, contact).groups());
                    links.makePersonal(roundId, id);
                    Basket fresh = baskets.byId(id).orElseThrow();
                    Allowance out = Allowance.NONE.after(new AllowanceChange.Remove(true), now);
                    before.add(Before.of(new Basket(id, roundId, contact, fresh.version(), false, null, null, out, List.of()), fresh.version()));
                } else if (basket.removed()) {
                    before.add(set(basket, basket.allowance().after(new AllowanceChange.Remove(false), now)));
                }
            }
            touched.addAll(before.stream().map(Before::id).toList());
            links.keepLimit(roundId);
            if (round.letters().invite()) {
                events.publishEvent(new PeopleAsked(touched, account));
            }
            return before.isEmpty() ? new BasketsChanged(0, 0)
                    : new BasketsChanged(acts.insert(roundId, account, now, "add", "", json.writeValueAsString(new Detail(before)), touched), before.size());
        });
        tell(roundId, touched);
        return done;
    }

    /**
     * Undoes an act as a whole.
     *
     * @throws Problem with status 409 when it was undone before, or one of its baskets was changed since
     */
    BasketsChanged undo(long actId) {
        BasketAct act = acts.byId(actId).orElseThrow(() -> Problem.notFound("no-act"));
        List<Before> before = json.readValue(acts.detail(actId), Detail.class).before();
        transactions.durably(() -> {
            if (acts.undo(actId, clock.instant()) != 1) {
                throw Problem.conflict("undone-already");
            }
            Map<Long, Basket> now = baskets.byIds(before.stream().map(Before::id).toList()).stream().collect(Collectors.toMap(Basket::id, basket -> basket));
            List<Basket> changedSince = before.stream().filter(one -> Known.in(now, one.id()).version() != one.versionAfter()).map(one -> Known.in(now, one.id())).toList();
            if (!changedSince.isEmpty()) {
                throw elsewhere(changedSince);
            }
            before.forEach(one -> set(Known.in(now, one.id()), one.allowance()));
        });
        tell(act.roundId(), before.stream().map(Before::id).toList());
        return new BasketsChanged(actId, before.size());
    }

    /** What was done to a basket, the oldest first. */
    public List<BasketAct> ofBasket(long basketId) {
        return acts.ofBasket(basketId);
    }

    private Before set(Basket basket, Allowance next) {
        if (baskets.allow(basket, basket.version(), next) != 1) {
            throw elsewhere(List.of(basket));
        }
        if (basket.removed() != (next.removedAt() != null)) {
            Instant before = basket.allowance().removedAt();
            if (before == null) {
                links.withdrawPersonal(basket.id(), java.util.Objects.requireNonNull(next.removedAt()));
            } else {
                links.giveBackPersonal(basket.id(), before);
                links.keepLimit(basket.roundId());
            }
        }
        return Before.of(basket, basket.version() + 1);
    }

    private Map<Basket, Integer> known(Round round, List<Target> targets) {
        Map<Long, Integer> versions = new TreeMap<>();
        targets.forEach(target -> versions.put(target.id(), target.version()));
        List<Basket> found = baskets.byIds(versions.keySet());
        if (found.size() != versions.size() || found.stream().anyMatch(basket -> basket.roundId() != round.id())) {
            throw Problem.notFound("no-basket");
        }
        return found.stream().collect(Collectors.toMap(basket -> basket, basket -> versions.get(basket.id()), (one, other) -> one, java.util.LinkedHashMap::new));
    }

    private Problem elsewhere(List<Basket> changed) {
        Map<Long, Contact> people = contacts.byIds(changed.stream().limit(MOST_NAMES).map(Basket::contactId).toList());
        String names = people.values().stream().map(Contact::name).sorted().collect(Collectors.joining(", ")) + (changed.size() > MOST_NAMES ? "…" : "");
        return Problem.conflict("basket-changed-elsewhere", names);
    }

    private void tell(long roundId, List<Long> changed) {
        if (changed.size() > 200) {
            live.publish(new LiveEvent("round", roundId, null));
        } else {
            changed.forEach(id -> live.publish(new LiveEvent("basket", roundId, id)));
        }
    }

    private static String kind(AllowanceChange change) {
        if (change instanceof AllowanceChange.Extend extend) {
            return extend.until() == null ? "unextend" : "extend";
        }
        if (change instanceof AllowanceChange.ExcuseAll excuse) {
            return excuse.on() ? "excuse" : "unexcuse";
        }
        if (change instanceof AllowanceChange.ExcuseItem excuse) {
            return excuse.on() ? "excuse-item" : "unexcuse-item";
        }
        if (change instanceof AllowanceChange.Pause pause) {
            return pause.on() ? "pause" : "unpause";
        }
        if (change instanceof AllowanceChange.Remove remove) {
            return remove.on() ? "remove" : "put-back";
        }
        return "note";
    }

    private String said(AllowanceChange change, long roundId) {
        if (change instanceof AllowanceChange.Extend extend) {
            return extend.until() == null ? "" : extend.until() + ": " + extend.reason();
        }
        if (change instanceof AllowanceChange.ExcuseItem excuse) {
            return rounds.items(roundId).stream().filter(item -> item.id() == excuse.itemId()).map(item -> item.spec().title()).findFirst().orElse("");
        }
        return change instanceof AllowanceChange.Note note ? note.text() : "";
    }
}
