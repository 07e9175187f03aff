package oakbasket.server.parcel;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.stream.Collectors;
import oakbasket.core.exchange.ExchangeCheck;
import oakbasket.core.naming.ClashNumber;
import oakbasket.core.naming.SafeName;
import oakbasket.core.parcel.ParcelCheck;
import oakbasket.server.clock.MachineTime;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.problem.Problem;
import oakbasket.server.review.FilesOnDisk;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.security.SecretKeys;
import oakbasket.server.sharing.Sharing;
import oakbasket.server.space.Spaces;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.CheckedFiles;
import oakbasket.server.storage.Transactions;
import oakbasket.server.upload.DiskPromises;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/** The files of parcels: put in here, from any byte on, or picked among those that were received. */
@Service
public class ParcelFiles {

    /** Bytes without a record may be those of a file whose record is about to be written. */
    private static final Duration LEFT_LIFE = Duration.ofHours(1);
    private static final int ID_BYTES = 18;
    private static final String DESK = "desk";

    /** A file that is about to come. */
    record Announced(String name, long bytes) {
    }

    private final ParcelTable parcels;
    private final ParcelFileTable table;
    private final ParcelBytes bytes;
    private final ReceivedFiles received;
    private final FilesOnDisk disk;
    private final DiskPromises promises;
    private final SecretKeys keys;
    private final Transactions transactions;
    private final LiveHub live;
    private final MachineTime machine;
    private final ParcelActTable acts;
    private final Spaces spaces;
    private final CheckedFiles checked;
    private final Sharing sharing;
    private final Clock clock;
    private final Set<Long> writing = ConcurrentHashMap.newKeySet();

    ParcelFiles(ParcelTable parcels, ParcelFileTable table, ParcelBytes bytes, ReceivedFiles received, FilesOnDisk disk, DiskPromises promises, SecretKeys keys, Transactions transactions, LiveHub live, MachineTime machine,
            ParcelActTable acts, Spaces spaces, CheckedFiles checked, Sharing sharing, Clock clock) {
        this.sharing = sharing;
        this.checked = checked;
        this.spaces = spaces;
        this.acts = acts;
        this.clock = clock;
        this.parcels = parcels;
        this.table = table;
        this.bytes = bytes;
        this.received = received;
        this.disk = disk;
        this.promises = promises;
        this.keys = keys;
        this.transactions = transactions;
        this.live = live;
        this.machine = machine;
    }

    /** The files of a parcel in their order. */
    public List<ParcelFile> of(long parcel) {
        return table.ofParcel(parcel);
    }

    /** The rounds of the files that were picked, also of those that whoever asks does not see. */
    Set<Long> roundsIn(long parcel) {
        return Acting.asOffice(() -> received.byIds(table.ofParcel(parcel).stream().map(ParcelFile::receivedFileId).filter(Objects::nonNull).toList()).stream().map(ReceivedFile::roundId).collect(Collectors.toSet()));
    }

    /**
     * Where the bytes of a file lie.
     *
     * @throws Problem with status 410 when they are not there any more, or are not what was handed out
     */
    public Path path(ParcelFile file) {
        Long from = file.receivedFileId();
        if (from == null) {
            return unaltered(bytes.path(String.valueOf(file.bytesId())), file);
        }
        ReceivedFile known = received.find(from).filter(one -> one.purgedAt() == null && Arrays.equals(one.sha256(), file.sha256())).orElse(null);
        if (known == null) {
            noted(List.of(file), List.of());
            throw Problem.of(Problem.Kind.GONE, "parcel-file-gone", file.fileName());
        }
        try {
            return unaltered(disk.present(known), file);
        } catch (Problem away) {
            noted(List.of(file), List.of());
            throw Problem.of(Problem.Kind.GONE, "parcel-file-gone", file.fileName());
        }
    }

    /** Only what was looked at when it was handed out is given out; the desk is told when it is something else. */
    private Path unaltered(Path path, ParcelFile file) {
        byte[] sha256 = file.sha256();
        try {
            if (Files.isReadable(path) && (sha256 == null || checked.holds(path, sha256))) {
                noted(List.of(), List.of(file));
                return path;
            }
        } catch (IOException gone) {
            // The same as what is not there.
        }
        noted(List.of(file), List.of());
        throw Problem.of(Problem.Kind.GONE, "parcel-file-gone", file.fileName());
    }

