package oakbasket.server.board;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import oakbasket.core.standing.FileFact;
import oakbasket.server.basket.Basket;
import oakbasket.server.basket.Baskets;
import oakbasket.server.contact.Contact;
import oakbasket.server.contact.Contacts;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.Known;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/**
 * Keeps in memory what the rules need to know of the rounds somebody looked at last, so that looking again costs no reading of everything. What was published
 * as changed is read anew before it is used; standings are never kept, since they depend on the time.
 */
@Component
class RoundMemory {

    /** What is known of one basket: its files, and which item each is for, by place. */
    record BasketFacts(Basket basket, Contact contact, long[] items, FileFact[] files) {
    }

    private static final int MOST_BASKETS = 150_000;
    /** From this many changed baskets on, the whole round is read anew. */
    private static final int MANY = 300;

    private static final class Entry {
        private final Set<Long> touched = ConcurrentHashMap.newKeySet();
        private @Nullable Map<Long, BasketFacts> facts;
        private volatile int size;
    }

    private final Map<Long, Entry> entries = new LinkedHashMap<>(16, 0.75f, true);
    private final Baskets baskets;
    private final Contacts contacts;
    private final ReceivedFiles files;

    RoundMemory(Baskets baskets, Contacts contacts, ReceivedFiles files, LiveHub live) {
        this.baskets = baskets;
        this.contacts = contacts;
        this.files = files;
        live.listen(this::changed);
    }

    /** What is known of all baskets of a round, removed ones included, in the order of their making. */
    List<BasketFacts> of(long roundId) {
        Entry entry;
        synchronized (entries) {
            // The entry is there before anything is read, so that what changes meanwhile is noted in it.
            entry = entries.computeIfAbsent(roundId, id -> new Entry());
        }
        // What is remembered is remembered for everybody.
        return Acting.asOffice(() -> upToDate(roundId, entry));
    }

    private List<BasketFacts> upToDate(long roundId, Entry entry) {
        synchronized (entry) {
            List<Long> stale = new ArrayList<>(entry.touched);
            entry.touched.removeAll(stale);
            Map<Long, BasketFacts> facts = entry.facts;
            if (facts == null || stale.size() > MANY) {
                facts = read(baskets.ofRound(roundId), files.factsOfRound(roundId));
                entry.facts = facts;
                entry.size = facts.size();
                evict();
            } else if (!stale.isEmpty()) {
                facts.putAll(read(baskets.byIds(stale), files.factsOfBaskets(stale)));
            }
            return List.copyOf(facts.values());
        }
    }

    /** What is known of some baskets, by their ids, read at a cost that does not depend on the size of their rounds. */
    Map<Long, BasketFacts> ofBaskets(Collection<Basket> chosen) {
        return read(chosen, files.factsOfBaskets(chosen.stream().map(Basket::id).toList()));
    }

    private Map<Long, BasketFacts> read(Collection<Basket> read, Map<Long, List<ReceivedFiles.ItemFact>> received) {
        Map<Long, Contact> people = contacts.byIds(read.stream().map(Basket::contactId).toList());
        Map<Long, BasketFacts> facts = new LinkedHashMap<>();
        for (Basket basket : read) {
            List<ReceivedFiles.ItemFact> here = received.getOrDefault(basket.id(), List.of());
            facts.put(basket.id(), new BasketFacts(basket, Known.in(people, basket.contactId()), here.stream().mapToLong(ReceivedFiles.ItemFact::itemId).toArray(),
                    here.stream().map(ReceivedFiles.ItemFact::fact).toArray(FileFact[]::new)));
        }
        return facts;
    }

    private void changed(LiveEvent event) {
        if (event.type().equals(LiveEvent.LETTER) || event.type().equals(LiveEvent.MOMENT) || event.type().equals(LiveEvent.PRESENCE) || event.equals(LiveEvent.TEAM) || event.equals(LiveEvent.SHARED) || event.equals(LiveEvent.PARCELS) || event.equals(LiveEvent.TAKEN)) {
            return;
        }
        synchronized (entries) {
            Long basket = event.basketId();
            if (event.roundId() == 0) {
                entries.clear();
            } else if (basket == null) {
                entries.remove(event.roundId());
            } else if (entries.containsKey(event.roundId())) {
                entries.get(event.roundId()).touched.add(basket);
            }
        }
    }

    private void evict() {
        synchronized (entries) {
            int all = entries.values().stream().mapToInt(entry -> entry.size).sum();
            var eldest = entries.entrySet().iterator();
            while (all > MOST_BASKETS && entries.size() > 1 && eldest.hasNext()) {
                all -= eldest.next().getValue().size;
                eldest.remove();
            }
        }
    }
}
