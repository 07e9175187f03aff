package oakbasket.server.loose;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import oakbasket.core.round.RoundState;
import oakbasket.core.standing.Review;
import oakbasket.server.basket.Basket;
import oakbasket.server.basket.Baskets;
import oakbasket.server.basket.Submission;
import oakbasket.server.basket.Submissions;
import oakbasket.server.journal.Act;
import oakbasket.server.journal.Journal;
import oakbasket.server.journal.Why;
import oakbasket.server.loose.LooseFile.State;
import oakbasket.server.problem.Problem;
import oakbasket.server.removal.RemovedFiles;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Item;
import oakbasket.server.round.Rounds;
import oakbasket.server.security.SecretKeys;
import oakbasket.server.storage.FileStore;
import oakbasket.server.storage.Transactions;
import oakbasket.server.upload.DeskArrivals;
import oakbasket.server.words.Words;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationStartedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;

/** Files loose papers for a person and an item, each once whatever happens, and takes that back. */
@Service
public class LooseFiling {

    private static final int ID_BYTES = 18;
    private static final Logger LOG = LoggerFactory.getLogger(LooseFiling.class);

    private final LooseTable table;
    private final LooseBytes bytes;
    private final LooseFiles loose;
    private final DeskArrivals arrivals;
    private final Baskets baskets;
    private final Submissions submissions;
    private final Rounds rounds;
    private final ReceivedFiles files;
    private final RemovedFiles removed;
    private final Journal journal;
    private final FileStore store;
    private final SecretKeys keys;
    private final Transactions transactions;
    private final Clock clock;
    private final String takenBack;

    LooseFiling(LooseTable table, LooseBytes bytes, LooseFiles loose, DeskArrivals arrivals, Baskets baskets, Submissions submissions, Rounds rounds, ReceivedFiles files, RemovedFiles removed,
            Journal journal, FileStore store, SecretKeys keys, Transactions transactions, Clock clock, Words words) {
        this.table = table;
        this.bytes = bytes;
        this.loose = loose;
        this.arrivals = arrivals;
        this.baskets = baskets;
        this.submissions = submissions;
        this.rounds = rounds;
        this.files = files;
        this.removed = removed;
        this.journal = journal;
        this.store = store;
        this.keys = keys;
        this.transactions = transactions;
        this.clock = clock;
        this.takenBack = words.of("why.to-tray");
    }

    /**
     * Files papers; all of them as one sending.
     *
     * @throws Problem with status 409 when somebody decided about one meanwhile; those before it in the list are filed then
     */
    public void file(List<Long> ids, long basketId, long itemId, long account) {
        Basket basket = baskets.byIds(List.of(basketId)).stream().filter(one -> !one.removed()).findFirst().orElseThrow(() -> Problem.field("basketId", "tray-person"));
        Item item = rounds.items(basket.roundId()).stream().filter(one -> one.id() == itemId).findFirst().orElseThrow(() -> Problem.field("itemId", "tray-item"));
        if (rounds.opened(basket.roundId()).state() != RoundState.GATHERING) {
            throw Problem.field("roundId", "tray-round");
        }
        List<LooseFile> claimed = new ArrayList<>();
        for (long id : ids) {
            LooseFile paper = loose.byId(id);
            if (transactions.durably(() -> table.turn(id, State.OPEN, State.FILING, clock.instant(), account)) != 1) {
                claimed.forEach(this::giveBack);
                throw Problem.conflict("changed-elsewhere");
            }
            claimed.add(paper);
        }
        try {
            Submission sending = transactions.durably(() -> submissions.byDesk(basket));
            while (!claimed.isEmpty()) {
                one(claimed.get(0), sending, basket.roundId(), item);
                claimed.remove(0);
            }
        } finally {
            claimed.forEach(this::giveBack);
            loose.tell();
        }
    }

    /**
     * Files a paper that came by mail with the sending it came with.
     *
     * @return the received file; empty when somebody decided about the paper meanwhile
     */
    public Optional<Long> fileMailed(LooseFile paper, Submission sending, long roundId, Item item) {
        if (transactions.durably(() -> table.turn(paper.id(), State.OPEN, State.FILING, clock.instant(), null)) == 1) {
            boolean filed = false;
            try {
                one(paper, sending, roundId, item);
                filed = true;
            } finally {
                if (!filed) {
                    giveBack(paper);
                }
                loose.tell();
            }
        }
        return Optional.ofNullable(table.byId(paper.id()).orElseThrow().fileId());
    }

    private void one(LooseFile paper, Submission sending, long round, Item item) {
        bytes.toArrive(paper.uploadId());
        long file = arrivals.file(new DeskArrivals.Paper(paper.uploadId(), paper.fileName(), paper.sizeBytes(), paper.sha256(), paper.mediaType(), paper.unchecked(), paper.cameAt()), sending, round, item);
        settle(paper, sending.id(), file);
    }

    private void settle(LooseFile paper, long sending, long file) {
        transactions.durably(() -> table.filed(paper.id(), sending, file));
        bytes.destroy(paper.uploadId());
    }

    private void giveBack(LooseFile paper) {
        transactions.durably(() -> table.turn(paper.id(), State.FILING, State.OPEN, null, null));
        try {
            bytes.notToArrive(paper.uploadId());
        } catch (IOException problem) {
            LOG.warn("What was begun of paper {} could not be removed; it will be at the next start", paper.id(), problem);
        }
    }

    /** Settles what a crash interrupted, once everything that had arrived is recorded. */
    @EventListener(ApplicationStartedEvent.class)
    void carryOn() {
        for (LooseFile paper : table.inState(State.FILING, Integer.MAX_VALUE)) {
            files.idOf(paper.uploadId()).ifPresentOrElse(file -> settle(paper, files.byId(file).submissionId(), file), () -> giveBack(paper));
        }
    }

    /**
     * Takes the filing of papers back: they wait in the tray again.
     *
     * @throws Problem with status 409 when one was reviewed, taken out or given back already
     */
    public void undo(List<Long> ids, long account) {
        for (long id : ids) {
            LooseFile paper = table.byId(id).filter(one -> one.state() == State.FILED).orElseThrow(() -> Problem.conflict("undone-already"));
            ReceivedFile file = files.find(Objects.requireNonNull(paper.fileId())).orElseThrow(() -> Problem.conflict("undone-already"));
            if (file.review() != Review.NONE) {
                throw Problem.conflict("loose-checked");
            }
            String again = Base64.getUrlEncoder().withoutPadding().encodeToString(keys.random(ID_BYTES));
            removed.remove(file.id(), takenBack, account);
            ReceivedFiles.Kept binned = files.keptOf(file.roundId()).stream().filter(one -> one.id() == file.id() && one.removed()).findFirst().orElseThrow(() -> Problem.conflict("undone-already"));
            try (InputStream content = Files.newInputStream(store.resolve(binned.place()))) {
                bytes.take(again, content, file.sizeBytes());
            } catch (IOException problem) {
                throw new UncheckedIOException(problem);
            }
            transactions.durably(() -> {
                if (table.back(id, again) != 1 || !files.beginPurge(file.id(), true, clock.instant())) {
                    throw Problem.conflict("undone-already");
                }
                journal.write(file.id(), file.roundId(), binned.place(), "", Journal.Cause.by(Act.PURGED, Why.of("to-tray"), account));
            });
            store.remove(binned.place());
            transactions.durably(() -> files.endPurge(file.id(), true));
        }
        loose.tell();
    }
}
