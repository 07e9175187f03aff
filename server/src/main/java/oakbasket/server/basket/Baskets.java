package oakbasket.server.basket;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import oakbasket.core.identity.Person;
import oakbasket.server.contact.Contacts;
import oakbasket.server.link.Links;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.round.Asking;
import oakbasket.server.storage.Transactions;
import oakbasket.server.web.Problem;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Makes baskets and notes what happens to them. */
@Service
public class Baskets implements Asking {

    private static final int LONGEST_REASON = 500;

    private final BasketTable table;
    private final Contacts contacts;
    private final Links links;
    private final Transactions transactions;
    private final LiveHub live;
    private final Clock clock;

    Baskets(BasketTable table, Contacts contacts, Links links, Transactions transactions, LiveHub live, Clock clock) {
        this.table = table;
        this.contacts = contacts;
        this.links = links;
        this.transactions = transactions;
        this.live = live;
        this.clock = clock;
    }

    @Override
    public void ask(long roundId, List<Person> people, boolean openLink, String passcode) {
        for (Person person : people) {
            links.makePersonal(roundId, table.insert(roundId, contacts.asked(person), false));
        }
        if (openLink) {
            links.makeOpen(roundId, passcode);
        }
    }

    /** One basket, or 404. */
    public Basket byId(long id) {
        return table.byId(id).orElseThrow(() -> Problem.notFound("no-basket"));
    }

    /** All baskets of a round. */
    public List<Basket> ofRound(long roundId) {
        return table.ofRound(roundId);
    }

    /**
     * The basket of a self-declared person, matched by address with the people asked, or a new walk-in basket. Runs in the caller's
     * transaction.
     */
    Basket declared(long roundId, Person person) {
        long contact = contacts.declared(person);
        return table.lockOfContact(roundId, contact).orElseGet(() -> byId(table.insert(roundId, contact, true)));
    }

    /** Notes that the personal link was handed over. */
    public void handedOver(long basketId) {
        note(basketId, transactions.durably(() -> table.asked(basketId, clock.instant())));
    }

    /** Notes that the sender saw the page. */
    void pageSeen(long basketId) {
        note(basketId, transactions.quickly(() -> table.opened(basketId, clock.instant())));
    }

    /** Excuses one item, or takes that back. */
    void waiveItem(long basketId, long itemId, boolean waived) {
        transactions.durably(() -> {
            if (waived) {
                table.waiveItem(basketId, itemId, clock.instant());
            } else {
                table.unwaiveItem(basketId, itemId);
            }
        });
        note(basketId, 1);
    }

    /** Excuses a whole basket, or takes that back. */
    void waive(long basketId, boolean waived) {
        note(basketId, transactions.durably(() -> table.waive(basketId, waived ? clock.instant() : null)));
    }

    /**
     * Gives a basket a deadline of its own, the end of a date in the round's zone, or takes it back.
     *
     * @param date null takes the extension back
     * @throws Problem when the date is past or there is no reason
     */
    void extend(long basketId, ZoneId zone, @Nullable LocalDate date, String reason) {
        if (date != null) {
            if (date.isBefore(LocalDate.ofInstant(clock.instant(), zone)) || date.getYear() > 9999) {
                throw Problem.refused("fields").at("date", "Choose today or a later day");
            }
            if (reason.isBlank() || reason.strip().length() > LONGEST_REASON) {
                throw Problem.refused("fields").at("reason", reason.isBlank() ? "Say why, for whoever looks at this later" : "Use at most " + LONGEST_REASON + " characters");
            }
        }
        note(basketId, transactions.durably(() -> table.extend(basketId, date, date == null ? "" : reason.strip())));
    }

    /** Sets dates of the past; only the demo does. */
    public void backdate(long id, @Nullable Instant asked, @Nullable Instant opened, @Nullable Instant waived, @Nullable LocalDate extension, String reason) {
        transactions.quickly(() -> {
            if (asked != null) {
                table.asked(id, asked);
            }
            if (opened != null) {
                table.opened(id, opened);
            }
            if (waived != null) {
                table.waive(id, waived);
            }
            if (extension != null) {
                table.extend(id, extension, reason);
            }
            return true;
        });
    }

    /** Excuses one item at a time of the past; only the demo does. */
    public void backdateWaiver(long basketId, long itemId, Instant at) {
        transactions.quickly(() -> {
            table.waiveItem(basketId, itemId, at);
            return true;
        });
    }

    private void note(long basketId, int changed) {
        if (changed > 0) {
            live.publish(new LiveEvent("basket", byId(basketId).roundId(), basketId));
        }
    }
}
