package oakbasket.server.parcel;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.zip.CRC32;
import oakbasket.core.identity.Person;
import oakbasket.core.link.LinkWindow;
import oakbasket.core.parcel.ParcelTerms;
import oakbasket.core.parcel.Taken;
import oakbasket.core.reminder.ReminderStep;
import oakbasket.server.Settings;
import oakbasket.server.contact.Contacts;
import oakbasket.server.security.Hash;
import oakbasket.server.storage.Transactions;
import oakbasket.server.upload.ContentLook;
import org.springframework.stereotype.Component;

/** Records parcels of the past; only the demo does. */
@Component
public class PastParcels {

    private final ParcelTable table;
    private final ParcelFileTable files;
    private final ParcelActTable acts;
    private final ParcelBytes bytes;
    private final ParcelLinks links;
    private final ParcelLinkTable linkTable;
    private final PickUpTable pickUps;
    private final ContentLook look;
    private final Contacts contacts;
    private final Transactions transactions;
    private final Settings settings;
    private final Clock clock;

    PastParcels(ParcelTable table, ParcelFileTable files, ParcelActTable acts, ParcelBytes bytes, ParcelLinks links, ParcelLinkTable linkTable, PickUpTable pickUps, ContentLook look, Contacts contacts,
            Transactions transactions, Settings settings, Clock clock) {
        this.clock = clock;
        this.table = table;
        this.files = files;
        this.acts = acts;
        this.bytes = bytes;
        this.links = links;
        this.linkTable = linkTable;
        this.pickUps = pickUps;
        this.look = look;
        this.contacts = contacts;
        this.transactions = transactions;
        this.settings = settings;
    }

    /**
     * A parcel that was handed out, or a draft.
     *
     * @param contents by the names of files
     * @param took how many of its files each person took, in their order
     */
    public void record(long account, String title, String message, List<Person> people, boolean open, Map<String, byte[]> contents, Instant at, boolean draft, List<Integer> took) {
        transactions.quickly(() -> {
            long id = table.insert(account, ParcelTerms.USUAL_DAYS, ParcelTerms.USUAL_KEPT_DAYS, at);
            acts.insert(id, ParcelAct.Kind.MADE, "", account, at);
            int number = 1;
            for (Map.Entry<String, byte[]> one : contents.entrySet()) {
                file(id, number++, one.getKey(), one.getValue());
            }
            Parcel parcel = table.byId(id).orElseThrow();
            table.update(ParcelBuilder.builder(parcel).title(title).message(message).open(open).handedOutAt(draft ? null : at)
                    .window(draft ? parcel.window() : LinkWindow.ofDays(at, null, ParcelTerms.USUAL_DAYS, settings.zone()))
                    .reminders(List.of(new ReminderStep(-3, ReminderStep.Unit.CALENDAR, java.time.LocalTime.of(9, 0))))
                    .people(draft ? people.stream().map(person -> new Parcel.TypedPerson(person.name(), person.address().text())).toList() : List.of()).build(), parcel.version());
            if (!draft) {
                acts.insert(id, ParcelAct.Kind.HANDED_OUT, "", account, at);
                for (int n = 0; n < people.size(); n++) {
                    take(links.make(id, contacts.asked(people.get(n)), at), id, n < took.size() ? took.get(n) : 0, at.plus(Duration.ofHours(5L * n + 3)));
                }
                if (open) {
                    links.make(id, null, at);
                }
            }
            return true;
        });
    }

    /** Puts files into an exchange. @param taken how many of them its person took */
    public void lay(long exchange, long way, Map<String, byte[]> contents, int taken) {
        transactions.quickly(() -> {
            contents.forEach((name, content) -> file(exchange, files.nextNumber(exchange), name, content));
            take(links.byId(way), exchange, taken, clock.instant().minus(Duration.ofHours(3)));
            return true;
        });
    }

    /** The files of an exchange by their numbers, in their order. */
    public List<Long> idsOf(long exchange) {
        return files.ofParcel(exchange).stream().map(ParcelFile::id).toList();
    }

    private void file(long parcel, int number, String name, byte[] content) {
        String bytesId = "demo-" + parcel + "-" + number;
        try {
            bytes.write(bytesId, 0, content.length, new ByteArrayInputStream(content));
            CRC32 crc = new CRC32();
            crc.update(content);
            long id = files.insert(parcel, number, name, content.length, bytesId, null, ParcelFile.State.COMING);
            files.advance(id, 0, content.length);
            files.turn(id, ParcelFile.State.COMING, ParcelFile.State.CHECKING, "");
            files.ready(id, Hash.sha256().digest(content), crc.getValue(), look.mediaType(bytes.path(bytesId), name), false);
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }

    private void take(ParcelLink link, long parcel, int some, Instant at) {
        if (some == 0) {
            return;
        }
        linkTable.seen(link.id(), at.minusSeconds(40));
        files.ofParcel(parcel).stream().limit(some).forEach(file -> pickUps.update(pickUps.insert(link.id(), file.id(), "192.0.2." + (10 + link.id() % 200), at), Taken.NOTHING.with(0, file.sizeBytes()).written(), at, true));
    }
}
