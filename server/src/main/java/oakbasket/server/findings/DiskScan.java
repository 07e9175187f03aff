package oakbasket.server.findings;

import java.io.IOException;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.stream.Collectors;
import oakbasket.core.filing.Place;
import oakbasket.core.naming.ClashNumber;
import oakbasket.server.clock.MachineTime;
import oakbasket.server.filing.Effects;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.CheckedFiles;
import oakbasket.server.storage.FileStore;
import oakbasket.server.storage.Roots;
import oakbasket.server.storage.Transactions;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/**
 * Looks at every folder and compares it with the records. Only what looks otherwise than before is read; nothing is ever changed by it, but for copies
 * that were never finished.
 */
@Service
class DiskScan {

    private static final Logger LOG = LoggerFactory.getLogger(DiskScan.class);
    private static final int MOST_NEW = 10_000;
    /** What changed just now may still be being filed. */
    private static final Duration SETTLED = Duration.ofSeconds(5);
    /** A copy that nothing was written to for so long will not be finished. */
    private static final Duration ABANDONED = Duration.ofHours(1);

    /** What was found; sizes and hashes as the records of findings have them. */
    private record Found(Finding.Kind kind, String place, @Nullable Long file, long size, byte @Nullable [] sha256) {
        String key() {
            return kind + ClashNumber.key(place);
        }
    }

    private final FindingTable table;
    private final ReceivedFiles files;
    private final Effects effects;
    private final FileStore store;
    private final Roots roots;
    private final Transactions transactions;
    private final LiveHub live;
    private final Clock clock;
    private final MachineTime machine;
    private final AtomicBoolean running = new AtomicBoolean();
    private final AtomicBoolean asked = new AtomicBoolean();
    private final ScheduledExecutorService soon = Executors.newSingleThreadScheduledExecutor(work -> {
        Thread thread = new Thread(work, "disk-scan");
        thread.setDaemon(true);
        return thread;
    });
    private volatile Instant lastEnded = Instant.EPOCH;

    DiskScan(FindingTable table, ReceivedFiles files, Effects effects, FileStore store, Roots roots, Transactions transactions, LiveHub live, Clock clock, MachineTime machine) {
        this.table = table;
        this.files = files;
        this.effects = effects;
        this.store = store;
        this.roots = roots;
        this.transactions = transactions;
        this.live = live;
        this.clock = clock;
        this.machine = machine;
    }

    /** When the last look ended; null when there was none yet. */
    @Nullable Instant lastEnded() {
        return lastEnded.equals(Instant.EPOCH) ? null : lastEnded;
    }

    /** What is found to be altered when somebody wants it is told to the desk soon, and not only at the next look. */
    @EventListener
    void altered(CheckedFiles.Altered altered) {
        if (asked.compareAndSet(false, true)) {
            soon.schedule(() -> {
                asked.set(false);
                look();
            }, SETTLED.plusSeconds(1).toSeconds(), TimeUnit.SECONDS);
        }
    }

    @EventListener(ContextClosedEvent.class)
    void close() {
        soon.shutdownNow();
    }

    /** Looks at everything; does nothing when a look is under way. */
    @Scheduled(initialDelayString = "${oakbasket.scan-folders-first:PT3M}", fixedDelayString = "${oakbasket.scan-folders-every:PT1H}")
    void look() {
        Acting.officeDoes(this::lookAtEverything);
    }

    private void lookAtEverything() {
        if (!running.compareAndSet(false, true)) {
            return;
        }
        try {
            List<Found> found = new ArrayList<>();
            Set<Long> away = new HashSet<>();
            for (Roots.Root root : roots.all()) {
                if (!roots.isThere(root.id())) {
                    away.add(root.id());
                }
            }
            compare(found, away);
            for (Roots.Root root : roots.all()) {
                if (!away.contains(root.id())) {
                    newOnes(root.id(), found);
                }
            }
            keep(found, away);
            lastEnded = clock.instant();
        } catch (IOException | RuntimeException problem) {
            LOG.warn("The look at the folders stopped; it will be tried again", problem);
        } finally {
            running.set(false);
        }
    }

