package oakbasket.server.parcel;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import oakbasket.core.fault.Fault;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.core.link.LinkWindow;
import oakbasket.core.parcel.ParcelCheck;
import oakbasket.core.parcel.ParcelState;
import oakbasket.core.parcel.ParcelTerms;
import oakbasket.core.reminder.ReminderStep;
import oakbasket.core.team.Permission;
import oakbasket.core.team.Share;
import oakbasket.server.Settings;
import oakbasket.server.account.Account;
import oakbasket.server.contact.Contacts;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.PasscodeTickets;
import oakbasket.server.sharing.Sharing;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.Transactions;
import oakbasket.server.teamsetting.TeamSettings;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/** Makes parcels, hands them out, and changes on which terms they can be taken away. */
@Service
public class Parcels {

    /**
     * What was typed of a parcel.
     *
     * @param days how long it can be taken away; null where {@code endsAt} says until when
     * @param passcode null where it stays as it is, empty for none
     * @param people who get a link; of a draft only
     */
    record Sheet(String title, String message, @Nullable Integer days, @Nullable Instant beginsAt, @Nullable Instant endsAt, @Nullable String passcode, @Nullable Integer mostPickUps, int keptDays,
            String name, List<ReminderStep> reminders, List<Person> people, boolean open, boolean byLetter, boolean whenReady) {
    }

    private static final Logger LOG = LoggerFactory.getLogger(Parcels.class);

    private final ParcelTable table;
    private final ParcelFileTable files;
    private final ParcelActTable acts;
    private final ParcelLinks links;
    private final ParcelLinkTable linkTable;
    private final ParcelFiles contents;
    private final PickUps pickUps;
    private final Contacts contacts;
    private final PasscodeTickets tickets;
    private final Transactions transactions;
    private final ApplicationEventPublisher events;
    private final LiveHub live;
    private final Settings settings;
    private final Clock clock;
    private final TeamSettings team;
    private final Sharing sharing;

    Parcels(ParcelTable table, ParcelFileTable files, ParcelActTable acts, ParcelLinks links, ParcelLinkTable linkTable, ParcelFiles contents, PickUps pickUps, Contacts contacts,
            PasscodeTickets tickets, Transactions transactions, ApplicationEventPublisher events, LiveHub live, Settings settings, Clock clock, TeamSettings team, Sharing sharing) {
        this.sharing = sharing;
        this.team = team;
        this.table = table;
        this.files = files;
        this.acts = acts;
        this.links = links;
        this.linkTable = linkTable;
        this.contents = contents;
        this.pickUps = pickUps;
        this.contacts = contacts;
        this.tickets = tickets;
        this.transactions = transactions;
        this.events = events;
        this.live = live;
        this.settings = settings;
        this.clock = clock;
    }

    /** A parcel, or 404; the files of an exchange are none. */
    public Parcel byId(long id) {
        return table.byId(id).filter(parcel -> parcel.roundId() == null).orElseThrow(() -> Problem.notFound("no-parcel"));
    }

    /** Parcels by id; ids that do not exist are left out. */
    public List<Parcel> byIds(Collection<Long> ids) {
        return table.byIds(ids);
    }

    /** Begins a draft. */
    long begin(long account) {
        Instant now = clock.instant();
        long id = transactions.durably(() -> {
            long made = table.insert(account, ParcelTerms.USUAL_DAYS, ParcelTerms.USUAL_KEPT_DAYS, now);
            acts.insert(made, ParcelAct.Kind.MADE, "", account, now);
            return made;
        });
        live.publish(LiveEvent.PARCELS);
        return id;
    }

