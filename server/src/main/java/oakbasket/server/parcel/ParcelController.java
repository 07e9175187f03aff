package oakbasket.server.parcel;

import io.swagger.v3.oas.annotations.Operation;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import oakbasket.core.fault.FaultyValue;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.core.link.LinkWindow;
import oakbasket.core.parcel.ParcelCheck;
import oakbasket.core.reminder.ReminderPlan;
import oakbasket.core.reminder.ReminderStep;
import oakbasket.core.team.Permission;
import oakbasket.server.Settings;
import oakbasket.server.account.Account;
import oakbasket.server.contact.Contacts;
import oakbasket.server.mail.MailReach;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.Needs;
import oakbasket.server.sharing.Sharing;
import oakbasket.server.sharing.SharingView;
import oakbasket.server.sharing.WantedSharing;
import oakbasket.server.web.Typed;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Files handed out, for the desk. */
@RestController
@Needs(Permission.HAND_OUT)
class ParcelController {

    private static final int LONGEST_FIND = 200;

    /** A step of the plan of reminders. @param days how many days from the day of the end; negative is before */
    record ParcelStep(int days, ReminderStep.@Nullable Unit unit, @Nullable String at) {
    }

    /** Somebody who gets a link. */
    record ParcelPerson(@Nullable String name, @Nullable String email) {
    }

    /**
     * A parcel as a coordinator types it, in the office's zone.
     *
     * @param days how long it can be taken away; null where {@code endsOn} says until when
     * @param beginsOn a date; empty means at once
     * @param beginsAt a time of that day; empty means its first moment
     * @param endsOn a date
     * @param endsAt a time of that day; empty means its end
     * @param passcode null where it stays as it is, empty for none
     * @param mostPickUps how often each person may take each file away; null for as often as they want
     * @param name the readable part of its addresses; empty for none
     */
    record ParcelSheet(int version, @Nullable String title, @Nullable String message, @Nullable Integer days, @Nullable String beginsOn, @Nullable String beginsAt, @Nullable String endsOn,
            @Nullable String endsAt, @Nullable String passcode, @Nullable Integer mostPickUps, int keptDays, @Nullable String name, @Nullable List<ParcelStep> reminders, @Nullable List<ParcelPerson> people,
            boolean open, boolean byLetter, boolean whenReady) {
    }

    record ParcelBegun(long id) {
    }

    /** A file that is about to come. */
    record FileAhead(@Nullable String name, long bytes) {
    }

    record FilesAhead(@Nullable List<FileAhead> files) {
    }

    record FilesPicked(@Nullable List<Long> files) {
    }

    /** How far a file is. @param came how many of its bytes are here */
    record FileCame(long id, String name, long came, ParcelFile.State state) {
    }

    record ParcelSeen(int version) {
    }

    record ParcelDays(int days) {
    }

    record PeopleMore(@Nullable List<ParcelPerson> people, boolean byLetter) {
    }

    /** @param links none for all who have not taken everything away */
    record AgainTo(@Nullable List<Long> links) {
    }

    record ParcelCount(int count) {
    }

    private final Parcels parcels;
    private final ParcelFiles files;
    private final ParcelList list;
    private final Contacts contacts;
    private final Settings settings;
    private final Sharing sharing;
    private final MailReach reach;

    ParcelController(Parcels parcels, ParcelFiles files, ParcelList list, Contacts contacts, Settings settings, Sharing sharing, MailReach reach) {
        this.reach = reach;
        this.sharing = sharing;
        this.parcels = parcels;
        this.files = files;
        this.list = list;
        this.contacts = contacts;
        this.settings = settings;
    }

    /** Parcels, the newest first; {@code before} is the last one seen, and {@code mine} leaves out what others own. */
    @GetMapping("/api/parcels")
    ParcelList.ParcelPage parcels(@RequestParam(defaultValue = "") String find, @RequestParam(required = false) @Nullable Long before, @RequestParam(defaultValue = "false") boolean mine,
            @AuthenticationPrincipal Account account) {
        return list.page(find.substring(0, Math.min(find.length(), LONGEST_FIND)), before, mine ? (Long) account.id() : null);
    }

    /** What was handed out to a contact, also from before contacts were merged. */
    @GetMapping("/api/contacts/{id}/parcels")
    List<ParcelList.ListedParcel> parcelsOf(@PathVariable long id) {
        return list.toContact(id);
    }

    /** The people of a group, to be put into a parcel. */
    @GetMapping("/api/parcels/group")
    List<ParcelPerson> parcelGroup(@RequestParam String name) {
        return contacts.byIds(contacts.idsOfGroup(name)).values().stream().filter(contact -> !contact.email().isBlank()).limit(ParcelCheck.MOST_PEOPLE).map(contact -> new ParcelPerson(contact.name(), contact.email()))
                .toList();
    }

