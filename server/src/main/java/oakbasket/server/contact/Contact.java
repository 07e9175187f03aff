package oakbasket.server.contact;

import java.util.List;
import oakbasket.core.contact.ContactFields;

/**
 * A person who may be asked.
 *
 * @param version counts changes; a change names the version it was made from
 * @param language a language tag; empty when not known
 * @param zone an IANA zone; empty when not known
 * @param groups by name
 * @param provisional whether the contact only exists because somebody said so on an open link
 */
public record Contact(long id, int version, String name, String email, String organisation, String reference, String language, String zone, String notes, List<String> groups,
        boolean provisional) {

    /** The first of the contact's groups by name; empty when in none. */
    public String group() {
        return groups.isEmpty() ? "" : groups.get(0);
    }

    /** What is known of the person. */
    public ContactFields fields() {
        return new ContactFields(name, email, organisation, reference, language, zone, notes, groups);
    }
}