    /**
     * Keeps what was typed. After it was handed out, its terms hold at once, also through links that were given out before.
     *
     * @throws Problem with status 422 naming fields, or 409 when it was changed since {@code version}
     */
    void change(long id, int version, Sheet sheet, long account) {
        Parcel before = byId(id);
        Instant now = clock.instant();
        boolean draft = before.handedOutAt() == null;
        if (draft && sheet.open() && !before.open()) {
            team.need(Permission.OPEN_LINK);
        }
        boolean sameWindow = !draft && Objects.equals(sheet.days(), before.days()) && Objects.equals(sheet.beginsAt(), before.window().beginsAt())
                && (sheet.days() != null || Objects.equals(sheet.endsAt(), before.window().endsAt()));
        LinkWindow window = sameWindow ? before.window() : sheet.days() == null ? new LinkWindow(now, sheet.beginsAt(), sheet.endsAt()) : days(now, sheet.beginsAt(), sheet.days());
        List<Fault> faults = new ArrayList<>(ParcelCheck.faults(new ParcelCheck.Typed(sheet.title(), sheet.message(), sameWindow ? LinkWindow.whileGathering(now) : window, Objects.requireNonNullElse(sheet.passcode(), ""),
                sheet.mostPickUps(), sheet.keptDays(), sheet.people()), now));
        if (!draft && sheet.title().isBlank()) {
            faults.add(Fault.of("title", "parcel-title-missing"));
        }
        if (!faults.isEmpty()) {
            throw Problem.fields(faults);
        }
        String passcode = sheet.passcode();
        Parcel after = ParcelBuilder.builder(before).title(sheet.title().strip()).message(sheet.message().strip()).days(sheet.days()).window(window)
                .passcodeHash(passcode == null ? before.passcodeHash() : tickets.hash(passcode.strip())).mostPickUps(sheet.mostPickUps()).keptDays(sheet.keptDays()).name(sheet.name())
                .reminders(sheet.reminders()).people(draft ? sheet.people().stream().map(person -> new Parcel.TypedPerson(person.name(), person.address().text())).toList() : List.of())
                .open(draft ? sheet.open() : before.open()).byLetter(sheet.byLetter()).whenReady(draft && sheet.whenReady()).build();
        transactions.durably(() -> {
            update(after, version);
            if (!draft) {
                acts.insert(id, ParcelAct.Kind.CHANGED, "", account, now);
            }
        });
        live.publish(LiveEvent.PARCELS);
        if (after.whenReady()) {
            handOutWhatIsReady();
        }
    }

    private LinkWindow days(Instant now, @Nullable Instant beginsAt, int days) {
        if (days < 1 || days > LinkWindow.LONGEST_LIFE.toDays()) {
            throw Problem.field("days", "link-days", LinkWindow.LONGEST_LIFE.toDays());
        }
        return LinkWindow.ofDays(now, beginsAt, days, settings.zone());
    }

    /** Shares a parcel otherwise, or hands it over. @return as it is shared then */
    Share share(long id, Share wanted, Account by) {
        byId(id);
        sharing.changeOfParcel(id, wanted, contents.roundsIn(id), by);
        transactions.durably(() -> acts.insert(id, ParcelAct.Kind.SHARED, "", by.id(), clock.instant()));
        return Acting.asOffice(() -> sharing.ofParcel(id));
    }

    /** Throws a draft away. */
    void discard(long id) {
        Parcel parcel = byId(id);
        if (parcel.handedOutAt() != null) {
            throw Problem.conflict("parcel-handed-out");
        }
        List<ParcelFile> gone = files.ofParcel(id);
        transactions.durably(() -> {
            files.deleteOf(id);
            acts.deleteOf(id);
            if (table.delete(id) != 1) {
                throw Problem.conflict("changed-elsewhere");
            }
        });
        gone.forEach(contents::destroy);
        live.publish(LiveEvent.PARCELS);
    }

    /**
     * Hands a parcel out: gives everybody a link, and writes to them where that is wanted.
     *
     * @throws Problem with status 422 naming what is missing
     */
    void handOut(long id, int version, long account) {
        Parcel draft = byId(id);
        if (draft.handedOutAt() != null) {
            throw Problem.conflict("parcel-handed-out");
        }
        List<Fault> faults = missing(draft);
        if (!faults.isEmpty()) {
            throw Problem.fields(faults);
        }
        handOut(draft, version, account);
    }

    private List<Fault> missing(Parcel draft) {
        List<ParcelFile> its = files.ofParcel(draft.id());
        return ParcelCheck.faultsOfHandingOut(draft.title(), its.size(), its.stream().filter(file -> file.state() != ParcelFile.State.READY).map(ParcelFile::fileName).toList(), draft.people().size(),
                draft.open());
    }

