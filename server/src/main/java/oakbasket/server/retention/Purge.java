package oakbasket.server.retention;

import java.time.Clock;
import java.time.LocalDate;
import java.util.Set;
import java.util.stream.Collectors;
import oakbasket.core.round.RoundState;
import oakbasket.server.Settings;
import oakbasket.server.filing.Effects;
import oakbasket.server.journal.Act;
import oakbasket.server.journal.Journal;
import oakbasket.server.journal.Why;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.removal.Binned;
import oakbasket.server.removal.RemovedFiles;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.FileStore;
import oakbasket.server.storage.Transactions;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.SmartInitializingSingleton;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/**
 * Destroys what is to be kept no longer: files of closed rounds after their date, and what lay in the bin too long. That it is destroyed is written down for
 * certain before it is, so that a crash leaves neither a file without a record nor a record that is wrong for long.
 */
@Service
class Purge implements SmartInitializingSingleton {

    private static final Logger LOG = LoggerFactory.getLogger(Purge.class);

    private final Rounds rounds;
    private final ReceivedFiles files;
    private final RemovedFiles removed;
    private final Holds holds;
    private final Effects effects;
    private final Journal journal;
    private final FileStore store;
    private final Transactions transactions;
    private final LiveHub live;
    private final Settings settings;
    private final Clock clock;

    Purge(Rounds rounds, ReceivedFiles files, RemovedFiles removed, Holds holds, Effects effects, Journal journal, FileStore store, Transactions transactions, LiveHub live, Settings settings, Clock clock) {
        this.rounds = rounds;
        this.files = files;
        this.removed = removed;
        this.holds = holds;
        this.effects = effects;
        this.journal = journal;
        this.store = store;
        this.transactions = transactions;
        this.live = live;
        this.settings = settings;
        this.clock = clock;
    }

    /** Carries on with what a crash interrupted. */
    @Override
    public void afterSingletonsInstantiated() {
        files.purging().forEach(this::destroy);
    }

    /** Destroys what is due. */
    @Scheduled(initialDelayString = "${oakbasket.purge-first:PT2M}", fixedDelayString = "${oakbasket.purge-every:PT1H}")
    void run() {
        Acting.officeDoes(this::runNow);
    }

    private synchronized void runNow() {
        Set<Long> held = holds.standing().stream().map(Hold::roundId).collect(Collectors.toSet());
        LocalDate today = LocalDate.ofInstant(clock.instant(), settings.zone());
        for (Round round : rounds.keptUntilBefore(today)) {
            if (round.state() == RoundState.CLOSED && !held.contains(round.id())) {
                purge(round.id());
            }
        }
        for (Binned one : removed.overdue()) {
            if (!held.contains(one.roundId())) {
                files.keptOf(one.roundId()).stream().filter(file -> file.id() == one.fileId() && file.removed() && file.purgedAt() == null).forEach(file -> purge(file, one.roundId(), "bin-emptied"));
            }
        }
    }

    private void purge(long round) {
        int purged = 0;
        for (ReceivedFiles.Kept file : files.keptOf(round)) {
            if (file.purgedAt() == null && holds.of(round).isEmpty() && purge(file, round, "retention")) {
                purged++;
            }
        }
        if (purged > 0) {
            LOG.info("Round {}: {} files were kept until their date and are destroyed", round, purged);
            live.publish(new LiveEvent("round", round, null));
        }
    }

    private boolean purge(ReceivedFiles.Kept kept, long round, String why) {
        if (store.obstacle(kept.place()) != null) {
            return false;
        }
        effects.removeCopies(kept.id(), Journal.Cause.of(Act.PURGED, Why.of(why)));
        boolean begun = transactions.durably(() -> {
            boolean mine = files.beginPurge(kept.id(), kept.removed(), clock.instant());
            if (mine) {
                journal.write(kept.id(), round, kept.place(), "", Journal.Cause.of(Act.PURGED, Why.of(why)));
            }
            return mine;
        });
        if (begun) {
            destroy(new ReceivedFiles.Purging(kept.id(), kept.place(), kept.removed()));
        }
        return begun;
    }

    private void destroy(ReceivedFiles.Purging one) {
        if (store.obstacle(one.place()) == null) {
            store.remove(one.place());
            transactions.durably(() -> files.endPurge(one.id(), one.removed()));
        }
    }
}
