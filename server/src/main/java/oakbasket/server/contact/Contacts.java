package oakbasket.server.contact;

import java.time.Clock;
import java.util.Collection;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import oakbasket.core.identity.Person;
import org.springframework.stereotype.Service;

/** Finds contacts and makes those that are met for the first time. Calls run in the caller's transaction. */
@Service
public class Contacts {

    private final ContactTable table;
    private final Clock clock;

    Contacts(ContactTable table, Clock clock) {
        this.table = table;
        this.clock = clock;
    }

    /** The contacts by id; ids that do not exist are left out. */
    public Map<Long, Contact> byIds(Collection<Long> ids) {
        return table.byIds(ids).stream().collect(Collectors.toMap(Contact::id, Function.identity()));
    }

    /** One contact that is known to exist. */
    public Contact byId(long id) {
        return byIds(java.util.List.of(id)).get(id);
    }

    /** The contact with this address, made when missing. A person asked by a coordinator stops being provisional. */
    public long asked(Person person) {
        Optional<Contact> known = table.byKey(person.address().key());
        known.filter(Contact::provisional).ifPresent(contact -> table.confirm(contact.id(), person.name()));
        return known.map(Contact::id).orElseGet(() -> add(person, "", "", false));
    }

    /** The contact with this self-declared address, made as provisional when missing. */
    public long declared(Person person) {
        return table.byKey(person.address().key()).map(Contact::id).orElseGet(() -> add(person, "", "", true));
    }

    /** Makes a contact. */
    public long add(Person person, String organisation, String reference, boolean provisional) {
        return table.insert(person.name(), person.address().text(), person.address().key(), organisation, reference, provisional, clock.instant());
    }

    /** Puts a contact into a group, made when missing. */
    public void join(String group, long contact) {
        table.join(group, contact);
    }
}