    private void compare(List<Found> found, Set<Long> away) {
        Map<Long, FindingTable.Seen> seen = table.seen();
        List<FindingTable.Seen> fresh = new ArrayList<>();
        for (ReceivedFile file : files.resting()) {
            if (away.contains(Place.root(file.storedPath()))) {
                continue;
            }
            Path path = store.resolve(file.storedPath());
            try {
                BasicFileAttributes now = Files.readAttributes(path, BasicFileAttributes.class, LinkOption.NOFOLLOW_LINKS);
                FindingTable.Seen before = seen.get(file.id());
                FindingTable.Seen looks = new FindingTable.Seen(file.id(), now.size(), now.lastModifiedTime().toInstant());
                if (!now.isRegularFile()) {
                    found.add(new Found(Finding.Kind.MISSING, file.storedPath(), file.id(), 0, null));
                } else if (before == null || before.sizeBytes() != looks.sizeBytes() || !before.changedAt().equals(looks.changedAt())) {
                    byte[] hash = FileStore.digest(path);
                    if (Arrays.equals(hash, file.sha256())) {
                        fresh.add(looks);
                    } else {
                        found.add(new Found(Finding.Kind.ALTERED, file.storedPath(), file.id(), now.size(), hash));
                    }
                }
            } catch (NoSuchFileException gone) {
                if (files.find(file.id()).filter(again -> again.storedPath().equals(file.storedPath()) && again.otherPath() == null).isPresent()) {
                    found.add(new Found(Finding.Kind.MISSING, file.storedPath(), file.id(), 0, null));
                }
            } catch (IOException unreadable) {
                LOG.warn("File {} could not be looked at", file.id());
            }
        }
        transactions.quickly(() -> {
            fresh.forEach(table::see);
            return true;
        });
    }

    private void newOnes(long root, List<Found> found) throws IOException {
        Path folder = roots.path(root);
        Instant settled = machine.now().minus(SETTLED);
        Instant abandoned = machine.now().minus(ABANDONED);
        List<String> places = new ArrayList<>();
        Map<String, Long> sizes = new HashMap<>();
        Files.walkFileTree(folder, new SimpleFileVisitor<>() {
            @Override
            public FileVisitResult visitFile(Path path, BasicFileAttributes now) throws IOException {
                if (Roots.isUnfinished(path.getFileName().toString()) && now.lastModifiedTime().toInstant().isBefore(abandoned)) {
                    // What it was a copy of stays until the copy is whole and has its name.
                    Files.deleteIfExists(path);
                    return FileVisitResult.CONTINUE;
                }
                if (now.isRegularFile() && !Roots.isOwn(path.getFileName().toString()) && now.lastModifiedTime().toInstant().isBefore(settled)) {
                    String place = Place.of(root, folder.relativize(path).toString());
                    places.add(place);
                    sizes.put(place, now.size());
                }
                return FileVisitResult.CONTINUE;
            }

            @Override
            public FileVisitResult visitFileFailed(Path path, IOException problem) {
                return FileVisitResult.CONTINUE;
            }
        });
        Set<String> known = files.everyPlace();
        known.addAll(effects.everyCopy());
        for (String place : places) {
            if (!known.contains(ClashNumber.key(place)) && found.size() < MOST_NEW && !files.taken(place)) {
                try {
                    found.add(new Found(Finding.Kind.NEW, place, null, sizes.getOrDefault(place, 0L), FileStore.digest(store.resolve(place))));
                } catch (IOException gone) {
                    continue;
                }
            }
        }
    }

    /** What is still found keeps its record, with what somebody decided about it; what is not found any more goes. */
    private void keep(List<Found> found, Set<Long> away) {
        Map<String, Finding> before = table.all().stream().collect(Collectors.toMap(one -> one.kind() + ClashNumber.key(one.place()), one -> one));
        Set<String> now = found.stream().map(Found::key).collect(Collectors.toSet());
        boolean[] changed = {false};
        transactions.durably(() -> {
            before.forEach((key, one) -> {
                if (!now.contains(key) && !away.contains(Place.root(one.place()))) {
                    table.remove(one.id());
                    changed[0] = true;
                }
            });
            for (Found one : found) {
                Finding known = before.get(one.key());
                if (known != null && !Arrays.equals(known.sha256(), one.sha256())) {
                    table.remove(known.id());
                    known = null;
                }
                if (known == null) {
                    table.put(one.kind(), one.place(), one.file(), one.size(), one.sha256(), clock.instant());
                    changed[0] = true;
                }
            }
        });
        if (changed[0]) {
            live.publish(new LiveEvent(LiveEvent.FILING, 0, null));
        }
    }
}
