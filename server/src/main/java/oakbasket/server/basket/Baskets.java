package oakbasket.server.basket;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import oakbasket.core.allowance.Allowance;
import oakbasket.core.allowance.AllowanceChange;
import oakbasket.core.identity.Person;
import oakbasket.server.contact.Contact;
import oakbasket.server.contact.Contacts;
import oakbasket.server.link.Links;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.problem.Problem;
import oakbasket.server.storage.Known;
import oakbasket.server.storage.Transactions;
import org.jspecify.annotations.Nullable;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;

/** Makes baskets and notes what happens to them. */
@Service
public class Baskets {

    /** Somebody who is asked in a round. */
    public record Asked(String name, String email) {
    }

    private final BasketTable table;
    private final Contacts contacts;
    private final Links links;
    private final Transactions transactions;
    private final LiveHub live;
    private final ApplicationEventPublisher events;
    private final Clock clock;

    Baskets(BasketTable table, Contacts contacts, Links links, Transactions transactions, LiveHub live, ApplicationEventPublisher events, Clock clock) {
        this.table = table;
        this.contacts = contacts;
        this.links = links;
        this.transactions = transactions;
        this.live = live;
        this.events = events;
        this.clock = clock;
    }

    /**
     * Makes a basket and a personal link for each person and each member of the groups, and the open link where there is one. Runs in the transaction of
     * the opening.
     *
     * @param passcode for the open link; empty means none
     * @return the new baskets
     */
    public List<Long> ask(long roundId, List<Person> people, Collection<String> groups, boolean openLink, String passcode) {
        LinkedHashSet<Long> asked = new LinkedHashSet<>(people.stream().map(contacts::asked).toList());
        groups.forEach(group -> asked.addAll(contacts.idsOfGroup(group)));
        Map<Long, List<String>> memberships = contacts.groupsOf(asked);
        List<Long> made = new ArrayList<>();
        for (long contact : asked) {
            made.add(table.insert(roundId, contact, false, memberships.getOrDefault(contact, List.of())));
            links.makePersonal(roundId, made.get(made.size() - 1));
        }
        if (openLink) {
            links.makeOpen(roundId, passcode);
        }
        links.keepLimit(roundId);
        return made;
    }

    /** Who is asked in a round now, without walk-ins and those removed. */
    public List<Asked> asked(long roundId) {
        List<Basket> in = table.ofRound(roundId).stream().filter(basket -> !basket.removed() && !basket.walkIn()).toList();
        Map<Long, Contact> people = contacts.byIds(in.stream().map(Basket::contactId).toList());
        return in.stream().map(basket -> Known.in(people, basket.contactId())).map(contact -> new Asked(contact.name(), contact.email())).toList();
    }

    /** One basket, or 404. */
    public Basket byId(long id) {
        return table.byId(id).orElseThrow(() -> Problem.notFound("no-basket"));
    }

    /** Baskets by id; ids that do not exist are left out. */
    public List<Basket> byIds(Collection<Long> ids) {
        return table.byIds(ids);
    }

    /** The names of the people whose baskets these are, by the basket. */
    public Map<Long, String> names(Collection<Long> ids) {
        List<Basket> found = byIds(ids);
        Map<Long, Contact> people = contacts.byIds(found.stream().map(Basket::contactId).toList());
        return found.stream().collect(Collectors.toMap(Basket::id, basket -> Known.in(people, basket.contactId()).name()));
    }

    /** All baskets of a round, those removed from it included. */
    public List<Basket> ofRound(long roundId) {
        return table.ofRound(roundId);
    }

    /** The days to which deadlines of a round were extended, each once. */
    public List<LocalDate> extensionsOf(long roundId) {
        return table.extensionsOf(roundId);
    }

    /** The days to which deadlines were extended, each once, by the round. */
    public Map<Long, List<LocalDate>> extensions() {
        return table.extensions();
    }

    /** All baskets of these contacts, in whatever round. */
    public List<Basket> ofContacts(Collection<Long> contactIds) {
        return table.ofContacts(contactIds);
    }

    /**
     * The basket of a self-declared person from whom something has arrived, matched by address with the people asked, or a new walk-in basket. One that was
     * removed comes back, so that nothing sent lies where nobody looks. Runs in the caller's transaction.
     */
    Basket arrivedFrom(long roundId, Person person) {
        long contact = contacts.declared(person);
        Basket basket = table.lockOfContact(roundId, contact).orElseGet(() -> byId(table.insert(roundId, contact, true, List.of())));
        if (basket.removed()) {
            table.comeBack(basket.id());
        }
        return basket;
    }

    /** Whether the person of a basket was ever asked, and so has a link of their own. */
    boolean everAsked(Basket basket) {
        return links.ever(basket.id());
    }

    /**
     * Takes a basket away again into which nothing came after all, with a contact that was only made for it. Runs in the caller's transaction.
     *
     * @return whether it was one of those
     */
    boolean forgetIfEmpty(long basketId) {
        Basket basket = byId(basketId);
        if (!basket.walkIn() || everAsked(basket) || table.anySubmission(basketId) || basket.version() > 1) {
            return false;
        }
        table.delete(basketId);
        if (table.ofContacts(List.of(basket.contactId())).isEmpty()) {
            contacts.forgetProvisional(basket.contactId());
        }
        return true;
    }

    /** Notes that an invitation went. */
    public void invited(long basketId, Instant at) {
        note(basketId, transactions.quickly(() -> table.asked(basketId, at)));
    }

    /** Notes that the personal link was handed over. */
    public void handedOver(long basketId) {
        byId(basketId);
        note(basketId, transactions.durably(() -> table.asked(basketId, clock.instant())));
    }

    /** Notes that the sender saw the page. */
    public void pageSeen(long basketId) {
        note(basketId, transactions.quickly(() -> table.opened(basketId, clock.instant())));
        events.publishEvent(new PageSeen(basketId));
    }

    /** Gives a basket to another contact. Runs in the caller's transaction. */
    public void give(long basketId, long contactId) {
        table.give(basketId, contactId);
    }

    /** Takes a basket out of its round or puts it back. Runs in the caller's transaction. */
    public void remove(long basketId, @Nullable Instant at) {
        table.remove(basketId, at);
    }

    /** Sets dates of the past; only the demo does. */
    public void backdate(long id, @Nullable Instant asked, @Nullable Instant opened, @Nullable Instant waived, @Nullable LocalDate extension, String reason) {
        transactions.quickly(() -> {
            if (asked != null) {
                table.asked(id, asked);
            }
            if (opened != null) {
                table.opened(id, opened);
            }
            Allowance next = byId(id).allowance();
            next = waived == null ? next : next.after(new AllowanceChange.ExcuseAll(true), waived);
            next = extension == null ? next : next.after(new AllowanceChange.Extend(extension, reason), clock.instant());
            return set(id, next);
        });
    }

    /** Makes a change at a time of the past; only the demo does. */
    public void backdate(long basketId, AllowanceChange change, Instant at) {
        transactions.quickly(() -> set(basketId, byId(basketId).allowance().after(change, at)));
    }

    private int set(long id, Allowance next) {
        Basket basket = byId(id);
        return table.allow(basket, basket.version(), next);
    }

    private void note(long basketId, int changed) {
        if (changed > 0) {
            live.publish(new LiveEvent("basket", byId(basketId).roundId(), basketId));
        }
    }
}
