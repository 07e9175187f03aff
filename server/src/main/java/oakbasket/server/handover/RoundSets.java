package oakbasket.server.handover;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.security.MessageDigest;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.zip.CRC32;
import oakbasket.core.archive.Bag;
import oakbasket.core.archive.ZipLayout;
import oakbasket.core.naming.ClashNumber;
import oakbasket.core.naming.SafeName;
import oakbasket.core.round.RoundState;
import oakbasket.core.standing.Review;
import oakbasket.server.brand.Brand;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.problem.Problem;
import oakbasket.server.review.FilesOnDisk;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import oakbasket.server.security.Hash;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.Archive;
import oakbasket.server.storage.Known;
import oakbasket.server.storage.Roots;
import oakbasket.server.storage.Transactions;
import oakbasket.server.takeaway.SentFiles;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.DisposableBean;
import org.springframework.stereotype.Service;

/** Makes the set of a closed round ready, by reading every file once and comparing it with its hash, and lays it out so that it can be sent from any byte on. */
@Service
class RoundSets implements DisposableBean {

    /** As what a set is handed over. */
    enum Form {
        ZIP,
        BAG
    }

    /**
     * How far a set is.
     *
     * @param ready how many files were found right
     * @param wrong the places of files that are not what was received, or not there; they keep the set from being handed over
     * @param running whether files are being read now
     */
    record Readiness(int files, long bytes, int ready, List<String> wrong, boolean running) {
    }

    private static final Logger LOG = LoggerFactory.getLogger(RoundSets.class);
    private static final int BUFFER = 1 << 18;
    private static final int CHUNK = 50;

    private final Rounds rounds;
    private final ReceivedFiles files;
    private final FilesOnDisk disk;
    private final CrcTable crcs;
    private final SentFiles table;
    private final Roots roots;
    private final Transactions transactions;
    private final LiveHub live;
    private final Brand brand;
    private final Words words;
    private final Map<Long, Set<Long>> wrong = new ConcurrentHashMap<>();
    private final Set<Long> running = ConcurrentHashMap.newKeySet();
    private final ExecutorService worker = Executors.newSingleThreadExecutor(work -> {
        Thread thread = new Thread(work, "handover");
        thread.setDaemon(true);
        return thread;
    });
    private volatile boolean stopping;

    RoundSets(Rounds rounds, ReceivedFiles files, FilesOnDisk disk, CrcTable crcs, SentFiles table, Roots roots, Transactions transactions, LiveHub live, Words words, Brand brand) {
        this.brand = brand;
        this.rounds = rounds;
        this.files = files;
        this.disk = disk;
        this.crcs = crcs;
        this.table = table;
        this.roots = roots;
        this.transactions = transactions;
        this.live = live;
        this.words = words;
    }

    /** What belongs to the set: what counts and was not returned, in the order of its places. */
    private List<ReceivedFile> set(long roundId) {
        Round round = rounds.opened(roundId);
        if (round.state() == RoundState.GATHERING) {
            throw Problem.conflict("set-gathering");
        }
        return files.ofRound(roundId).stream().filter(file -> file.review() != Review.RETURNED && file.purgedAt() == null).sorted(Comparator.comparing(ReceivedFile::storedPath)).toList();
    }

    /**
     * How far the set of a round is.
     *
     * @throws Problem with status 409 while the round gathers
     */
    Readiness readiness(long round) {
        List<ReceivedFile> its = set(round);
        Map<Long, CrcTable.Crc> known = crcs.of(its.stream().map(ReceivedFile::id).toList());
        Set<Long> bad = wrong.getOrDefault(round, Set.of());
        return new Readiness(its.size(), its.stream().mapToLong(ReceivedFile::sizeBytes).sum(), (int) its.stream().filter(file -> right(file, known) && !bad.contains(file.id())).count(),
                its.stream().filter(file -> bad.contains(file.id())).map(file -> roots.words(file.storedPath())).toList(), running.contains(round));
    }

    private static boolean right(ReceivedFile file, Map<Long, CrcTable.Crc> known) {
        CrcTable.Crc crc = known.get(file.id());
        return crc != null && Arrays.equals(crc.sha256(), file.sha256());
    }

    /** Reads every file that was not found right yet, in the background. */
    void prepare(long round) {
        List<ReceivedFile> its = set(round);
        if (its.isEmpty()) {
            throw Problem.conflict("set-empty");
        }
        if (running.add(round)) {
            worker.execute(Acting.office(() -> {
                try {
                    read(round, its);
                } catch (RuntimeException problem) {
                    LOG.warn("The set of round {} could not be made ready", round, problem);
                } finally {
                    running.remove(round);
                    live.publish(new LiveEvent(LiveEvent.FILING, round, null));
                }
            }));
        }
    }

    private void read(long round, List<ReceivedFile> its) {
        Map<Long, CrcTable.Crc> known = crcs.of(its.stream().map(ReceivedFile::id).toList());
        Set<Long> bad = ConcurrentHashMap.newKeySet();
        wrong.put(round, bad);
        List<CrcTable.Crc> found = new ArrayList<>();
        for (ReceivedFile file : its) {
            if (stopping) {
                return;
            }
            try {
                // What was found right before may have been changed on the disk since: its length is looked at in any case.
                if (right(file, known) && Files.size(disk.present(file)) == file.sizeBytes()) {
                    continue;
                }
                CrcTable.Crc crc = crc(file);
                if (crc == null) {
                    bad.add(file.id());
                } else {
                    disk.foundRight(file);
                    found.add(crc);
                }
            } catch (IOException | Problem gone) {
                bad.add(file.id());
            }
            if (found.size() >= CHUNK) {
                keep(found);
                live.publish(new LiveEvent(LiveEvent.FILING, round, null));
            }
        }
        keep(found);
    }

