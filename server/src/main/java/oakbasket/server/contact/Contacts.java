package oakbasket.server.contact;

import java.time.Clock;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import oakbasket.core.contact.AddressSlip;
import oakbasket.core.contact.ContactFields;
import oakbasket.core.fault.Fault;
import oakbasket.core.fault.Remark;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.mail.MailReach;
import oakbasket.server.problem.Problem;
import oakbasket.server.storage.Transactions;
import org.springframework.stereotype.Service;

/** Finds, makes and changes contacts and groups. */
@Service
public class Contacts {

    /** A contact as kept, and what is odd about it, such as a probable slip in the address. */
    record Saved(Contact contact, List<Remark> remarks) {
    }

    private final ContactTable table;
    private final GroupTable groups;
    private final Transactions transactions;
    private final LiveHub live;
    private final MailReach reach;
    private final Clock clock;

    Contacts(ContactTable table, GroupTable groups, Transactions transactions, LiveHub live, MailReach reach, Clock clock) {
        this.reach = reach;
        this.table = table;
        this.groups = groups;
        this.transactions = transactions;
        this.live = live;
        this.clock = clock;
    }

    /** The contacts by id; ids that do not exist are left out. */
    public Map<Long, Contact> byIds(Collection<Long> ids) {
        return table.byIds(ids).stream().collect(Collectors.toMap(Contact::id, Function.identity()));
    }

    /** One contact, or 404. */
    public Contact byId(long id) {
        return table.byIds(List.of(id)).stream().findFirst().orElseThrow(() -> Problem.notFound("no-contact"));
    }

    /** Contacts whose name, address, organisation or reference holds these words, by name. */
    public List<Contact> find(String words, int most) {
        return table.page(new ContactTable.Wanted(words, "", false), 0, most);
    }

    /**
     * A page of contacts, by name.
     *
     * @param find part of a name, address, organisation or reference; empty for all
     * @param group only who is in it; empty for all
     * @param provisional whether only provisional ones
     */
    List<Contact> page(String find, String group, boolean provisional, int from, int most) {
        return table.page(new ContactTable.Wanted(find, group, provisional), from, most);
    }

    /** How many contacts {@link #page} would give in all. */
    int count(String find, String group, boolean provisional) {
        return table.count(new ContactTable.Wanted(find, group, provisional));
    }

    /** All contacts, by name. */
    List<Contact> all() {
        return table.all();
    }

    /** How many contacts are in each group, by name. */
    public Map<String, Integer> groupSizes() {
        return groups.sizes();
    }

    /** Who is in a group now. */
    public List<Long> idsOfGroup(String group) {
        return groups.members(group);
    }

    /** The groups of contacts, each list by name; contacts in none are left out. */
    public Map<Long, List<String>> groupsOf(Collection<Long> contacts) {
        return groups.of(contacts);
    }

    /** The contact and those merged into it. */
    public List<Long> withMerged(long id) {
        List<Long> all = new ArrayList<>(table.mergedInto(id));
        all.add(id);
        return all;
    }

    /** How many people these and the members of the groups are together, nobody counted twice. */
    public int together(Collection<Person> people, Collection<String> groups) {
        Map<String, Long> known = table.keys();
        Set<Object> all = new HashSet<>();
        people.forEach(person -> all.add(known.containsKey(person.address().key()) ? known.get(person.address().key()) : person.address().key()));
        groups.forEach(group -> all.addAll(idsOfGroup(group)));
        return all.size();
    }

    /** The contact with this address. */
    public Optional<Contact> withAddress(MailAddress address) {
        return table.byKey(address.key());
    }

    /** The contacts that are known, by what identifies their mailboxes. */
    public Map<String, Long> byKeys() {
        return table.keys();
    }

    /** The zones of those whose zone is known. */
    public Map<Long, String> zones() {
        return table.zones();
    }

    /** How many contacts are provisional. */
    public int provisional() {
        return table.count(new ContactTable.Wanted("", "", true));
    }

    /** The contact with this address, made when missing. A person asked by a coordinator stops being provisional. Runs in the caller's transaction. */
    public long asked(Person person) {
        Optional<Contact> known = table.byKey(person.address().key());
        known.filter(Contact::provisional).ifPresent(contact -> table.confirm(contact.id(), person.name()));
        known.map(Contact::id).filter(table::discarded).ifPresent(id -> table.discard(id, null));
        return known.map(Contact::id).orElseGet(() -> add(person, "", "", false));
    }

