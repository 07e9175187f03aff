package oakbasket.server.loose;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.util.Arrays;
import java.util.Base64;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicBoolean;
import oakbasket.core.arrival.ScanVerdict;
import oakbasket.core.filing.Place;
import oakbasket.server.clock.MachineTime;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.loose.LooseFile.State;
import oakbasket.server.problem.Problem;
import oakbasket.server.scan.Scanner;
import oakbasket.server.security.Hash;
import oakbasket.server.security.SecretKeys;
import oakbasket.server.space.Spaces;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.FileStore;
import oakbasket.server.storage.Roots;
import oakbasket.server.storage.Transactions;
import oakbasket.server.upload.ContentLook;
import oakbasket.server.upload.DiskPromises;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/** Takes in papers that came without a link, and lets them go again. */
@Service
public class LooseFiles {

    /** As many may wait at once. */
    public static final int MOST = 300;
    /** 4 GiB. */
    static final long MOST_BYTES = 4L << 30;
    static final int LONGEST_NAME = 255;
    /** How long what was taken out of the tray can be put back. */
    static final Duration OUT_LIFE = Duration.ofDays(30);
    /** Bytes without a record may still be coming, but not for this long without one more. */
    private static final Duration LEFT_LIFE = Duration.ofDays(1);
    private static final int ID_BYTES = 18;
    private static final String DESK = "desk";
    private static final Logger LOG = LoggerFactory.getLogger(LooseFiles.class);

    private static final long NOBODY = 0;

    private final LooseTable table;
    private final LooseBytes bytes;
    private final ContentLook look;
    private final Scanner scanner;
    private final DiskPromises promises;
    private final Spaces spaces;
    private final FileStore store;
    private final Roots roots;
    private final SecretKeys keys;
    private final Transactions transactions;
    private final LiveHub live;
    private final Clock clock;
    private final MachineTime machine;

    LooseFiles(LooseTable table, LooseBytes bytes, ContentLook look, Scanner scanner, DiskPromises promises, Spaces spaces, FileStore store, Roots roots, SecretKeys keys, Transactions transactions, LiveHub live, Clock clock, MachineTime machine) {
        this.spaces = spaces;
        this.table = table;
        this.bytes = bytes;
        this.look = look;
        this.scanner = scanner;
        this.promises = promises;
        this.store = store;
        this.roots = roots;
        this.keys = keys;
        this.transactions = transactions;
        this.live = live;
        this.clock = clock;
        this.machine = machine;
    }

    /** How many wait. */
    public int waiting() {
        return table.count(State.OPEN);
    }

    /** What waits, the oldest first. */
    public List<LooseFile> open() {
        return table.inState(State.OPEN, MOST);
    }

    /** A paper that is not filed, or 404. */
    public LooseFile byId(long id) {
        return table.byId(id).filter(file -> file.state() != State.FILED).orElseThrow(() -> Problem.notFound("no-file"));
    }

    /** Where its bytes lie. */
    public Path path(LooseFile file) {
        return bytes.path(file.uploadId());
    }

    /**
     * Puts a paper in.
     *
     * @param length how many bytes will come
     * @throws Problem when it cannot be taken; nothing of it is kept then
     */
    public long put(String name, long length, InputStream body, long account) {
        if (name.isBlank() || name.length() > LONGEST_NAME) {
            throw Problem.refused("file-name", LONGEST_NAME);
        }
        if (length == 0) {
            throw Problem.refused("file-empty", name);
        }
        if (length < 0 || length > MOST_BYTES) {
            throw Problem.of(Problem.Kind.TOO_LARGE, "body-too-large", MOST_BYTES);
        }
        String key = newId();
        // What waits in the tray takes up room of the office alone, until it belongs to a round.
        AtomicBoolean isRow = new AtomicBoolean();
        spaces.take(null, NOBODY, key, length, isRow::get);
        long id;
        try {
            id = take(key, new Origin(LooseFile.Way.DESK, "", "", null, account), name, length, body, null);
            isRow.set(true);
        } finally {
            if (!isRow.get()) {
                spaces.giveBack(key);
            }
        }
        tell();
        return id;
    }

    /**
     * Takes a paper in that was found in a folder; it does not lie there any more then.
     *
     * @param sha256 the content that was found
     * @throws Problem with status 409 when another content lies there now
     */
    public long takeIn(String place, byte[] sha256, long account) {
        Path found = store.resolve(place);
        long id;
        try (InputStream body = Files.newInputStream(found)) {
            id = take(newId(), new Origin(LooseFile.Way.DISK, place, "", null, account), Place.name(place), Files.size(found), body, sha256);
        } catch (IOException gone) {
            throw Problem.conflict("changed-elsewhere");
        }
        store.remove(place);
        tell();
        return id;
    }

