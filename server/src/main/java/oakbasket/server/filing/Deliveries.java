package oakbasket.server.filing;

import java.nio.file.Files;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicBoolean;
import oakbasket.core.filing.Place;
import oakbasket.core.naming.ClashNumber;
import oakbasket.server.journal.Act;
import oakbasket.server.journal.Journal;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.review.FilesOnDisk;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.FileStore;
import oakbasket.server.storage.Transactions;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.DisposableBean;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/** Brings what waits to its folder as soon as that can be reached, makes the copies that rules ask for, and tells whom they name. One thing after another. */
@Service
public class Deliveries implements DisposableBean {

    private static final Logger LOG = LoggerFactory.getLogger(Deliveries.class);
    private static final int AT_ONCE = 200;

    private final EffectTable effects;
    private final ReceivedFiles files;
    private final FilesOnDisk disk;
    private final FileMoves moves;
    private final Refile refile;
    private final Filing filing;
    private final Notices notices;
    private final Journal journal;
    private final FileStore store;
    private final Transactions transactions;
    private final LiveHub live;
    private final AtomicBoolean asked = new AtomicBoolean();
    private final ExecutorService worker = Executors.newSingleThreadExecutor(work -> {
        Thread thread = new Thread(work, "deliveries");
        thread.setDaemon(true);
        return thread;
    });

    Deliveries(EffectTable effects, ReceivedFiles files, FilesOnDisk disk, FileMoves moves, Refile refile, Filing filing, Notices notices, Journal journal, FileStore store, Transactions transactions, LiveHub live) {
        this.effects = effects;
        this.files = files;
        this.disk = disk;
        this.moves = moves;
        this.refile = refile;
        this.filing = filing;
        this.notices = notices;
        this.journal = journal;
        this.store = store;
        this.transactions = transactions;
        this.live = live;
    }

    /** Looks soon whether there is something to do. */
    @Scheduled(initialDelay = 5_000, fixedDelay = 20_000)
    public void wake() {
        if (asked.compareAndSet(false, true)) {
            worker.execute(Acting.office(this::deliver));
        }
    }

    /** How many files wait because their folder cannot be reached. */
    public int waiting() {
        return effects.countWaiting("on-its-way");
    }

    /** How many letters about files were given up. */
    public int notTold() {
        return notices.givenUp();
    }

    private void deliver() {
        asked.set(false);
        try {
            moves.finishPostponed();
            boolean more = bringWaiting();
            more |= makeCopies();
            notices.tell();
            if (more) {
                wake();
            }
        } catch (RuntimeException problem) {
            LOG.warn("Deliveries stopped and will be tried again", problem);
        }
    }

    /** Whether there may be more that can be brought. */
    private boolean bringWaiting() {
        List<EffectTable.Waiting> waiting = effects.waiting(AT_ONCE);
        int brought = 0;
        for (EffectTable.Waiting one : waiting) {
            Optional<ReceivedFile> file = files.find(one.fileId());
            if (file.isEmpty()) {
                transactions.quickly(() -> {
                    effects.waits(one.fileId(), null, "");
                    return true;
                });
                continue;
            }
            brought += bring(one, file.get()) ? 1 : 0;
        }
        if (brought > 0) {
            live.publish(new LiveEvent(LiveEvent.FILING, 0, null));
        }
        return brought > 0 && waiting.size() == AT_ONCE;
    }

    private boolean bring(EffectTable.Waiting one, ReceivedFile file) {
        try {
            FileStore.Obstacle obstacle = store.obstacle(one.place());
            if (obstacle == null) {
                return refile.refile(file).there();
            }
            transactions.quickly(() -> {
                effects.stillWaits(file.id(), obstacle.name().toLowerCase(Locale.ROOT).replace('_', '-'));
                return true;
            });
        } catch (RuntimeException problem) {
            LOG.warn("File {} could not be brought to its folder; it waits", file.id(), problem);
        }
        return false;
    }

    private boolean makeCopies() {
        List<EffectTable.Copy> unmade = effects.unmadeCopies(AT_ONCE);
        int made = 0;
        for (EffectTable.Copy copy : unmade) {
            Optional<ReceivedFile> file = files.find(copy.fileId());
            try {
                if (file.isEmpty()) {
                    transactions.quickly(() -> effects.copyGone(copy.id()));
                } else if (store.obstacle(copy.wanted()) == null) {
                    make(copy, file.get());
                    made++;
                }
            } catch (RuntimeException problem) {
                LOG.warn("Copy {} of file {} could not be made; it will be tried again", copy.id(), copy.fileId(), problem);
            }
        }
        return made > 0 && unmade.size() == AT_ONCE;
    }

    private void make(EffectTable.Copy copy, ReceivedFile file) {
        disk.present(file);
        String place = copy.place();
        // After a crash the copy may be there already: then it has the content, since it gets its name only when it is whole.
        boolean there = place != null && Files.isRegularFile(store.resolve(place));
        while (!there) {
            String next = filing.free(Place.folder(copy.wanted()), Place.name(copy.wanted()));
            transactions.durably(() -> effects.promiseCopy(copy.id(), next, ClashNumber.key(next)));
            place = next;
            there = store.copyTo(file.storedPath(), next);
        }
        String made = String.valueOf(place);
        transactions.durably(() -> {
            effects.copyMade(copy.id());
            journal.write(file.id(), file.roundId(), file.storedPath(), made, new Journal.Cause(Act.COPIED, effects.whyOf(copy.id()), null, copy.batchId(), null));
        });
    }

    @Override
    public void destroy() {
        worker.shutdown();
    }
}
