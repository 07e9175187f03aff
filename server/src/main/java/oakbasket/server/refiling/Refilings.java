package oakbasket.server.refiling;

import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.stream.Collectors;
import oakbasket.core.filing.Place;
import oakbasket.core.filing.TrialRun;
import oakbasket.server.filing.Effects;
import oakbasket.server.filing.FileMoves;
import oakbasket.server.filing.Filing;
import oakbasket.server.filing.Trials;
import oakbasket.server.journal.Act;
import oakbasket.server.journal.Journal;
import oakbasket.server.journal.JournalEntry;
import oakbasket.server.journal.JournalFilter;
import oakbasket.server.journal.Why;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.problem.Problem;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.FileStore;
import oakbasket.server.storage.Transactions;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.DisposableBean;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;

/** Puts rules to files that are here already, as one batch that goes on after a restart and can be taken back. One batch after another. */
@Service
public class Refilings implements DisposableBean {

    private static final Logger LOG = LoggerFactory.getLogger(Refilings.class);
    private static final int MOST_LISTED = 50;
    private static final int AT_ONCE = 8;
    private static final int CHUNK = 200;

    private final RefilingTable table;
    private final Trials trials;
    private final FileMoves moves;
    private final Effects effects;
    private final Filing filing;
    private final ReceivedFiles files;
    private final Journal journal;
    private final FileStore store;
    private final Transactions transactions;
    private final LiveHub live;
    private final Clock clock;
    private final ExecutorService batches = Executors.newSingleThreadExecutor(work -> daemon(work, "refiling"));
    private final ExecutorService movers = Executors.newFixedThreadPool(AT_ONCE, work -> daemon(work, "mover"));
    private volatile boolean stopping;

    Refilings(RefilingTable table, Trials trials, FileMoves moves, Effects effects, Filing filing, ReceivedFiles files, Journal journal, FileStore store, Transactions transactions, LiveHub live, Clock clock) {
        this.table = table;
        this.trials = trials;
        this.moves = moves;
        this.effects = effects;
        this.filing = filing;
        this.files = files;
        this.journal = journal;
        this.store = store;
        this.transactions = transactions;
        this.live = live;
        this.clock = clock;
    }

    private static Thread daemon(Runnable work, String name) {
        Thread thread = new Thread(work, name);
        thread.setDaemon(true);
        return thread;
    }

    /** The newest batches. */
    public List<Refiling> newest() {
        return table.newest(MOST_LISTED);
    }

    /** One batch, or 404. */
    public Refiling byId(long id) {
        return table.byId(id).orElseThrow(() -> Problem.notFound("no-refiling"));
    }

    /** Files that could not be moved, and why. */
    List<RefilingStep> failed(long id) {
        return table.steps(id, RefilingStep.State.FAILED, -1, MOST_LISTED);
    }

    /**
     * Puts the rules to what is here, exactly as a trial showed.
     *
     * @param scope a round; 0 stands for all
     * @param last the highest id of a file that the trial looked at
     * @param seal stands for the moves that were shown
     * @throws Problem with status 409 when they would be others now
     */
    public Refiling begin(long scope, long last, String seal, long account) {
        Trials.Trial trial = trials.of(scope, null, last);
        if (!trial.seal().equals(seal)) {
            throw Problem.conflict("trial-outdated");
        }
        List<RefilingStep> steps = new ArrayList<>();
        for (TrialRun.Move move : trial.outcome().moves()) {
            Trials.Tried tried = Objects.requireNonNull(trial.tried().get(move.file()));
            steps.add(new RefilingStep(steps.size(), move.file(), move.from(), move.to(), tried.why(), RefilingStep.State.WAITS, "", null));
        }
        long id = transactions.durably(() -> {
            long made = table.insert(scope, null, steps.size(), clock.instant(), account);
            table.insert(made, steps);
            trial.tried().values().forEach(tried -> effects.beside(tried.file().id(), tried.decision(), made));
            return made;
        });
        start(id);
        return byId(id);
    }

    /**
     * A file that somebody moves together with others.
     *
     * @param to where it goes
     */
    public record ByHand(ReceivedFile file, String to) {
    }

    /** Moves files that somebody chose, as one batch. */
    public Refiling byHand(List<ByHand> chosen, long account) {
        List<RefilingStep> steps = new ArrayList<>();
        for (ByHand one : chosen) {
            steps.add(new RefilingStep(steps.size(), one.file().id(), one.file().storedPath(), one.to(), Why.of("by-hand"), RefilingStep.State.WAITS, "", null));
        }
        long id = transactions.durably(() -> {
            long made = table.insert(0, null, steps.size(), clock.instant(), account);
            table.insert(made, steps);
            return made;
        });
        start(id);
        return byId(id);
    }