    /**
     * Takes in a paper that was sent by mail. Taking the same one again gives the same paper.
     *
     * @param key by which it is known, whatever dies when
     * @param from the address it says it is from
     * @param basketHint the basket it is supposed to be for; null where nothing tells
     * @throws Problem when it cannot be taken; nothing of it is kept then
     */
    public LooseFile takeMailed(String key, Path content, String name, String from, @Nullable Long basketHint) {
        String id = mailedId(key);
        LooseFile before = table.byUpload(id).orElse(null);
        if (before != null) {
            return before;
        }
        // What a crash left of it came to nobody's knowledge.
        bytes.destroy(id);
        try (InputStream body = Files.newInputStream(content)) {
            long taken = take(id, new Origin(LooseFile.Way.MAIL, "", from, basketHint, null), name.length() > LONGEST_NAME ? name.substring(name.length() - LONGEST_NAME) : name, Files.size(content), body, null);
            tell();
            return table.byId(taken).orElseThrow();
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }

    /** A paper that was taken from a message before. @param key by which it is known */
    public Optional<LooseFile> mailed(String key) {
        return table.byUpload(mailedId(key));
    }

    private static String mailedId(String key) {
        return Base64.getUrlEncoder().withoutPadding().encodeToString(Arrays.copyOf(Hash.of(key), ID_BYTES));
    }

    /** A paper, also one that was filed; empty where there is none. */
    public Optional<LooseFile> find(long id) {
        return table.byId(id);
    }

    private String newId() {
        return Base64.getUrlEncoder().withoutPadding().encodeToString(keys.random(ID_BYTES));
    }

    /** How a paper came. */
    private record Origin(LooseFile.Way way, String place, String from, @Nullable Long basketHint, @Nullable Long account) {
    }

    private long take(String id, Origin origin, String name, long length, InputStream body, byte @Nullable [] expected) {
        if (table.count(State.OPEN) >= MOST) {
            throw Problem.refused("tray-full", MOST);
        }
        promises.promise(id, 0, DESK, length);
        try {
            byte[] hash = bytes.take(id, body, length);
            if (expected != null && !Arrays.equals(expected, hash)) {
                throw Problem.conflict("changed-elsewhere");
            }
            ScanVerdict verdict = scanner.scan(bytes.path(id)).verdict();
            if (verdict == ScanVerdict.FOUND) {
                throw Problem.refused("loose-malware", name);
            }
            String type = look.mediaType(bytes.path(id), name);
            return transactions.durably(() -> table.insert(LooseFileBuilder.stagedBuilder().id(0).uploadId(id).cameBy(origin.way()).foundAt(origin.place()).fileName(name).sizeBytes(length).sha256(hash).mediaType(type)
                    .unchecked(verdict == ScanVerdict.UNCHECKED).cameAt(clock.instant()).accountId(origin.account()).state(State.OPEN).submissionId(null).fileId(null)
                    .fromAddress(origin.from()).basketHint(origin.basketHint()).build()));
        } catch (IOException problem) {
            bytes.destroy(id);
            throw new UncheckedIOException(problem);
        } catch (RuntimeException refused) {
            bytes.destroy(id);
            throw refused;
        } finally {
            promises.rest(id, 0);
        }
    }

    /**
     * Takes a paper out of the tray: what was found goes back to where it lay, and what was put in can be put back for {@link #OUT_LIFE}.
     *
     * @throws Problem with status 409 when somebody decided meanwhile, or another file lies where it lay
     */
    public void out(long id, long account) {
        LooseFile file = turn(id, State.OPEN, State.OUT, account);
        if (file.cameBy() == LooseFile.Way.DISK) {
            boolean back = false;
            try {
                if (store.obstacle(file.foundAt()) == FileStore.Obstacle.ROOT_AWAY) {
                    throw Problem.conflict("root-is-away", roots.name(Place.root(file.foundAt())));
                }
                back = store.obstacle(file.foundAt()) == null && store.place(path(file), file.foundAt());
            } finally {
                if (!back) {
                    transactions.durably(() -> table.turn(id, State.OUT, State.OPEN, null, null));
                }
            }
            if (!back) {
                throw Problem.conflict("place-taken");
            }
            transactions.durably(() -> table.remove(id));
            bytes.destroy(file.uploadId());
        }
        tell();
    }

    /** Puts back into the tray what was taken out. @throws Problem with status 409 when that was done already */
    public void back(long id, long account) {
        turn(id, State.OUT, State.OPEN, account);
        tell();
    }

    private LooseFile turn(long id, State from, State to, long account) {
        LooseFile file = byId(id);
        if (transactions.durably(() -> table.turn(id, from, to, clock.instant(), account)) != 1) {
            throw Problem.conflict("changed-elsewhere");
        }
        return file;
    }

    /** Destroys what was taken out long ago, and bytes of which no record tells: whoever put them in was not told that they are here. */
    @Scheduled(initialDelayString = "${oakbasket.purge-first:PT2M}", fixedDelayString = "${oakbasket.purge-every:PT1H}")
    void tidy() throws IOException {
        Acting.officeDoes(this::tidyNow);
    }

    private void tidyNow() throws IOException {
        for (LooseFile file : table.outBefore(clock.instant().minus(OUT_LIFE))) {
            transactions.durably(() -> table.remove(file.id()));
            bytes.destroy(file.uploadId());
            LOG.info("Paper {} was taken out of the tray long ago and is destroyed", file.id());
        }
        for (String id : bytes.left(machine.now().minus(LEFT_LIFE))) {
            if (!table.knows(id)) {
                bytes.destroy(id);
            }
        }
    }

    void tell() {
        live.publish(new LiveEvent(LiveEvent.FILING, 0, null));
    }
}
