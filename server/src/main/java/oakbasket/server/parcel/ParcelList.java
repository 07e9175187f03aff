package oakbasket.server.parcel;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import oakbasket.core.parcel.ParcelState;
import oakbasket.core.reminder.ReminderStep;
import oakbasket.server.Settings;
import oakbasket.server.account.AccountService;
import oakbasket.server.contact.Contact;
import oakbasket.server.contact.Contacts;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.Known;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Parcels as the desk lists and shows them. */
@Service
class ParcelList {

    private static final int PAGE = 100;
    private static final int MOST_PEOPLE_NAMED = 3;
    private static final int MOST_LAST = 100;

    /**
     * A parcel in a list.
     *
     * @param named the names of the first people
     * @param lostFiles how many are missing or altered since it was handed out
     * @param done how many people have taken everything away
     * @param begun how many have taken something away, but not everything
     * @param byAnybody how many files were taken away through the link for anybody who holds it
     * @param wholeOffice whether everybody of the office sees it
     * @param endsSoon whether it ends within its warning
     */
    @RecordBuilder
    @RecordBuilder.Options(builderMode = RecordBuilder.BuilderMode.STANDARD_AND_STAGED)
    record ListedParcel(long id, String title, ParcelState state, boolean endsSoon, String by, Instant madeAt, @Nullable Instant handedOutAt, @Nullable Instant beginsAt, Instant endsAt, Instant purgeAt,
            int files, int readyFiles, int lostFiles, long bytes, int people, List<String> named, int done, int begun, boolean open, int byAnybody, @Nullable Instant lastAt, boolean passcode, boolean whenReady,
            boolean wholeOffice) {
    }

    record ParcelPage(List<ListedParcel> parcels, boolean more, Map<ParcelState, Integer> counts) {
    }

    /** A file of a parcel. @param taken by how many people it was taken away whole */
    record ListedFile(long id, int number, String name, long bytes, long came, ParcelFile.State state, String trouble, @Nullable String sha256, String mediaType, boolean unchecked, boolean picked, int taken) {
    }

    /**
     * Somebody's way to a parcel.
     *
     * @param contactId null for the link of anybody who holds it
     * @param path of the pick-up page
     * @param path of the pick-up page; empty for whoever only reads
     * @param directPath of what begins the download in one step; empty likewise
     * @param files how many of its files were taken away whole
     * @param begun how many broke off and were not gone on with
     * @param times how many pick-ups that were in all
     */
    record ListedWay(long id, @Nullable Long contactId, String name, String email, String path, String directPath, boolean withdrawn, @Nullable Instant seenAt, int files, int begun, int times,
            @Nullable Instant lastAt) {
    }

    /** Something taken away. */
    record ListedTook(String name, String file, Instant at, String from) {
    }

    record ListedAct(long id, Instant at, String by, String what, String said) {
    }

    /**
     * A parcel in full.
     *
     * @param days how long it can be taken away; null where {@code endsAt} was typed
     * @param typedEndsAt null where {@code days} was typed
     * @param people of a draft
     * @param took the last of what was taken away, the newest first
     */
    @RecordBuilder
    @RecordBuilder.Options(builderMode = RecordBuilder.BuilderMode.STANDARD_AND_STAGED)
    record ParcelInFull(ListedParcel parcel, int version, String message, @Nullable Integer days, @Nullable Instant typedEndsAt, @Nullable Integer mostPickUps, int keptDays, String name,
            List<ReminderStep> reminders, List<Parcel.TypedPerson> people, boolean byLetter, String zone, List<ListedFile> files, List<ListedWay> ways, List<ListedTook> took, List<ListedAct> story) {
    }

    private final ParcelTable table;
    private final ParcelFileTable files;
    private final ParcelActTable acts;
    private final ParcelLinks links;
    private final PickUps pickUps;
    private final Contacts contacts;
    private final AccountService accounts;
    private final Settings settings;
    private final Clock clock;

    ParcelList(ParcelTable table, ParcelFileTable files, ParcelActTable acts, ParcelLinks links, PickUps pickUps, Contacts contacts, AccountService accounts, Settings settings, Clock clock) {
        this.table = table;
        this.files = files;
        this.acts = acts;
        this.links = links;
        this.pickUps = pickUps;
        this.contacts = contacts;
        this.accounts = accounts;
        this.settings = settings;
        this.clock = clock;
    }