    /** The contact with this self-declared address, made as provisional when missing; one that was discarded comes back. Runs in the caller's transaction. */
    public long declared(Person person) {
        Optional<Contact> known = table.byKey(person.address().key());
        known.map(Contact::id).filter(table::discarded).ifPresent(id -> table.discard(id, null));
        return known.map(Contact::id).orElseGet(() -> add(person, "", "", true));
    }

    /** Forgets a contact that an open link made and in which nothing is; one that a coordinator touched stays. Runs in the caller's transaction. */
    public void forgetProvisional(long id) {
        table.deleteProvisional(id);
    }

    /** Makes a contact. Runs in the caller's transaction. */
    public long add(Person person, String organisation, String reference, boolean provisional) {
        ContactFields fields = new ContactFields(person.name(), person.address().text(), organisation, reference, "", "", "", List.of());
        return table.insert(fields, person.address().key(), provisional, clock.instant());
    }

    /** Puts a contact into a group, made when missing. Runs in the caller's transaction. */
    public void join(String group, long contact) {
        groups.add(group);
        groups.join(group, contact);
    }

    /**
     * Makes a contact by hand.
     *
     * @throws Problem naming the fields that cannot be kept, or the contact that has the address already
     */
    Saved make(ContactFields fields) {
        String key = check(fields, 0);
        long id = transactions.durably(() -> {
            long made = table.insert(fields, key, false, clock.instant());
            fields.groups().forEach(group -> join(group, made));
            return made;
        });
        live.publish(LiveEvent.CONTACTS);
        return saved(id);
    }

    /**
     * Changes a contact; a provisional one is complete with that.
     *
     * @throws Problem with status 409 when it was changed since {@code version}
     */
    Saved change(long id, int version, ContactFields fields) {
        Contact before = byId(id);
        String key = check(fields, id);
        transactions.durably(() -> {
            if (table.update(id, version, fields, key, false) != 1) {
                throw Problem.conflict("changed-elsewhere");
            }
            before.groups().stream().filter(group -> !fields.groups().contains(group)).forEach(group -> groups.leave(group, id));
            fields.groups().forEach(group -> join(group, id));
        });
        live.publish(LiveEvent.CONTACTS);
        return saved(id);
    }

    /** Puts contacts into a group, or takes them out of it. */
    int regroup(String group, Collection<Long> contacts, boolean in) {
        String name = group.strip();
        List<Fault> faults = new ContactFields("x", "x@example.org", "", "", "", "", "", List.of(name)).faults();
        if (name.isEmpty() || !faults.isEmpty()) {
            throw Problem.refused("fields").at(name.isEmpty() ? Fault.of("group", "group-name-missing") : faults.get(0).remark().at("group"));
        }
        int known = byIds(contacts).size();
        transactions.durably(() -> contacts.forEach(id -> {
            if (in) {
                join(name, id);
            } else {
                groups.leave(name, id);
            }
        }));
        live.publish(LiveEvent.CONTACTS);
        return known;
    }

    /** Takes an empty group away. */
    void removeGroup(String group) {
        if (transactions.durably(() -> groups.delete(group)) != 1) {
            throw Problem.conflict("group-in-use", group);
        }
        live.publish(LiveEvent.CONTACTS);
    }

    private Saved saved(long id) {
        Contact contact = byId(id);
        return new Saved(contact, AddressSlip.suggestion(MailAddress.parse(contact.email())).map(meant -> List.of(Remark.of("perhaps-meant", meant))).orElse(List.of()));
    }

    private String check(ContactFields fields, long id) {
        List<Fault> faults = fields.faults();
        if (!faults.isEmpty()) {
            throw Problem.fields(faults);
        }
        MailAddress address = MailAddress.parse(fields.email());
        reach.fault("email", address).ifPresent(fault -> {
            throw Problem.fields(List.of(fault));
        });
        String key = address.key();
        table.byKey(key).filter(other -> other.id() != id).ifPresent(other -> {
            throw Problem.field("email", "address-taken", other.name());
        });
        return key;
    }
}
