package oakbasket.server.post;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import oakbasket.core.parcel.ParcelState;
import oakbasket.core.reminder.PlannedLetter;
import oakbasket.core.reminder.Recipient;
import oakbasket.core.reminder.ReminderDecision;
import oakbasket.server.Settings;
import oakbasket.server.contact.Contacts;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.parcel.Parcel;
import oakbasket.server.parcel.ParcelHandedOut;
import oakbasket.server.parcel.ParcelLink;
import oakbasket.server.parcel.ParcelLinks;
import oakbasket.server.parcel.Parcels;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.Transactions;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/** Looks at the plans of parcels and writes to those who have not taken everything away, by the same rules as those who owe papers: never to whoever is done, never sooner than the gap, never in quiet hours. */
@Service
public class ParcelReminders {

    private static final Logger LOG = LoggerFactory.getLogger(ParcelReminders.class);

    private final Parcels parcels;
    private final ParcelLinks links;
    private final PlannedLetters planned;
    private final Letters letters;
    private final Contacts contacts;
    private final Transactions transactions;
    private final LiveHub live;
    private final Settings settings;
    private final Clock clock;

    ParcelReminders(Parcels parcels, ParcelLinks links, PlannedLetters planned, Letters letters, Contacts contacts, Transactions transactions, LiveHub live, Settings settings, Clock clock) {
        this.parcels = parcels;
        this.links = links;
        this.planned = planned;
        this.letters = letters;
        this.contacts = contacts;
        this.transactions = transactions;
        this.live = live;
        this.settings = settings;
        this.clock = clock;
    }

    /** Writes to whom a step fell due since the last look. */
    @Scheduled(fixedDelayString = "${oakbasket.reminders-every:PT30S}")
    public void look() {
        Acting.officeDoes(this::lookNow);
    }

    private synchronized void lookNow() {
        Instant now = clock.instant();
        List<Parcel> live = parcels.handedOutUntil(now).stream().filter(parcel -> !parcel.reminders().isEmpty() && parcel.state(now) == ParcelState.LIVE).toList();
        if (live.isEmpty()) {
            return;
        }
        PlannedLetters.Look look = planned.look(now);
        for (Parcel parcel : live) {
            try {
                look(parcel, look, now);
            } catch (RuntimeException broken) {
                LOG.error("The reminders of parcel {} could not be looked at", parcel.id(), broken);
            }
        }
    }

    private void look(Parcel parcel, PlannedLetters.Look look, Instant now) {
        // What fell due before the first look is done with.
        Instant before = java.util.Objects.requireNonNullElse(parcels.remindersLookedAt(parcel.id()), now);
        List<ParcelLink> due = new ArrayList<>();
        LocalDate end = LocalDate.ofInstant(parcel.window().end(), settings.zone());
        for (ParcelLink link : links.ofParcels(List.of(parcel.id()))) {
            Long contact = link.contactId();
            if (contact == null || link.withdrawnAt() != null) {
                continue;
            }
            List<PlannedLetter> letters = look.ofParcel(parcel.reminders(), end, contact, settings.zone());
            // By the calendar alone most looks find nothing, and then nobody's pick-ups are asked for.
            if (letters.stream().anyMatch(letter -> letter.at().isAfter(before) && !letter.at().isAfter(now))
                    && ReminderDecision.decide(letters, recipient(parcel, link, contact, look), before, now) instanceof ReminderDecision.Send) {
                due.add(link);
            }
        }
        transactions.durably(() -> {
            parcels.remindersLooked(parcel.id(), now);
            if (!due.isEmpty()) {
                letters.handedOut(new ParcelHandedOut(due, true, null));
            }
        });
        if (!due.isEmpty()) {
            live.publish(LiveEvent.PARCELS);
            live.publish(new LiveEvent(LiveEvent.LETTER, 0, null));
        }
    }

    private Recipient recipient(Parcel parcel, ParcelLink link, long contact, PlannedLetters.Look look) {
        @Nullable Instant finished = parcels.finishedAt(parcel, link).orElse(null);
        return new Recipient(true, false, false, false, finished, false, true, look.reachable(contacts.byId(contact).email()), look.last(contact), look.gap());
    }
}
