package oakbasket.server.basket;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import oakbasket.server.link.Links;
import oakbasket.server.review.ReceivedFiles;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import tools.jackson.databind.json.JsonMapper;

/** Moves baskets, and what was sent into them, between contacts that turn out to be one person; and back. Runs in the caller's transaction. */
@Service
public class BasketHandover {

    /**
     * One basket that was moved.
     *
     * @param assigned files that did not follow their sendings; null in a journal of an earlier version
     * @param into the basket of the same round that its content went into; null when the basket itself was given
     */
    record Moved(long basket, long from, @Nullable Long into, List<Long> submissions, List<Long> links, @Nullable Instant removedBefore,
            @Nullable List<Long> assigned) {
    }

    record Journal(List<Moved> moved) {
    }

    private final BasketTable baskets;
    private final SubmissionTable submissions;
    private final ReceivedFiles files;
    private final Links links;
    private final JsonMapper json;

    BasketHandover(BasketTable baskets, SubmissionTable submissions, ReceivedFiles files, Links links, JsonMapper json) {
        this.baskets = baskets;
        this.submissions = submissions;
        this.files = files;
        this.links = links;
        this.json = json;
    }

    /** Whether a contact is or was in any round. */
    public boolean any(long contactId) {
        return !baskets.ofContacts(List.of(contactId)).isEmpty();
    }

    /**
     * Hands all baskets of one contact over to another. Where the other has one in the same round, what was sent moves into it.
     *
     * @return a journal for {@link #takeBack}
     */
    public String handOver(long from, long to, Instant at) {
        Map<Long, Basket> there = baskets.ofContacts(List.of(to)).stream().collect(Collectors.toMap(Basket::roundId, basket -> basket));
        List<Moved> moved = new ArrayList<>();
        for (Basket basket : baskets.ofContacts(List.of(from))) {
            Basket into = there.get(basket.roundId());
            if (into == null) {
                baskets.give(basket.id(), to);
                moved.add(new Moved(basket.id(), from, null, List.of(), List.of(), null, List.of()));
                continue;
            }
            List<Long> sent = submissions.ofBasket(basket.id()).stream().map(Submission::id).toList();
            move(sent, into.id());
            List<Long> assigned = files.assignedTo(basket.id());
            files.give(assigned, into.id());
            List<Long> repointed = links.repoint(basket.id(), into.id());
            baskets.remove(basket.id(), at);
            moved.add(new Moved(basket.id(), from, into.id(), sent, repointed, basket.allowance().removedAt(), assigned));
        }
        return json.writeValueAsString(new Journal(moved));
    }

    /**
     * Takes the baskets of somebody who came unasked out of their rounds.
     *
     * @return a journal for {@link #takeBack}
     */
    public String takeOut(long contactId, Instant at) {
        List<Moved> moved = new ArrayList<>();
        for (Basket basket : baskets.ofContacts(List.of(contactId))) {
            if (!basket.removed()) {
                baskets.remove(basket.id(), at);
                moved.add(new Moved(basket.id(), contactId, basket.id(), List.of(), List.of(), null, List.of()));
            }
        }
        return json.writeValueAsString(new Journal(moved));
    }

    /** Puts everything back as the journal says. */
    public void takeBack(String journal) {
        for (Moved moved : json.readValue(journal, Journal.class).moved()) {
            if (moved.into() == null) {
                baskets.give(moved.basket(), moved.from());
            } else {
                move(moved.submissions(), moved.basket());
                List<Long> assigned = moved.assigned();
                if (assigned != null) {
                    files.give(assigned, moved.basket());
                }
                links.giveBack(moved.links(), moved.basket());
                baskets.remove(moved.basket(), moved.removedBefore());
            }
        }
    }

    private void move(List<Long> sent, long basket) {
        submissions.move(sent, basket);
        files.move(sent, basket);
    }
}