    private void handOut(Parcel draft, int version, long account) {
        Instant now = clock.instant();
        LinkWindow window = draft.windowFrom(now, settings.zone());
        window.fault(now).ifPresent(fault -> {
            throw Problem.fields(List.of(fault));
        });
        Parcel out = ParcelBuilder.builder(draft).handedOutAt(now).window(window).people(List.of()).whenReady(false).build();
        transactions.durably(() -> {
            update(out, version);
            List<ParcelLink> made = new ArrayList<>();
            for (Parcel.TypedPerson typed : draft.people()) {
                made.add(links.make(draft.id(), contacts.asked(new Person(typed.name(), MailAddress.parse(typed.email()))), now));
            }
            if (draft.open()) {
                team.need(Permission.OPEN_LINK);
                links.make(draft.id(), null, now);
            }
            team.keepLimit(draft.accountId());
            acts.insert(draft.id(), ParcelAct.Kind.HANDED_OUT, "", account, now);
            if (draft.byLetter() && !made.isEmpty()) {
                events.publishEvent(new ParcelHandedOut(made, false, account));
            }
        });
        live.publish(LiveEvent.PARCELS);
    }

    /** Hands out those drafts that only waited for their files. */
    void handOutWhatIsReady() {
        for (Parcel draft : table.waitingToBeReady()) {
            if (missing(draft).isEmpty()) {
                try {
                    handOut(draft, draft.version(), draft.accountId());
                } catch (Problem meanwhile) {
                    LOG.info("Parcel {} could not be handed out by itself: {}", draft.id(), meanwhile.code());
                }
            }
        }
    }

    /** Adds people to a parcel that was handed out. Those who have a link already get no second one. @return how many were added */
    int addPeople(long id, List<Person> people, boolean byLetter, long account) {
        Parcel parcel = out(id);
        Instant now = clock.instant();
        int added = transactions.durably(() -> {
            Set<Long> there = new HashSet<>(links.ofParcels(List.of(id)).stream().map(ParcelLink::contactId).filter(Objects::nonNull).toList());
            List<ParcelLink> made = new ArrayList<>();
            for (Person person : people) {
                long contact = contacts.asked(person);
                if (there.add(contact)) {
                    made.add(links.make(parcel.id(), contact, now));
                    acts.insert(id, ParcelAct.Kind.PERSON_ADDED, person.name(), account, now);
                }
            }
            if (there.size() > ParcelCheck.MOST_PEOPLE) {
                throw Problem.field("people", "parcel-people", ParcelCheck.MOST_PEOPLE);
            }
            team.keepLimit(parcel.accountId());
            if (byLetter && !made.isEmpty()) {
                events.publishEvent(new ParcelHandedOut(made, false, account));
            }
            return made.size();
        });
        live.publish(LiveEvent.PARCELS);
        return added;
    }

    /** Writes to people again; to all who have not taken everything away, where none are named. @return how many are written to */
    int sendAgain(long id, Collection<Long> wanted, long account) {
        Parcel parcel = out(id);
        List<ParcelLink> all = links.ofParcels(List.of(id)).stream().filter(link -> link.withdrawnAt() == null && link.contactId() != null).toList();
        List<ParcelLink> some = wanted.isEmpty() ? unfinished(id, all) : all.stream().filter(link -> wanted.contains(link.id())).toList();
        Instant now = clock.instant();
        if (parcel.state(now) != ParcelState.LIVE && parcel.state(now) != ParcelState.WAITING) {
            throw Problem.conflict("parcel-not-live");
        }
        if (!some.isEmpty()) {
            transactions.durably(() -> {
                acts.insert(id, ParcelAct.Kind.SENT_AGAIN, String.valueOf(some.size()), account, now);
                events.publishEvent(new ParcelHandedOut(some, false, account));
            });
            live.publish(LiveEvent.PARCELS);
        }
        return some.size();
    }

    /** Those of some links through which not everything was taken away. */
    private List<ParcelLink> unfinished(long id, List<ParcelLink> some) {
        Map<Long, Long> taken = pickUps.times(some.stream().map(ParcelLink::id).toList()).stream().filter(one -> one.times() > 0).collect(Collectors.groupingBy(PickUps.Times::linkId, Collectors.counting()));
        int all = files.ofParcel(id).size();
        return some.stream().filter(link -> taken.getOrDefault(link.id(), 0L) < all).toList();
    }

    /** Stops a parcel, or lets it go on. It works at once, also in the middle of what is being taken away. */
    void stop(long id, boolean on, long account) {
        Parcel parcel = out(id);
        if (on == (parcel.stoppedAt() != null)) {
            return;
        }
        Instant now = clock.instant();
        transactions.durably(() -> {
            update(ParcelBuilder.builder(parcel).stoppedAt(on ? now : null).build(), parcel.version());
            acts.insert(id, on ? ParcelAct.Kind.STOPPED : ParcelAct.Kind.WENT_ON, "", account, now);
        });
        live.publish(LiveEvent.PARCELS);
    }