    /**
     * A page of parcels, the newest first.
     *
     * @param find part of a title, name or address; empty for all
     * @param before the last one seen; null for the first page
     * @param owner whose parcels; null for everybody's
     */
    ParcelPage page(String find, @Nullable Long before, @Nullable Long owner) {
        String words = find.strip().toLowerCase(Locale.ROOT);
        String pattern = "%" + words.replace("!", "!!").replace("%", "!%").replace("_", "!_") + "%";
        List<Parcel> page = table.page(pattern, null, owner, before == null ? Long.MAX_VALUE : before, PAGE + 1);
        List<ListedParcel> listed = listed(page.subList(0, Math.min(PAGE, page.size())));
        return new ParcelPage(listed, page.size() > PAGE, listed.stream().collect(Collectors.groupingBy(ListedParcel::state, Collectors.summingInt(one -> 1))));
    }

    /** What was handed out to a contact, also from before contacts were merged. */
    List<ListedParcel> toContact(long id) {
        contacts.byId(id);
        return listed(table.page("%", contacts.withMerged(id), null, Long.MAX_VALUE, PAGE));
    }

    private List<ListedParcel> listed(List<Parcel> page) {
        Map<Long, ParcelFileTable.Sum> sums = files.sums(page.stream().map(Parcel::id).toList());
        Map<Long, List<ParcelLink>> ways = links.ofParcels(page.stream().map(Parcel::id).toList()).stream().collect(Collectors.groupingBy(ParcelLink::parcelId));
        Map<Long, Contact> people = contacts.byIds(ways.values().stream().flatMap(Collection::stream).map(ParcelLink::contactId).filter(Objects::nonNull).distinct().toList());
        Map<Long, List<PickUps.Times>> times = pickUps.times(ways.values().stream().flatMap(Collection::stream).map(ParcelLink::id).toList()).stream().collect(Collectors.groupingBy(PickUps.Times::linkId));
        Map<Long, String> by = accounts.names(page.stream().map(Parcel::accountId).distinct().toList());
        Instant now = clock.instant();
        List<ListedParcel> listed = new ArrayList<>();
        for (Parcel parcel : page) {
            ParcelFileTable.Sum sum = sums.getOrDefault(parcel.id(), new ParcelFileTable.Sum(parcel.id(), 0, 0, 0, 0));
            List<ParcelLink> its = ways.getOrDefault(parcel.id(), List.of());
            List<ParcelLink> personal = its.stream().filter(link -> link.contactId() != null && link.withdrawnAt() == null).toList();
            List<String> names = parcel.handedOutAt() == null ? parcel.people().stream().map(Parcel.TypedPerson::name).toList()
                    : personal.stream().map(link -> Known.in(people, Objects.requireNonNull(link.contactId())).name()).toList();
            int done = 0;
            int begun = 0;
            for (ParcelLink link : personal) {
                int taken = taken(times.get(link.id()));
                done += taken >= sum.files() && taken > 0 ? 1 : 0;
                begun += taken > 0 && taken < sum.files() ? 1 : 0;
            }
            int anybody = its.stream().filter(link -> link.contactId() == null).mapToInt(link -> times.getOrDefault(link.id(), List.of()).stream().mapToInt(PickUps.Times::times).sum()).sum();
            Instant last = its.stream().flatMap(link -> times.getOrDefault(link.id(), List.of()).stream()).map(PickUps.Times::lastAt).filter(Objects::nonNull).max(Instant::compareTo).orElse(null);
            listed.add(ParcelListListedParcelBuilder.stagedBuilder().id(parcel.id()).title(parcel.title()).state(parcel.state(now)).endsSoon(ParcelState.endsSoon(parcel.terms(), now))
                    .by(by.getOrDefault(parcel.accountId(), "")).madeAt(parcel.madeAt()).handedOutAt(parcel.handedOutAt()).beginsAt(parcel.window().beginsAt()).endsAt(parcel.window().end())
                    .purgeAt(parcel.purgeAt()).files(sum.files()).readyFiles(sum.ready()).lostFiles(sum.lost()).bytes(sum.bytes()).people(names.size())
                    .named(names.stream().limit(MOST_PEOPLE_NAMED).toList()).done(done).begun(begun).open(parcel.open()).byAnybody(anybody).lastAt(last).passcode(parcel.passcodeHash() != null)
                    .whenReady(parcel.whenReady()).wholeOffice(parcel.wholeOffice()).build());
        }
        return listed;
    }

