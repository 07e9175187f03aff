package oakbasket.server.pickup;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.time.Instant;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import oakbasket.server.Settings;
import oakbasket.server.account.AccountService;
import oakbasket.server.brand.Brand;
import oakbasket.server.contact.Contact;
import oakbasket.server.contact.Contacts;
import oakbasket.server.parcel.Parcel;
import oakbasket.server.parcel.ParcelFile;
import oakbasket.server.parcel.ParcelFiles;
import oakbasket.server.parcel.ParcelLink;
import oakbasket.server.parcel.PickUps;
import oakbasket.server.problem.Problem;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** What somebody sees who may take a parcel away: who hands what out, until when; of other people nothing. */
@Service
class PickUpPage {

    /** As many files stand on the page at first. */
    static final int MOST_AT_ONCE = 500;

    /** How a file can be looked at. */
    enum Look { PICTURE, PDF, TEXT, NONE }

    /**
     * A file as it can be taken away.
     *
     * @param number stands for it in addresses
     * @param taken how often this person took it away whole; always 0 where anybody may come
     * @param gone whether it is not there any more
     */
    record OfferedFile(int number, String name, long bytes, String sha256, int taken, boolean gone, Look look) {
    }

    /**
     * The page.
     *
     * @param by who hands it out
     * @param person for whom it is; null where anybody may come
     * @param language the language tag known of that person; empty when none is known
     * @param mostPickUps how often each file can be taken away; null for as often as they want
     * @param count how many files there are
     * @param files the first of them
     */
    @RecordBuilder
    @RecordBuilder.Options(builderMode = RecordBuilder.BuilderMode.STANDARD_AND_STAGED)
    record PickUp(String office, String by, String title, String message, @Nullable String person, String language, Instant until, String zone, @Nullable Integer mostPickUps, int count, long bytes,
            List<OfferedFile> files) {
    }

    private final ParcelFiles files;
    private final PickUps pickUps;
    private final Contacts contacts;
    private final AccountService accounts;
    private final Settings settings;
    private final Brand brand;

    PickUpPage(ParcelFiles files, PickUps pickUps, Contacts contacts, AccountService accounts, Settings settings, Brand brand) {
        this.brand = brand;
        this.files = files;
        this.pickUps = pickUps;
        this.contacts = contacts;
        this.accounts = accounts;
        this.settings = settings;
    }

    /** The page behind a link. */
    PickUp behind(ParcelLink link, Parcel parcel) {
        Long contactId = link.contactId();
        Contact person = contactId == null ? null : contacts.byId(contactId);
        List<ParcelFile> all = files.of(parcel.id());
        return PickUpPagePickUpBuilder.stagedBuilder().office(brand.name()).by(accounts.current(parcel.accountId()).name()).title(parcel.title()).message(parcel.message())
                .person(person == null ? null : person.name()).language(person == null ? "" : person.language()).until(parcel.window().end()).zone(settings.zone().getId())
                .mostPickUps(parcel.mostPickUps()).count(all.size()).bytes(all.stream().mapToLong(ParcelFile::sizeBytes).sum()).files(offered(link, parcel, all, 0)).build();
    }

    /** Further files. @param from how many stand on the page already */
    List<OfferedFile> more(ParcelLink link, Parcel parcel, int from) {
        return offered(link, parcel, files.of(parcel.id()), from);
    }

    private List<OfferedFile> offered(ParcelLink link, Parcel parcel, List<ParcelFile> all, int from) {
        Map<Long, Integer> taken = link.contactId() == null ? Map.of()
                : pickUps.times(List.of(link.id())).stream().collect(Collectors.toMap(PickUps.Times::fileId, PickUps.Times::times));
        return all.stream().skip(Math.max(from, 0)).limit(MOST_AT_ONCE).map(file -> new OfferedFile(file.number(), file.fileName(), file.sizeBytes(), HexFormat.of().formatHex(Objects.requireNonNull(file.sha256())),
                taken.getOrDefault(file.id(), 0), gone(file), parcel.mostPickUps() == null ? look(file.mediaType()) : Look.NONE)).toList();
    }

    private boolean gone(ParcelFile file) {
        if (file.receivedFileId() == null) {
            return false;
        }
        try {
            files.path(file);
            return false;
        } catch (Problem away) {
            return true;
        }
    }

    private static Look look(String mediaType) {
        return switch (mediaType) {
            case "image/png", "image/jpeg", "image/gif", "image/webp" -> Look.PICTURE;
            case "application/pdf" -> Look.PDF;
            default -> mediaType.startsWith("text/") || mediaType.endsWith("xml") || mediaType.endsWith("json") ? Look.TEXT : Look.NONE;
        };
    }
}
