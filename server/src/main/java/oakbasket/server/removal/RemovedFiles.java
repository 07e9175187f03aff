package oakbasket.server.removal;

import java.time.Clock;
import java.time.Duration;
import java.util.List;
import oakbasket.core.naming.ClashNumber;
import oakbasket.core.naming.SafeName;
import oakbasket.server.filing.Effects;
import oakbasket.server.filing.FileMoves;
import oakbasket.server.filing.Filing;
import oakbasket.server.filing.Refile;
import oakbasket.server.journal.Act;
import oakbasket.server.journal.Journal;
import oakbasket.server.journal.Why;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.problem.Problem;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.storage.FileStore;
import oakbasket.server.storage.Transactions;
import oakbasket.server.words.Words;
import org.springframework.stereotype.Service;

/** Takes a file out that should never have come: out of its folder and of every count, list and archive. It is kept apart on the disk and can be put back. */
@Service
public class RemovedFiles {

    /** How long what was removed can be put back. */
    public static final Duration BIN_LIFE = Duration.ofDays(30);

    private final FileRemovalTable removals;
    private final ReceivedFiles files;
    private final FileMoves moves;
    private final Refile refile;
    private final Filing filing;
    private final FileStore store;
    private final Transactions transactions;
    private final LiveHub live;
    private final Clock clock;
    private final Effects effects;
    private final Journal journal;
    private final String folder;
    private final String lost;

    RemovedFiles(FileRemovalTable removals, ReceivedFiles files, FileMoves moves, Refile refile, Filing filing, Effects effects, Journal journal, FileStore store,
            Transactions transactions, LiveHub live, Clock clock, Words words) {
        this.removals = removals;
        this.files = files;
        this.moves = moves;
        this.refile = refile;
        this.filing = filing;
        this.effects = effects;
        this.journal = journal;
        this.lost = words.of("why.lost");
        this.store = store;
        this.transactions = transactions;
        this.live = live;
        this.clock = clock;
        this.folder = SafeName.of(words.of("folder.removed"));
    }

    /** Every removal in a basket, the oldest first. */
    public List<FileRemoval> ofBasket(long basketId) {
        return removals.ofFiles(files.everOf(basketId));
    }

    /**
     * Takes a file out.
     *
     * @throws Problem with status 422 when no reason is given, 409 when the file moves or is out already
     */
    public void remove(long fileId, String reason, long account) {
        String plain = reason.strip();
        if (plain.isEmpty() || plain.length() > ReceivedFiles.LONGEST_REASON) {
            throw plain.isEmpty() ? Problem.field("reason", "removal-reason") : Problem.field("reason", "longest", ReceivedFiles.LONGEST_REASON);
        }
        ReceivedFile file = files.byId(fileId);
        if (file.purgedAt() != null) {
            throw Problem.of(Problem.Kind.GONE, "file-purged");
        }
        int[] attempt = {1};
        FileMoves.Outcome outcome = moves.move(file, () -> place(file, attempt), Journal.Cause.by(Act.REMOVED, Why.noted("removed", plain), account));
        if (!outcome.there()) {
            throw Problem.conflict("changed-elsewhere");
        }
        effects.removeCopies(fileId, Journal.Cause.by(Act.REMOVED, Why.noted("removed", plain), account));
        transactions.durably(() -> {
            if (!files.takeOut(fileId)) {
                throw Problem.conflict("changed-elsewhere");
            }
            removals.insert(fileId, file.storedPath(), plain, account, clock.instant());
        });
        live.publish(new LiveEvent("basket", file.roundId(), file.basketId()));
    }

    /**
     * Puts a file back to where it lay; where that is taken, to where it would go now.
     *
     * @throws Problem with status 404 when it is not out
     */
    public void restore(long fileId, long account) {
        FileRemoval removal = removals.standing(fileId).orElseThrow(() -> Problem.notFound("no-file"));
        transactions.durably(() -> {
            if (removals.restore(removal.id(), account, clock.instant()) != 1) {
                throw Problem.conflict("changed-elsewhere");
            }
            files.putBack(fileId);
            effects.wantAgain(fileId);
        });
        ReceivedFile file = files.byId(fileId);
        boolean[] first = {true};
        moves.move(file, () -> {
            boolean before = first[0] && free(removal.path()) && store.obstacle(removal.path()) == null;
            first[0] = false;
            return before ? removal.path() : refile.choose(file).place();
        }, Journal.Cause.by(Act.RESTORED, Why.of("restored"), account));
        live.publish(new LiveEvent("basket", file.roundId(), file.basketId()));
    }

    /** Takes a file out whose content is gone from the disk. */
    public void giveUp(ReceivedFile file, long account) {
        transactions.durably(() -> {
            if (!files.takeOut(file.id())) {
                throw Problem.conflict("changed-elsewhere");
            }
            removals.insert(file.id(), file.storedPath(), lost, account, clock.instant());
            journal.write(file.id(), file.roundId(), file.storedPath(), "", Journal.Cause.by(Act.REMOVED, Why.of("lost"), account));
        });
        live.publish(new LiveEvent("basket", file.roundId(), file.basketId()));
    }

    /** The folder of the first root that the bin lies in. */
    public String folder() {
        return folder;
    }

    /** What lies in the bin, the newest first. */
    public List<Binned> bin() {
        return removals.bin();
    }

    /** What lies in the bin longer than it may. */
    public List<Binned> overdue() {
        return removals.due(clock.instant().minus(BIN_LIFE));
    }

    private String place(ReceivedFile file, int[] attempt) {
        String path;
        do {
            path = folder + "/" + ClashNumber.on(file.storedName(), attempt[0]++);
        } while (!free(path));
        return path;
    }

    private boolean free(String path) {
        return !filing.taken(path);
    }
}