    private static int taken(@Nullable List<PickUps.Times> times) {
        return times == null ? 0 : (int) times.stream().filter(one -> one.times() > 0).count();
    }

    /** A parcel with everything known of it. */
    ParcelInFull inFull(Parcel parcel) {
        List<ParcelLink> ways = links.ofParcels(List.of(parcel.id()));
        Map<Long, Contact> people = contacts.byIds(ways.stream().map(ParcelLink::contactId).filter(Objects::nonNull).distinct().toList());
        List<PickUps.Times> times = pickUps.times(ways.stream().map(ParcelLink::id).toList());
        Map<Long, List<PickUps.Times>> byLink = times.stream().collect(Collectors.groupingBy(PickUps.Times::linkId));
        Map<Long, Integer> byFile = times.stream().filter(one -> one.times() > 0).collect(Collectors.groupingBy(PickUps.Times::fileId, Collectors.summingInt(one -> 1)));
        List<ParcelFile> its = files.ofParcel(parcel.id());
        Map<Long, String> fileNames = its.stream().collect(Collectors.toMap(ParcelFile::id, ParcelFile::fileName));
        Map<Long, String> names = ways.stream().collect(Collectors.toMap(ParcelLink::id, link -> name(link, people)));
        List<ParcelAct> story = acts.ofParcel(parcel.id());
        Map<Long, String> by = accounts.names(story.stream().map(ParcelAct::accountId).filter(Objects::nonNull).distinct().toList());
        return ParcelListParcelInFullBuilder.stagedBuilder().parcel(listed(List.of(parcel)).get(0)).version(parcel.version()).message(parcel.message()).days(parcel.days())
                .typedEndsAt(parcel.days() == null ? parcel.window().endsAt() : null).mostPickUps(parcel.mostPickUps()).keptDays(parcel.keptDays()).name(parcel.name()).reminders(parcel.reminders())
                .people(parcel.people()).byLetter(parcel.byLetter()).zone(settings.zone().getId())
                .files(its.stream().map(file -> listed(file, byFile.getOrDefault(file.id(), 0))).toList())
                .ways(ways.stream().map(link -> way(link, parcel, people, byLink.getOrDefault(link.id(), List.of()))).toList())
                .took(pickUps.last(ways.stream().map(ParcelLink::id).toList(), MOST_LAST).stream()
                        .map(one -> new ListedTook(Known.in(names, one.linkId()), fileNames.getOrDefault(one.fileId(), ""), one.at(), one.caller())).toList())
                .story(story.stream().map(act -> new ListedAct(act.id(), act.at(), act.accountId() == null ? "" : by.getOrDefault(act.accountId(), ""), act.kind().name(), act.said())).toList()).build();
    }

    private static ListedFile listed(ParcelFile file, int taken) {
        byte[] sha256 = file.sha256();
        return new ListedFile(file.id(), file.number(), file.fileName(), file.sizeBytes(), file.offsetBytes(), file.state(), file.trouble(),
                sha256 == null ? null : java.util.HexFormat.of().formatHex(sha256), file.mediaType(), file.unchecked(), file.receivedFileId() != null, taken);
    }

    private ListedWay way(ParcelLink link, Parcel parcel, Map<Long, Contact> people, List<PickUps.Times> times) {
        Long contact = link.contactId();
        boolean hidden = Acting.readsOnly();
        Instant last = times.stream().map(PickUps.Times::lastAt).filter(Objects::nonNull).max(Instant::compareTo).orElse(null);
        return new ListedWay(link.id(), contact, name(link, people), contact == null ? "" : Known.in(people, contact).email(), hidden ? "" : links.path(link, parcel.name()), hidden ? "" : links.directPath(link),
                link.withdrawnAt() != null, link.seenAt(), taken(times), (int) times.stream().filter(one -> one.begun() > 0 && one.times() == 0).count(), times.stream().mapToInt(PickUps.Times::times).sum(), last);
    }

    private static String name(ParcelLink link, Map<Long, Contact> people) {
        Long contact = link.contactId();
        return contact == null ? "" : Known.in(people, contact).name();
    }
}