    /** The desk is told at once what could not be given out, and what can be again. */
    private void noted(Collection<ParcelFile> gone, Collection<ParcelFile> there) {
        List<ParcelFile> back = there.stream().filter(file -> file.state() == ParcelFile.State.READY && !file.trouble().isEmpty()).toList();
        List<ParcelFile> lost = gone.stream().filter(file -> file.state() == ParcelFile.State.READY && file.trouble().isEmpty()).toList();
        if (!back.isEmpty() || !lost.isEmpty()) {
            Acting.officeDoes(() -> transactions.quickly(() -> {
                back.forEach(file -> table.note(file.id(), ""));
                lost.forEach(file -> table.note(file.id(), "parcel.lost"));
                return true;
            }));
            live.publish(LiveEvent.PARCELS);
        }
    }

    /** How many files that are handed out are not there any more, or are altered. */
    public int notGivenOut() {
        return table.notGivenOut();
    }

    /** Files of a parcel with where their bytes lie, as far as they can be given out. @param gone those that are not there any more, or are not what was handed out */
    public record Present(Map<ParcelFile, Path> there, List<ParcelFile> gone) {
    }

    /** Looks which of some files can be given out; in their order. */
    public Present present(List<ParcelFile> some) {
        Map<Long, ReceivedFile> picked = received.byIds(some.stream().map(ParcelFile::receivedFileId).filter(Objects::nonNull).toList()).stream().collect(Collectors.toMap(ReceivedFile::id, one -> one));
        Map<ParcelFile, Path> lying = new LinkedHashMap<>();
        Map<Path, byte[]> wanted = new HashMap<>();
        for (ParcelFile file : some) {
            byte[] sha256 = file.sha256();
            ReceivedFile from = file.receivedFileId() == null ? null : picked.get(file.receivedFileId());
            Path path = file.receivedFileId() == null ? bytes.path(String.valueOf(file.bytesId())) : from == null || from.purgedAt() != null || !Arrays.equals(from.sha256(), sha256) ? null : disk.place(from);
            if (path != null && sha256 != null) {
                lying.put(file, path);
                wanted.put(path, sha256);
            }
        }
        Set<Path> holding = checked.holding(wanted);
        lying.values().removeIf(path -> !holding.contains(path));
        List<ParcelFile> gone = some.stream().filter(file -> !lying.containsKey(file)).toList();
        noted(gone, lying.keySet());
        return new Present(lying, gone);
    }

    /**
     * Gives files that are about to come their places; all of them or none.
     *
     * @throws Problem when one cannot be taken, or there would be too many
     */
    synchronized List<ParcelFile> announce(long parcel, List<Announced> wanted, long account) {
        Parcel draft = draft(parcel);
        List<ParcelFile> there = table.ofParcel(parcel);
        check(there.size() + wanted.size());
        for (Announced one : wanted) {
            if (one.name().isBlank() || one.name().length() > ParcelCheck.LONGEST_NAME) {
                throw Problem.refused("file-name", ParcelCheck.LONGEST_NAME);
            }
            if (one.bytes() < 1 || one.bytes() > ParcelCheck.MOST_BYTES) {
                throw one.bytes() < 1 ? Problem.refused("file-empty", one.name()) : Problem.of(Problem.Kind.TOO_LARGE, "body-too-large", ParcelCheck.MOST_BYTES);
            }
        }
        // What is announced is a row at once, which the next sums know.
        String key = "parcel " + parcel + " " + table.nextNumber(parcel);
        AtomicBoolean isRow = new AtomicBoolean();
        spaces.take(draft.roundId(), draft.roundId() == null ? draft.accountId() : null, key, wanted.stream().mapToLong(Announced::bytes).sum(), isRow::get);
        try {
            List<ParcelFile> made = announced(draft, there, wanted, account);
            isRow.set(true);
            return made;
        } finally {
            if (!isRow.get()) {
                spaces.giveBack(key);
            }
        }
    }