    /**
     * Takes a batch back, file by file, where that is still possible.
     *
     * @throws Problem with status 409 when it goes on, or was taken back already
     */
    public Refiling undo(long id, long account) {
        Refiling before = byId(id);
        if (before.endedAt() == null) {
            throw Problem.conflict("refiling-goes-on");
        }
        if (before.undone()) {
            throw Problem.conflict("undone-already");
        }
        Map<Long, JournalEntry> entries = journal.found(new JournalFilter(null, null, null, null, null, null, id, null), Integer.MAX_VALUE).stream()
                .filter(entry -> entry.act() != Act.COPIED && !entry.undone()).collect(Collectors.toMap(JournalEntry::fileId, entry -> entry, (one, other) -> one));
        List<RefilingStep> steps = new ArrayList<>();
        // The last one first, so that a place is free again before another file had it.
        for (JournalEntry entry : entries.values().stream().sorted((one, other) -> Long.compare(other.id(), one.id())).toList()) {
            steps.add(new RefilingStep(steps.size(), entry.fileId(), entry.toPlace(), entry.fromPlace(), Why.of("undone"), RefilingStep.State.WAITS, "", entry.id()));
        }
        long made = transactions.durably(() -> {
            if (byId(id).undone()) {
                throw Problem.conflict("undone-already");
            }
            long undoing = table.insert(before.roundId(), id, steps.size(), clock.instant(), account);
            table.insert(undoing, steps);
            return undoing;
        });
        effects.takeBack(id, account);
        start(made);
        return byId(made);
    }

    @EventListener(ApplicationReadyEvent.class)
    void goOn() {
        table.unended().forEach(one -> start(one.id()));
    }

    private void start(long id) {
        batches.execute(Acting.office(() -> {
            try {
                run(byId(id));
            } catch (RuntimeException problem) {
                LOG.warn("Batch {} stopped; it goes on after the next start", id, problem);
            }
        }));
    }

    private void run(Refiling batch) {
        int after = -1;
        while (!stopping) {
            List<RefilingStep> some = table.steps(batch.id(), RefilingStep.State.WAITS, after, CHUNK);
            if (some.isEmpty()) {
                tidy(batch);
                transactions.durably(() -> table.end(batch.id(), clock.instant()));
                live.publish(new LiveEvent(LiveEvent.FILING, batch.roundId(), null));
                return;
            }
            CompletableFuture.allOf(some.stream().map(step -> CompletableFuture.runAsync(Acting.office(() -> one(batch, step)), movers)).toArray(CompletableFuture[]::new)).join();
            after = some.get(some.size() - 1).number();
            live.publish(new LiveEvent(LiveEvent.FILING, batch.roundId(), null));
        }
    }

    /** Folders that somebody moved as a whole do not stay behind empty. */
    private void tidy(Refiling batch) {
        for (List<RefilingStep> some = table.steps(batch.id(), RefilingStep.State.DONE, -1, CHUNK); !some.isEmpty(); some = table.steps(batch.id(), RefilingStep.State.DONE, some.get(some.size() - 1).number(), CHUNK)) {
            some.stream().filter(step -> step.why().rule() == null).map(step -> Place.folder(step.fromPlace())).filter(folder -> !folder.isEmpty()).distinct().forEach(store::removeEmptyFolders);
        }
    }

    private void one(Refiling batch, RefilingStep step) {
        if (stopping) {
            return;
        }
        ReceivedFile file = files.find(step.fileId()).orElse(null);
        if (file == null) {
            settle(batch, step, "gone");
        } else if (file.storedPath().equals(step.toPlace())) {
            settle(batch, step, "");
        } else if (!file.storedPath().equals(step.fromPlace())) {
            settle(batch, step, "moved-since");
        } else {
            try {
                move(batch, step, file);
            } catch (Problem taken) {
                settle(batch, step, taken.code());
            } catch (RuntimeException problem) {
                LOG.warn("File {} could not be moved; it stays where it is", file.id(), problem);
                settle(batch, step, "disk");
            }
        }
    }

    private void move(Refiling batch, RefilingStep step, ReceivedFile file) {
        boolean[] asked = {false};
        FileMoves.Outcome outcome = moves.move(file, () -> {
            // What was shown is what is done: another name than that is not taken without being asked.
            if (asked[0] || filing.taken(step.toPlace())) {
                throw Problem.conflict("place-taken");
            }
            asked[0] = true;
            return step.toPlace();
        }, () -> new Journal.Cause(Act.MOVED, step.why(), batch.begunBy(), batch.id(), step.undoes()), () -> {
            effects.trayByPlace(file.id(), step.toPlace());
            table.settle(batch.id(), step.number(), RefilingStep.State.DONE, "");
        });
        if (!outcome.there()) {
            settle(batch, step, outcome == FileMoves.Outcome.MISSING ? "missing" : "moved-since");
        }
    }

    private void settle(Refiling batch, RefilingStep step, String problem) {
        transactions.quickly(() -> {
            table.settle(batch.id(), step.number(), problem.isEmpty() ? RefilingStep.State.DONE : RefilingStep.State.FAILED, problem);
            return true;
        });
    }

    @Override
    public void destroy() {
        stopping = true;
        batches.shutdown();
        movers.shutdown();
    }
}
