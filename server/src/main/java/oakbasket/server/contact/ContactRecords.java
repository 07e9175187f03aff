package oakbasket.server.contact;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Set;
import oakbasket.core.contact.ContactFields;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Contacts and groups as they are kept, for what changes many of them at once and can take it back. Everything runs in the caller's transaction. */
@Service
public class ContactRecords {

    private final ContactTable contacts;
    private final GroupTable groups;

    ContactRecords(ContactTable contacts, GroupTable groups) {
        this.contacts = contacts;
        this.groups = groups;
    }

    /** All contacts but those merged or discarded, by name. */
    public List<Contact> all() {
        return contacts.all();
    }

    /** The ids of all contacts by what identifies their mailbox, those of merged and discarded ones included. */
    public Map<String, Long> keys() {
        return contacts.keys();
    }

    /** Makes a contact in these groups; groups are made when missing. */
    public long insert(ContactFields fields, String emailKey, boolean provisional, Instant now) {
        long id = contacts.insert(fields, emailKey, provisional, now);
        join(id, fields.groups());
        return id;
    }

    /**
     * Changes the fields of a contact and puts it into its groups; it leaves none.
     *
     * @return whether it still had this version
     */
    public boolean update(long id, int version, ContactFields fields, String emailKey, boolean provisional) {
        boolean changed = contacts.update(id, version, fields, emailKey, provisional) == 1;
        if (changed) {
            join(id, fields.groups());
        }
        return changed;
    }

    /**
     * Gives a contact the fields it had before and takes it out of groups that it was not in then. It is put into none: what it has left since, it left on purpose.
     *
     * @return whether it still had this version
     */
    public boolean restore(long id, int version, ContactFields before, String emailKey, boolean provisional) {
        boolean changed = contacts.update(id, version, before, emailKey, provisional) == 1;
        if (changed) {
            groups.of(List.of(id)).getOrDefault(id, List.of()).stream().filter(group -> !before.groups().contains(group)).forEach(group -> groups.leave(group, id));
        }
        return changed;
    }

    /** Has a contact count as one that was merged into another; null takes it back. */
    public void mergeInto(long id, @Nullable Long kept) {
        contacts.mergeInto(id, kept);
    }

    /** The contacts that were merged into one. */
    public List<Long> mergedInto(long id) {
        return contacts.mergedInto(id);
    }

    /** Has merged contacts count as merged into another. */
    public void repoint(List<Long> ids, @Nullable Long kept) {
        contacts.repoint(ids, kept);
    }

    /** Sets the version of a contact back, so that what was done at it can be undone. */
    public void asAt(long id, int version) {
        contacts.asAt(id, version);
    }

    /** Puts a contact aside, or brings it back where {@code at} is null. */
    public void discard(long id, @Nullable Instant at) {
        contacts.discard(id, at);
    }

    /** Deletes a contact; whether it still had this version. */
    public boolean delete(long id, int version) {
        return contacts.delete(id, version) == 1;
    }

    /** The names of all groups. */
    public Set<String> groupNames() {
        return groups.names();
    }

    /** Takes an empty group away; one with somebody in it stays. */
    public void deleteGroup(String name) {
        groups.delete(name);
    }

    private void join(long id, Collection<String> names) {
        names.forEach(name -> {
            groups.add(name);
            groups.join(name, id);
        });
    }
}