    private List<ParcelFile> announced(Parcel draft, List<ParcelFile> there, List<Announced> wanted, long account) {
        Set<String> names = names(there, table.takenBack(draft.id()));
        List<Long> ids = transactions.durably(() -> {
            int number = table.nextNumber(draft.id());
            List<Long> made = new ArrayList<>();
            for (Announced one : wanted) {
                made.add(table.insert(draft.id(), number++, free(SafeName.of(one.name()), names), one.bytes(), Base64.getUrlEncoder().withoutPadding().encodeToString(keys.random(ID_BYTES)), null,
                        ParcelFile.State.COMING));
            }
            put(draft, wanted.stream().map(Announced::name).toList(), account);
            return made;
        });
        live.publish(LiveEvent.PARCELS);
        return table.ofParcel(draft.id()).stream().filter(file -> ids.contains(file.id())).toList();
    }

    /**
     * Picks received files; nothing of them is copied.
     *
     * @return how many were added; those that are in the parcel already are not again
     */
    synchronized int pick(long parcel, Collection<Long> files, long account) {
        Parcel draft = draft(parcel);
        List<ParcelFile> there = table.ofParcel(parcel);
        Set<Long> before = new HashSet<>(there.stream().map(ParcelFile::receivedFileId).filter(java.util.Objects::nonNull).toList());
        List<ReceivedFile> found = received.byIds(files).stream().filter(file -> !before.contains(file.id())).toList();
        if (received.byIds(files).size() != new HashSet<>(files).size() || found.stream().anyMatch(file -> file.purgedAt() != null)) {
            throw Problem.notFound("no-file");
        }
        check(there.size() + found.size());
        Set<String> names = names(there, table.takenBack(draft.id()));
        Set<Long> rounds = found.stream().map(ReceivedFile::roundId).collect(Collectors.toSet());
        transactions.durably(() -> {
            sharing.narrow(draft.id(), draft.roundId(), rounds, there.isEmpty());
            int number = table.nextNumber(draft.id());
            for (ReceivedFile file : found) {
                table.insert(draft.id(), number++, free(file.storedName(), names), file.sizeBytes(), null, file.id(), ParcelFile.State.CHECKING);
            }
            put(draft, found.stream().map(ReceivedFile::storedName).toList(), account);
        });
        live.publish(LiveEvent.PARCELS);
        return found.size();
    }

    /** What is put into a parcel before it is handed out is nobody's story; in an exchange each file is. */
    private void put(Parcel draft, List<String> names, long account) {
        if (draft.roundId() != null) {
            Instant now = clock.instant();
            names.forEach(name -> acts.insert(draft.id(), ParcelAct.Kind.FILE_PUT, SafeName.of(name), account, now));
        }
    }

    /**
     * Takes bytes of a file in, from the place up to which they came before.
     *
     * @param at the place the body begins at
     * @return the file as it is then
     * @throws Problem with status 409 when other bytes are expected, or somebody else is at it
     */
    ParcelFile write(long parcel, long id, long at, InputStream body) throws IOException {
        if (!writing.add(id)) {
            throw Problem.of(Problem.Kind.LOCKED, "parcel-file-busy");
        }
        try {
            ParcelFile file = ofDraft(parcel, id);
            if (file.state() != ParcelFile.State.COMING || file.bytesId() == null || at != file.offsetBytes()) {
                throw Problem.conflict("parcel-offset", file.offsetBytes());
            }
            String own = file.bytesId();
            long missing = file.sizeBytes() - at;
            promises.promise(own, 0, DESK, missing);
            long came = 0;
            try {
                came = bytes.write(own, at, missing, body);
            } finally {
                promises.rest(own, missing - came);
            }
            long offset = at + came;
            transactions.durably(() -> {
                table.advance(id, at, offset);
                if (offset == file.sizeBytes()) {
                    table.turn(id, ParcelFile.State.COMING, ParcelFile.State.CHECKING, "");
                }
            });
            live.publish(LiveEvent.PARCELS);
            return ofDraft(parcel, id);
        } finally {
            writing.remove(id);
        }
    }

    /** Takes a file out of a draft; bytes of its own are destroyed. One that can be taken out of an exchange already is taken back instead, and can be put there again. */
    void remove(long parcel, long id, long account) {
        ParcelFile file = ofDraft(parcel, id);
        if (file.state() == ParcelFile.State.READY && draft(parcel).roundId() != null) {
            takeBack(file, true, account);
            return;
        }
        if (!writing.add(id)) {
            throw Problem.of(Problem.Kind.LOCKED, "parcel-file-busy");
        }
        try {
            transactions.durably(() -> table.delete(id));
            destroy(file);
        } finally {
            writing.remove(id);
        }
        live.publish(LiveEvent.PARCELS);
    }

