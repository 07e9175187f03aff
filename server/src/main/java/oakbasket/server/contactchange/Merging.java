package oakbasket.server.contactchange;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;
import oakbasket.core.contact.ContactFields;
import oakbasket.core.contact.SamePerson;
import oakbasket.core.identity.MailAddress;
import oakbasket.server.basket.BasketHandover;
import oakbasket.server.contact.Contact;
import oakbasket.server.contact.ContactRecords;
import oakbasket.server.contact.Contacts;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.problem.Problem;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.Transactions;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import tools.jackson.databind.json.JsonMapper;

/** The same person twice: found, merged on a coordinator's word, and parted again. Contacts met through an open link: matched or discarded. */
@Service
class Merging {

    private static final int MOST_PAIRS = 200;
    private static final int MOST_ALIKE = 8;

    /** Two contacts that are probably one person. */
    record Pair(Contact one, Contact other) {
    }

    /** A contact that may be the same person, and how alike the names are, in percent. */
    record Alike(Contact contact, int percent) {
    }

    /** What was done, by whose number it can be undone. */
    record ContactsChanged(long act) {
    }

    /** What it takes to part two contacts again. */
    record Journal(long kept, long gone, ContactFields keptBefore, boolean keptProvisional, int keptVersionAfter, int goneVersion, List<Long> repointed, String baskets) {
    }

    /** What it takes to bring a discarded contact back. */
    record DiscardJournal(long contact, String baskets) {
    }

    private final ContactRecords records;
    private final Contacts contacts;
    private final ContactActTable acts;
    private final BasketHandover baskets;
    private final Transactions transactions;
    private final LiveHub live;
    private final Words words;
    private final JsonMapper json;
    private final Clock clock;

    Merging(ContactRecords records, Contacts contacts, ContactActTable acts, BasketHandover baskets, Transactions transactions, LiveHub live, Words words, JsonMapper json,
            Clock clock) {
        this.records = records;
        this.contacts = contacts;
        this.acts = acts;
        this.baskets = baskets;
        this.transactions = transactions;
        this.live = live;
        this.words = words;
        this.json = json;
        this.clock = clock;
    }

    /** Contacts of the same name and organisation, pairwise with the first of them. */
    List<Pair> twice() {
        Map<String, Contact> first = new HashMap<>();
        List<Pair> pairs = new ArrayList<>();
        for (Contact contact : records.all()) {
            Contact same = first.putIfAbsent(SamePerson.key(contact.name(), contact.organisation()), contact);
            if (same != null && pairs.size() < MOST_PAIRS) {
                pairs.add(new Pair(same, contact));
            }
        }
        return pairs;
    }

    /** Contacts with names like this one's, the likest first. */
    List<Alike> like(long id) {
        Contact wanted = contacts.byId(id);
        return records.all().stream().filter(other -> other.id() != id)
                .map(other -> new Alike(other, (int) (100 * SamePerson.likeness(wanted.name(), other.name())))).filter(alike -> alike.percent() >= 100 * SamePerson.NEAR)
                .sorted(Comparator.comparing(Alike::percent).reversed()).limit(MOST_ALIKE).toList();
    }

    /** Merges one contact into another: empty fields are filled, groups and rounds joined, and the address of the merged one leads to the kept one from now on. */
    ContactsChanged merge(long keptId, @Nullable Integer keptVersion, long goneId, @Nullable Integer goneVersion, long account) {
        // Contacts are of the whole office: also what whoever merges does not see goes over.
        return Acting.asOffice(() -> merged(keptId, keptVersion, goneId, goneVersion, account));
    }

    private ContactsChanged merged(long keptId, @Nullable Integer keptVersion, long goneId, @Nullable Integer goneVersion, long account) {
        Contact kept = contacts.byId(keptId);
        Contact gone = contacts.byId(goneId);
        if (keptVersion != null && keptVersion != kept.version() || goneVersion != null && goneVersion != gone.version()) {
            throw Problem.conflict("changed-elsewhere");
        }
        if (keptId == goneId || records.mergedInto(keptId).contains(goneId) || records.mergedInto(goneId).contains(keptId)) {
            throw Problem.refused("merge-same");
        }
        Instant now = clock.instant();
        return act(() -> {
            String moved = baskets.handOver(goneId, keptId, now);
            ContactFields joined = kept.fields().over(gone.fields());
            if (!records.update(keptId, kept.version(), joined, MailAddress.parse(kept.email()).key(), kept.provisional() && gone.provisional())) {
                throw Problem.conflict("changed-elsewhere");
            }
            List<Long> repointed = records.mergedInto(goneId);
            records.repoint(repointed, keptId);
            records.mergeInto(goneId, keptId);
            Journal journal = new Journal(keptId, goneId, kept.fields(), kept.provisional(), kept.version() + 1, gone.version(), repointed, moved);
            return acts.insert("merge", account, now, words.of("contact-act.merge", gone.name(), gone.email(), kept.name(), kept.email()), json.writeValueAsString(journal));
        });
    }

    /** Puts a contact met through an open link aside, with what it has in rounds. What was sent stays where it was filed. */
    ContactsChanged discard(long id, long account) {
        return Acting.asOffice(() -> discarded(id, account));
    }

    private ContactsChanged discarded(long id, long account) {
        Contact contact = contacts.byId(id);
        if (!contact.provisional() && baskets.any(id)) {
            throw Problem.conflict("contact-in-rounds");
        }
        Instant now = clock.instant();
        return act(() -> {
            String journal = json.writeValueAsString(new DiscardJournal(id, baskets.takeOut(id, now)));
            records.discard(id, now);
            return acts.insert("discard", account, now, words.of("contact-act.discard", contact.name(), contact.email()), journal);
        });
    }

    /** Undoes a merge or a discard. Runs in the caller's transaction. */
    void undo(ContactAct act) {
        if (act.kind().equals("discard")) {
            DiscardJournal journal = json.readValue(acts.detail(act.id()), DiscardJournal.class);
            records.discard(journal.contact(), null);
            baskets.takeBack(journal.baskets());
            return;
        }
        Journal journal = json.readValue(acts.detail(act.id()), Journal.class);
        ContactFields before = journal.keptBefore();
        if (!records.restore(journal.kept(), journal.keptVersionAfter(), before, MailAddress.parse(before.email()).key(), journal.keptProvisional())) {
            throw Problem.conflict("changed-elsewhere");
        }
        records.repoint(journal.repointed(), journal.gone());
        records.mergeInto(journal.gone(), null);
        // Both are as they were, so what was done before the merge can be undone as well.
        records.asAt(journal.kept(), journal.keptVersionAfter() - 1);
        records.asAt(journal.gone(), journal.goneVersion());
        baskets.takeBack(journal.baskets());
    }

    private ContactsChanged act(Supplier<Long> work) {
        ContactsChanged done = new ContactsChanged(transactions.durably(work));
        live.publish(LiveEvent.CONTACTS);
        return done;
    }
}
