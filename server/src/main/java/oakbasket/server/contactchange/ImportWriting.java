package oakbasket.server.contactchange;

import java.time.Clock;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.IntConsumer;
import oakbasket.core.contact.ContactFields;
import oakbasket.core.contact.ImportPlan;
import oakbasket.core.identity.MailAddress;
import oakbasket.server.basket.BasketHandover;
import oakbasket.server.contact.Contact;
import oakbasket.server.contact.ContactRecords;
import oakbasket.server.contact.Contacts;
import oakbasket.server.parcel.ParcelLinks;
import oakbasket.server.storage.Known;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import tools.jackson.databind.json.JsonMapper;

/** Writes what an import means into the contacts, and takes it back. */
@Service
class ImportWriting {

    private static final int TOLD_EVERY = 100;

    /** A contact that an import changed. */
    record Changed(long id, int versionAfter, ContactFields before, boolean provisional) {
    }

    /** A contact that an import made. */
    record Added(long id, int version) {
    }

    /** What it takes to undo an import. */
    record Journal(List<Added> added, List<Changed> changed, @Nullable List<String> groups) {
    }

    private final ContactRecords records;
    private final Contacts contacts;
    private final ContactActTable acts;
    private final BasketHandover baskets;
    private final ParcelLinks parcels;
    private final Words words;
    private final JsonMapper json;
    private final Clock clock;

    ImportWriting(ContactRecords records, Contacts contacts, ContactActTable acts, BasketHandover baskets, ParcelLinks parcels, Words words, JsonMapper json, Clock clock) {
        this.records = records;
        this.contacts = contacts;
        this.acts = acts;
        this.baskets = baskets;
        this.parcels = parcels;
        this.words = words;
        this.json = json;
        this.clock = clock;
    }

    /**
     * Does what a plan says. Runs in the caller's transaction.
     *
     * @param far told now and then how many lines are done
     * @return the act by which it can be undone
     */
    long write(ImportPlan plan, long account, String source, IntConsumer far) {
        Map<String, Long> ids = records.keys();
        Set<String> groupsBefore = records.groupNames();
        Map<Long, Added> added = new LinkedHashMap<>();
        Map<Long, Changed> changed = new LinkedHashMap<>();
        int done = 0;
        for (ImportPlan.Line line : plan.lines()) {
            ContactFields result = line.result();
            if (result != null && line.verdict() == ImportPlan.Verdict.ADDED && ids.containsKey(line.key())) {
                // Somebody who was discarded comes back.
                long id = ids.get(line.key());
                records.discard(id, null);
                Contact before = contacts.byId(id);
                records.update(id, before.version(), result, line.key(), false);
                changed.put(id, new Changed(id, before.version() + 1, before.fields(), before.provisional()));
            } else if (result != null && line.verdict() == ImportPlan.Verdict.ADDED) {
                long id = records.insert(result, line.key(), false, clock.instant());
                ids.put(line.key(), id);
                added.put(id, new Added(id, 1));
            } else if (result != null && line.verdict() == ImportPlan.Verdict.CHANGED) {
                long id = Known.in(ids, line.key());
                Contact before = contacts.byId(id);
                records.update(id, before.version(), result, MailAddress.parse(result.email()).key(), false);
                if (added.computeIfPresent(id, (key, was) -> new Added(id, before.version() + 1)) == null) {
                    Changed first = changed.get(id);
                    changed.put(id, new Changed(id, before.version() + 1, first == null ? before.fields() : first.before(), first == null ? before.provisional() : first.provisional()));
                }
            }
            if (++done % TOLD_EVERY == 0) {
                far.accept(done);
            }
        }
        List<String> made = records.groupNames().stream().filter(name -> !groupsBefore.contains(name)).toList();
        String summary = words.of("contact-act.import", source, added.size(), changed.size());
        return acts.insert("import", account, clock.instant(), summary, json.writeValueAsString(new Journal(List.copyOf(added.values()), List.copyOf(changed.values()), made)));
    }

    /** Undoes an import. Runs in the caller's transaction. */
    int undo(long actId) {
        Journal journal = json.readValue(acts.detail(actId), Journal.class);
        int kept = 0;
        List<String> made = journal.groups() == null ? List.of() : journal.groups();
        for (Added added : journal.added()) {
            kept += !baskets.any(added.id()) && !parcels.any(added.id()) && records.delete(added.id(), added.version()) ? 0 : 1;
        }
        for (Changed changed : journal.changed()) {
            ContactFields before = changed.before();
            kept += records.restore(changed.id(), changed.versionAfter(), before, MailAddress.parse(before.email()).key(), changed.provisional()) ? 0 : 1;
        }
        made.forEach(records::deleteGroup);
        return kept;
    }
}