    /** Puts a file that was taken back there again. @throws Problem with status 410 when its content is not there any more */
    public void putBack(long parcel, long id, long account) {
        ParcelFile file = ofDraft(parcel, id);
        path(file);
        takeBack(file, false, account);
    }

    private void takeBack(ParcelFile file, boolean on, long account) {
        Instant now = clock.instant();
        transactions.durably(() -> {
            if (table.takeBack(file.id(), on ? now : null) != 1) {
                throw Problem.conflict("changed-elsewhere");
            }
            acts.insert(file.parcelId(), on ? ParcelAct.Kind.FILE_TAKEN_BACK : ParcelAct.Kind.FILE_PUT_BACK, file.fileName(), account, now);
        });
        live.publish(LiveEvent.PARCELS);
    }

    /** The files that were taken back and can be put there again, the last first. */
    public List<ParcelFile> takenBack(long parcel) {
        return table.takenBack(parcel);
    }

    /** What a file is called, also when it is gone. */
    public String name(long id) {
        return table.byId(id).map(ParcelFile::fileName).orElse("");
    }

    /** Whether all of these files still lie in an exchange. */
    public boolean lie(long exchange, List<Long> ids) {
        return table.lying(exchange, ids) == ids.size();
    }

    /** Notes that a file of an exchange answers a received one, such as a corrected form. */
    public void answers(long parcel, long id, ReceivedFile answered) {
        ParcelFile file = ofDraft(parcel, id);
        transactions.durably(() -> table.answers(file.id(), answered.id(), answered.originalName()));
        live.publish(LiveEvent.PARCELS);
    }

    /** Destroys the bytes of a file; those of a received one stay where they lie. */
    void destroy(ParcelFile file) {
        if (file.bytesId() != null) {
            bytes.destroy(file.bytesId());
            promises.rest(file.bytesId(), 0);
        }
    }

    /** Destroys bytes of which no record tells: of drafts that were thrown away and parcels that were purged, where the server stopped in between. */
    @Scheduled(initialDelayString = "${oakbasket.purge-first:PT2M}", fixedDelayString = "${oakbasket.purge-every:PT1H}")
    public void tidy() throws IOException {
        Acting.officeDoes(this::tidyNow);
    }

    private void tidyNow() throws IOException {
        for (ParcelFile old : table.takenBackBefore(clock.instant().minus(ExchangeCheck.KEPT_TAKEN_BACK))) {
            transactions.durably(() -> table.contentGone(old.id()));
            destroy(old);
        }
        for (String id : bytes.left(machine.now().minus(LEFT_LIFE))) {
            if (!table.knows(id)) {
                bytes.destroy(id);
            }
        }
    }

    /** One file of a draft, or 404. */
    private ParcelFile ofDraft(long parcel, long id) {
        draft(parcel);
        return table.byId(id).filter(one -> one.parcelId() == parcel).orElseThrow(() -> Problem.notFound("no-file"));
    }

    private Parcel draft(long id) {
        Parcel parcel = parcels.byId(id).orElseThrow(() -> Problem.notFound("no-parcel"));
        if (parcel.handedOutAt() != null) {
            throw Problem.conflict("parcel-handed-out");
        }
        return parcel;
    }

    private static void check(int files) {
        if (files > ParcelCheck.MOST_FILES) {
            throw Problem.field("files", "parcel-files-most", ParcelCheck.MOST_FILES);
        }
    }

    /** What was taken back keeps its name, under which it can be put there again. */
    private static Set<String> names(List<ParcelFile> there, List<ParcelFile> takenBack) {
        Set<String> names = new HashSet<>();
        there.forEach(file -> names.add(ClashNumber.key(file.fileName())));
        takenBack.forEach(file -> names.add(ClashNumber.key(file.fileName())));
        return names;
    }

    private static String free(String name, Set<String> names) {
        String free = name;
        for (int attempt = 2; !names.add(ClashNumber.key(free)); attempt++) {
            free = ClashNumber.on(name, attempt);
        }
        return free;
    }
}