    private void keep(List<CrcTable.Crc> found) {
        List<CrcTable.Crc> some = List.copyOf(found);
        transactions.quickly(() -> {
            crcs.put(some);
            return true;
        });
        found.clear();
    }

    private CrcTable.@Nullable Crc crc(ReceivedFile file) throws IOException {
        CRC32 crc = new CRC32();
        MessageDigest digest = Hash.sha256();
        byte[] buffer = new byte[BUFFER];
        try (InputStream in = Files.newInputStream(disk.present(file))) {
            for (int n = in.read(buffer); n >= 0; n = in.read(buffer)) {
                crc.update(buffer, 0, n);
                digest.update(buffer, 0, n);
            }
        }
        return Arrays.equals(digest.digest(), file.sha256()) ? new CrcTable.Crc(file.id(), crc.getValue(), file.sha256()) : null;
    }

    /**
     * The set as an archive.
     *
     * @throws Problem with status 409 when it was not made ready, or a file of it is not what was received
     */
    Archive archive(long roundId, Form form) {
        Round round = rounds.opened(roundId);
        List<ReceivedFile> its = set(roundId);
        Map<Long, CrcTable.Crc> known = crcs.of(its.stream().map(ReceivedFile::id).toList());
        if (its.isEmpty()) {
            throw Problem.conflict("set-empty");
        }
        if (its.stream().anyMatch(file -> !right(file, known)) || !wrong.getOrDefault(roundId, Set.of()).isEmpty()) {
            throw Problem.conflict("set-not-ready");
        }
        String title = SafeName.of(round.title());
        Instant closed = Objects.requireNonNullElse(round.closedAt(), round.openedAt());
        List<String> paths = paths(its);
        List<ZipLayout.Entry> entries = new ArrayList<>();
        List<Archive.Part> parts = new ArrayList<>();
        Bag.Tag sent = new Bag.Tag(words.of("set.table"), table.csv(roundId));
        List<Bag.Tag> tags = form == Form.ZIP ? List.of(sent) : bag(round, closed, its, paths, sent);
        for (Bag.Tag tag : tags) {
            CRC32 crc = new CRC32();
            crc.update(tag.content());
            entries.add(new ZipLayout.Entry(title + "/" + tag.name(), tag.content().length, crc.getValue(), closed));
            parts.add(new Archive.Part(null, tag.content()));
        }
        disk.warm(its);
        for (int n = 0; n < its.size(); n++) {
            ReceivedFile file = its.get(n);
            entries.add(new ZipLayout.Entry(title + (form == Form.BAG ? "/data/" : "/") + paths.get(n), file.sizeBytes(), Known.in(known, file.id()).crc32(), file.receivedAt()));
            parts.add(new Archive.Part(disk.leaving(file), new byte[0]));
        }
        return new Archive(title + (form == Form.BAG ? " (BagIt).zip" : ".zip"), new ZipLayout(entries), parts, seal(entries, its));
    }

    private List<Bag.Tag> bag(Round round, Instant closed, List<ReceivedFile> its, List<String> paths, Bag.Tag sent) {
        List<Bag.Payload> payload = new ArrayList<>();
        for (int n = 0; n < its.size(); n++) {
            payload.add(new Bag.Payload(paths.get(n), its.get(n).sha256(), its.get(n).sizeBytes()));
        }
        return Bag.tags(payload, List.of("Source-Organization: " + brand.name(), "External-Description: " + round.title(), "Bagging-Date: " + LocalDate.ofInstant(closed, round.zone())), List.of(sent));
    }

    /** Places as they stand in the set: without the folders that all share, and no two alike where a system minds no case. */
    private List<String> paths(List<ReceivedFile> its) {
        List<String> all = its.stream().map(file -> roots.words(file.storedPath())).toList();
        String[] common = all.get(0).split("/");
        int shared = common.length - 1;
        for (String path : all) {
            String[] here = path.split("/");
            int same = 0;
            while (same < shared && same < here.length - 1 && here[same].equals(common[same])) {
                same++;
            }
            shared = same;
        }
        Set<String> used = new HashSet<>();
        List<String> paths = new ArrayList<>();
        for (String path : all) {
            String[] here = path.split("/");
            String name = String.join("/", Arrays.copyOfRange(here, shared, here.length));
            String free = name;
            for (int attempt = 2; !used.add(ClashNumber.key(free)); attempt++) {
                int slash = name.lastIndexOf('/') + 1;
                free = name.substring(0, slash) + ClashNumber.on(name.substring(slash), attempt);
            }
            paths.add(free);
        }
        return paths;
    }

    private static String seal(List<ZipLayout.Entry> entries, List<ReceivedFile> its) {
        MessageDigest digest = Hash.sha256();
        entries.forEach(entry -> digest.update((entry + "\n").getBytes(StandardCharsets.UTF_8)));
        its.forEach(file -> digest.update(file.sha256()));
        return HexFormat.of().formatHex(digest.digest()).toLowerCase(Locale.ROOT);
    }

    @Override
    public void destroy() {
        stopping = true;
        worker.shutdown();
    }
}