    @PostMapping("/api/parcels")
    @ResponseStatus(HttpStatus.CREATED)
    ParcelBegun beginParcel(@AuthenticationPrincipal Account account) {
        return new ParcelBegun(parcels.begin(account.id()));
    }

    @GetMapping("/api/parcels/{id}")
    ParcelList.ParcelInFull parcel(@PathVariable long id) {
        return list.inFull(parcels.byId(id));
    }

    @PutMapping("/api/parcels/{id}")
    ParcelList.ParcelInFull changeParcel(@PathVariable long id, @RequestBody ParcelSheet typed, @AuthenticationPrincipal Account account) {
        parcels.change(id, typed.version(), sheet(typed), account.id());
        return parcel(id);
    }

    /** With whom of the office a parcel is shared. */
    @GetMapping("/api/parcels/{id}/sharing")
    SharingView parcelSharing(@PathVariable long id, @AuthenticationPrincipal Account account) {
        return sharing.view(sharing.ofParcel(parcels.byId(id).id()), account);
    }

    /** Shares a parcel with the whole office or with some of it, and says who owns it. */
    @PutMapping("/api/parcels/{id}/sharing")
    SharingView shareParcel(@PathVariable long id, @RequestBody WantedSharing wanted, @AuthenticationPrincipal Account account) {
        return sharing.view(parcels.share(id, wanted.share(), account), account);
    }

    /** Throws a draft away. */
    @DeleteMapping("/api/parcels/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void discardParcel(@PathVariable long id) {
        parcels.discard(id);
    }

    /** Gives files that are about to come their places; their bytes are put in one by one. */
    @PostMapping("/api/parcels/{id}/files")
    @ResponseStatus(HttpStatus.CREATED)
    List<FileCame> announceFiles(@PathVariable long id, @RequestBody FilesAhead ahead, @AuthenticationPrincipal Account account) {
        List<FileAhead> wanted = ahead.files();
        if (wanted == null || wanted.isEmpty() || wanted.size() > ParcelCheck.MOST_FILES || wanted.stream().anyMatch(Objects::isNull)) {
            throw Problem.unreadable("unreadable");
        }
        return files.announce(id, wanted.stream().map(one -> new ParcelFiles.Announced(Typed.text(one.name()), one.bytes())).toList(), account.id()).stream().map(ParcelController::came).toList();
    }

    @Operation(summary = "Puts bytes of a file in, from the place up to which they came before; the body is the bytes themselves")
    @PostMapping("/api/parcels/{id}/files/{file}/bytes")
    FileCame putBytes(@PathVariable long id, @PathVariable long file, @RequestParam long at, HttpServletRequest request) throws IOException {
        return came(files.write(id, file, at, request.getInputStream()));
    }

    /** Picks received files; nothing of them is copied. */
    @PostMapping("/api/parcels/{id}/picked")
    ParcelCount pickFiles(@PathVariable long id, @RequestBody FilesPicked picked, @AuthenticationPrincipal Account account) {
        List<Long> wanted = picked.files();
        if (wanted == null || wanted.isEmpty() || wanted.size() > ParcelCheck.MOST_FILES || wanted.stream().anyMatch(Objects::isNull)) {
            throw Problem.unreadable("unreadable");
        }
        return new ParcelCount(files.pick(id, wanted, account.id()));
    }

    @DeleteMapping("/api/parcels/{id}/files/{file}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void removeFile(@PathVariable long id, @PathVariable long file, @AuthenticationPrincipal Account account) {
        files.remove(id, file, account.id());
    }

    /** Gives everybody a link, and writes to them where that is wanted. */
    @PostMapping("/api/parcels/{id}/hand-out")
    ParcelList.ParcelInFull handOut(@PathVariable long id, @RequestBody ParcelSeen seen, @AuthenticationPrincipal Account account) {
        parcels.handOut(id, seen.version(), account.id());
        return parcel(id);
    }

    @PostMapping("/api/parcels/{id}/people")
    ParcelCount addToParcel(@PathVariable long id, @RequestBody PeopleMore more, @AuthenticationPrincipal Account account) {
        List<Person> people = people(more.people());
        if (people.isEmpty()) {
            throw Problem.field("people", "parcel-without-people");
        }
        return new ParcelCount(parcels.addPeople(id, people, more.byLetter(), account.id()));
    }