    /** The same addresses with a new window of some days from now on. */
    void renew(long id, int days, long account) {
        Parcel parcel = out(id);
        Instant now = clock.instant();
        LinkWindow window = days(now, null, days);
        transactions.durably(() -> {
            update(ParcelBuilder.builder(parcel).days(days).window(window).build(), parcel.version());
            team.keepLimit(parcel.accountId());
            acts.insert(id, ParcelAct.Kind.RENEWED, String.valueOf(days), account, now);
        });
        live.publish(LiveEvent.PARCELS);
    }

    /** Takes a person's link back, or gives it back. */
    void withdraw(long id, long link, boolean on, long account) {
        ParcelLink its = ofParcel(id, link);
        Instant now = clock.instant();
        transactions.durably(() -> {
            linkTable.withdraw(its.id(), on ? now : null);
            if (!on) {
                team.keepLimit(byId(id).accountId());
            }
            acts.insert(id, on ? ParcelAct.Kind.PERSON_WITHDRAWN : ParcelAct.Kind.PERSON_GIVEN_BACK, name(its), account, now);
        });
        live.publish(LiveEvent.PARCELS);
    }

    /** Gives a person's link a new address; the one before does not work any more. */
    void newAddress(long id, long link, long account) {
        ParcelLink its = ofParcel(id, link);
        transactions.durably(() -> {
            links.readdress(its.id());
            acts.insert(id, ParcelAct.Kind.NEW_ADDRESS, name(its), account, clock.instant());
        });
        live.publish(LiveEvent.PARCELS);
    }

    private String name(ParcelLink link) {
        Long contact = link.contactId();
        return contact == null ? "" : contacts.byId(contact).name();
    }

    private ParcelLink ofParcel(long id, long link) {
        out(id);
        ParcelLink found = links.byId(link);
        if (found.parcelId() != id) {
            throw Problem.notFound("no-link");
        }
        return found;
    }

    /** One that was handed out and whose files are there. */
    private Parcel out(long id) {
        Parcel parcel = byId(id);
        if (parcel.handedOutAt() == null) {
            throw Problem.conflict("parcel-draft");
        }
        if (parcel.purgedAt() != null) {
            throw Problem.of(Problem.Kind.GONE, "parcel-purged");
        }
        return parcel;
    }

    /** When somebody had taken everything away; empty while something is left. */
    public Optional<Instant> finishedAt(Parcel parcel, ParcelLink link) {
        List<PickUps.Times> taken = pickUps.times(List.of(link.id())).stream().filter(one -> one.times() > 0).toList();
        return taken.size() < files.ofParcel(parcel.id()).size() ? Optional.empty() : taken.stream().map(PickUps.Times::lastAt).filter(Objects::nonNull).max(Instant::compareTo);
    }

    /** Those that can be taken away, or could until a moment. */
    public List<Parcel> handedOutUntil(Instant since) {
        return table.handedOutUntil(since);
    }

    /** When the reminders of a parcel were looked at last; null before the first look. */
    public @Nullable Instant remindersLookedAt(long id) {
        return table.lookedAt(id);
    }

    /** Notes that they were. Runs in the caller's transaction. */
    public void remindersLooked(long id, Instant at) {
        table.looked(id, at);
    }

    /** Destroys the files of parcels whose time of keeping is over. What was handed out to whom, and who took it away, stays on record. */
    @Scheduled(initialDelayString = "${oakbasket.purge-first:PT2M}", fixedDelayString = "${oakbasket.purge-every:PT1H}")
    public void purge() {
        Acting.officeDoes(this::purgeNow);
    }

    private void purgeNow() {
        Instant now = clock.instant();
        for (Parcel parcel : table.unpurged()) {
            if (!parcel.window().ended(now) || now.isBefore(parcel.purgeAt())) {
                continue;
            }
            transactions.durably(() -> {
                table.purged(parcel.id(), now);
                acts.insert(parcel.id(), ParcelAct.Kind.PURGED, "", null, now);
            });
            files.ofParcel(parcel.id()).forEach(contents::destroy);
            LOG.info("The files of parcel {} were kept for {} days after its end and are destroyed", parcel.id(), Duration.ofDays(parcel.keptDays()).toDays());
            live.publish(LiveEvent.PARCELS);
        }
    }

    private void update(Parcel parcel, int version) {
        if (table.update(parcel, version) != 1) {
            throw Problem.conflict("changed-elsewhere");
        }
    }
}
