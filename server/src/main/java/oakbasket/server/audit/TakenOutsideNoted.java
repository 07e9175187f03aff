package oakbasket.server.audit;

import java.util.List;
import oakbasket.core.audit.AuditKind;
import oakbasket.server.contact.Contacts;
import oakbasket.server.parcel.Parcel;
import oakbasket.server.parcel.ParcelFiles;
import oakbasket.server.parcel.ParcelLink;
import oakbasket.server.parcel.ParcelLinks;
import oakbasket.server.parcel.Parcels;
import oakbasket.server.parcel.TakenOutside;
import oakbasket.server.words.Words;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/** Notes what people outside took away of what was handed out to them; what goes together, such as an archive, in one entry. */
@Component
class TakenOutsideNoted {

    private static final long NO_ACCOUNT = 0;
    private static final int DONE = 200;

    private final AuditTrail trail;
    private final ParcelLinks links;
    private final Parcels parcels;
    private final ParcelFiles files;
    private final Contacts contacts;
    private final Words words;

    TakenOutsideNoted(AuditTrail trail, ParcelLinks links, Parcels parcels, ParcelFiles files, Contacts contacts, Words words) {
        this.trail = trail;
        this.links = links;
        this.parcels = parcels;
        this.files = files;
        this.contacts = contacts;
        this.words = words;
    }

    @EventListener
    void note(TakenOutside taken) {
        ParcelLink link = links.byId(taken.linkId());
        Parcel parcel = parcels.byIds(List.of(link.parcelId())).get(0);
        Long contact = link.contactId();
        String who = contact == null ? words.of("audit.anybody") : contacts.byId(contact).name();
        String what = taken.files().size() == 1 ? files.name(taken.files().get(0)) : words.of("audit.files", taken.files().size());
        trail.write(new AuditTrail.Somebody(NO_ACCOUNT, who, taken.caller()), AuditKind.TOOK, parcel.roundId() == null ? "GET /d" : "GET /x", parcel.title() + ": " + what, DONE);
    }
}