    @PostMapping("/api/parcels/{id}/again")
    ParcelCount parcelAgain(@PathVariable long id, @RequestBody AgainTo to, @AuthenticationPrincipal Account account) {
        return new ParcelCount(parcels.sendAgain(id, to.links() == null ? List.of() : to.links(), account.id()));
    }

    @PostMapping("/api/parcels/{id}/stop")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void stopParcel(@PathVariable long id, @AuthenticationPrincipal Account account) {
        parcels.stop(id, true, account.id());
    }

    @PostMapping("/api/parcels/{id}/go-on")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void parcelGoesOn(@PathVariable long id, @AuthenticationPrincipal Account account) {
        parcels.stop(id, false, account.id());
    }

    @PostMapping("/api/parcels/{id}/renew")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void renewParcel(@PathVariable long id, @RequestBody ParcelDays days, @AuthenticationPrincipal Account account) {
        parcels.renew(id, days.days(), account.id());
    }

    @PostMapping("/api/parcels/{id}/links/{link}/withdraw")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void withdrawWay(@PathVariable long id, @PathVariable long link, @AuthenticationPrincipal Account account) {
        parcels.withdraw(id, link, true, account.id());
    }

    @PostMapping("/api/parcels/{id}/links/{link}/give-back")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void giveWayBack(@PathVariable long id, @PathVariable long link, @AuthenticationPrincipal Account account) {
        parcels.withdraw(id, link, false, account.id());
    }

    /** Gives a link a new address; the one before does not work any more. */
    @PostMapping("/api/parcels/{id}/links/{link}/address")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void newWayAddress(@PathVariable long id, @PathVariable long link, @AuthenticationPrincipal Account account) {
        parcels.newAddress(id, link, account.id());
    }

    private static FileCame came(ParcelFile file) {
        return new FileCame(file.id(), file.fileName(), file.offsetBytes(), file.state());
    }

    private Parcels.Sheet sheet(ParcelSheet typed) {
        Integer days = typed.days();
        if (days != null && (days < 1 || days > LinkWindow.LONGEST_LIFE.toDays())) {
            throw Problem.field("days", "link-days", LinkWindow.LONGEST_LIFE.toDays());
        }
        Instant ends = days != null ? null : Typed.end(typed.endsOn(), typed.endsAt(), settings.zone());
        Instant begins = Typed.begin(typed.beginsOn(), typed.beginsAt(), settings.zone());
        return new Parcels.Sheet(Typed.text(typed.title()), Typed.text(typed.message()), days, begins, ends, typed.passcode(), typed.mostPickUps(), typed.keptDays(), Typed.readableName(typed.name()), steps(typed.reminders()),
                people(typed.people()), typed.open(), typed.byLetter(), typed.whenReady());
    }

    private static List<ReminderStep> steps(@Nullable List<ParcelStep> typed) {
        if (typed == null) {
            return List.of();
        }
        if (typed.size() > ReminderPlan.MOST_STEPS) {
            throw Problem.field("reminders", "parcel-steps", ReminderPlan.MOST_STEPS);
        }
        List<ReminderStep> steps = new ArrayList<>();
        for (int n = 0; n < typed.size(); n++) {
            ParcelStep step = typed.get(n);
            String field = "reminders[" + n + "]";
            if (step == null || step.days() > 0 || step.days() < -ReminderStep.FARTHEST) {
                throw Problem.field(field, "parcel-step-days", ReminderStep.FARTHEST);
            }
            steps.add(new ReminderStep(step.days(), step.unit() == null ? ReminderStep.Unit.CALENDAR : step.unit(), Typed.time(field, Typed.text(step.at()).isEmpty() ? "09:00" : Typed.text(step.at()))));
        }
        return steps;
    }

    private List<Person> people(@Nullable List<ParcelPerson> typed) {
        if (typed == null) {
            return List.of();
        }
        if (typed.size() > ParcelCheck.MOST_PEOPLE) {
            throw Problem.field("people", "parcel-people", ParcelCheck.MOST_PEOPLE);
        }
        List<Person> people = new ArrayList<>();
        for (int n = 0; n < typed.size(); n++) {
            ParcelPerson one = typed.get(n);
            if (one == null) {
                throw Problem.unreadable("unreadable");
            }
            try {
                MailAddress address = reach.needed(MailAddress.parse(Typed.text(one.email())));
                String name = Typed.text(one.name()).strip();
                people.add(new Person(name.isEmpty() ? address.text().substring(0, address.text().lastIndexOf('@')) : name, address));
            } catch (FaultyValue fault) {
                throw Problem.refused("fields").at(fault.at("people[" + n + "]"));
            }
        }
        return people;
    }
}
