package oakbasket.server.contact;

import ezvcard.Ezvcard;
import ezvcard.VCard;
import ezvcard.VCardVersion;
import ezvcard.property.StructuredName;
import ezvcard.property.Timezone;
import ezvcard.property.Uid;
import java.util.Collection;
import oakbasket.server.decode.work.CardsFile;
import oakbasket.server.web.ReadersText;

/** Contacts written as vCards (RFC 6350). */
final class VcardFile {

    /** What {@link CardsFile} reads again. */
    private static final String REFERENCE = CardsFile.REFERENCE;

    private VcardFile() {
    }

    static String write(Collection<Contact> contacts) {
        return Ezvcard.write(contacts.stream().map(VcardFile::card).toList()).version(VCardVersion.V4_0).prodId(false).go();
    }

    private static VCard card(Contact contact) {
        VCard card = new VCard();
        card.setUid(new Uid("urn:oak-basket:contact:" + contact.id()));
        card.setFormattedName(contact.name());
        int space = contact.name().lastIndexOf(' ');
        StructuredName parts = new StructuredName();
        parts.setGiven(space < 0 ? contact.name() : contact.name().substring(0, space));
        parts.setFamily(space < 0 ? null : contact.name().substring(space + 1));
        card.setStructuredName(parts);
        card.addEmail(contact.email());
        if (!contact.organisation().isEmpty()) {
            card.setOrganization(contact.organisation());
        }
        if (!contact.reference().isEmpty()) {
            card.setExtendedProperty(REFERENCE, contact.reference());
        }
        if (!contact.language().isEmpty()) {
            card.addLanguage(contact.language());
        }
        if (!contact.zone().isEmpty()) {
            card.setTimezone(new Timezone(contact.zone()));
        }
        if (!contact.notes().isEmpty()) {
            card.addNote(ReadersText.of(contact.notes()));
        }
        if (!contact.groups().isEmpty()) {
            card.setCategories(contact.groups().toArray(String[]::new));
        }
        return card;
    }
}
