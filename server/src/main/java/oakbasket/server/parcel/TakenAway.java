package oakbasket.server.parcel;

import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import oakbasket.server.contact.Contact;
import oakbasket.server.contact.Contacts;
import oakbasket.server.storage.Known;
import org.springframework.stereotype.Service;

/** What was taken away of somebody's parcels within a time, as it is told to them. */
@Service
public class TakenAway {

    /** What one person took of one parcel, or of an exchange. @param person empty where anybody could come */
    public record Taking(long parcelId, boolean exchange, String parcel, long linkId, String person, Instant at, int files) {

        /** Where it is seen at the desk. */
        public String path() {
            return (exchange ? "/exchanges/" : "/parcels/") + parcelId;
        }
    }

    /** As many files are looked at; who hands out more is told of the rest the next time. */
    private static final int MOST = 1_000;

    private final PickUps pickUps;
    private final ParcelLinks links;
    private final Parcels parcels;
    private final Contacts contacts;

    TakenAway(PickUps pickUps, ParcelLinks links, Parcels parcels, Contacts contacts) {
        this.pickUps = pickUps;
        this.links = links;
        this.parcels = parcels;
        this.contacts = contacts;
    }

    /** What was taken after a moment and up to another, the latest first. */
    public List<Taking> of(long account, Instant after, Instant upTo) {
        Map<Long, List<PickUps.Took>> byLink = pickUps.between(account, after, upTo, MOST).stream().collect(Collectors.groupingBy(PickUps.Took::linkId, LinkedHashMap::new, Collectors.toList()));
        Map<Long, ParcelLink> its = links.byIds(byLink.keySet()).stream().collect(Collectors.toMap(ParcelLink::id, link -> link));
        Map<Long, Parcel> of = parcels.byIds(its.values().stream().map(ParcelLink::parcelId).distinct().toList()).stream().collect(Collectors.toMap(Parcel::id, one -> one));
        Map<Long, Contact> people = contacts.byIds(its.values().stream().map(ParcelLink::contactId).filter(Objects::nonNull).distinct().toList());
        return byLink.entrySet().stream().map(entry -> {
            ParcelLink link = Known.in(its, entry.getKey());
            Parcel parcel = Known.in(of, link.parcelId());
            Long contact = link.contactId();
            return new Taking(parcel.id(), parcel.roundId() != null, parcel.title(), link.id(), contact == null ? "" : Known.in(people, contact).name(), entry.getValue().get(entry.getValue().size() - 1).at(), entry.getValue().size());
        }).sorted(java.util.Comparator.comparing(Taking::at).reversed()).toList();
    }
}
