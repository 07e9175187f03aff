package oakbasket.server.removal;

import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.time.Clock;
import java.util.List;
import oakbasket.core.naming.ClashNumber;
import oakbasket.core.naming.SafeName;
import oakbasket.server.basket.Basket;
import oakbasket.server.basket.Baskets;
import oakbasket.server.basket.Submission;
import oakbasket.server.basket.Submissions;
import oakbasket.server.filing.FileMoves;
import oakbasket.server.filing.Filing;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.problem.Problem;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Item;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import oakbasket.server.storage.FileStore;
import oakbasket.server.storage.Transactions;
import oakbasket.server.words.Words;
import org.springframework.stereotype.Service;

/** Takes a file out that should never have come: out of its folder and of every count, list and archive. It is kept apart on the disk and can be put back. */
@Service
public class RemovedFiles {

    private final FileRemovalTable removals;
    private final ReceivedFiles files;
    private final FileMoves moves;
    private final Filing filing;
    private final Rounds rounds;
    private final Baskets baskets;
    private final Submissions submissions;
    private final FileStore store;
    private final Transactions transactions;
    private final LiveHub live;
    private final Clock clock;
    private final String folder;

    RemovedFiles(FileRemovalTable removals, ReceivedFiles files, FileMoves moves, Filing filing, Rounds rounds, Baskets baskets, Submissions submissions, FileStore store,
            Transactions transactions, LiveHub live, Clock clock, Words words) {
        this.removals = removals;
        this.files = files;
        this.moves = moves;
        this.filing = filing;
        this.rounds = rounds;
        this.baskets = baskets;
        this.submissions = submissions;
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
        int[] attempt = {1};
        if (!moves.move(file, () -> place(file, attempt))) {
            throw Problem.conflict("changed-elsewhere");
        }
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
        });
        ReceivedFile file = files.byId(fileId);
        Round round = rounds.opened(file.roundId());
        Basket basket = baskets.byId(file.basketId());
        Submission submission = submissions.find(file.submissionId()).orElseThrow();
        Item item = rounds.items(round.id()).stream().filter(one -> one.id() == file.itemId()).findFirst().orElseThrow();
        boolean[] first = {true};
        moves.move(file, () -> {
            boolean before = first[0] && free(removal.path());
            first[0] = false;
            return before ? removal.path() : filing.choose(round, basket, submission, item, file.originalName(), file.receivedAt());
        });
        live.publish(new LiveEvent("basket", file.roundId(), file.basketId()));
    }

    private String place(ReceivedFile file, int[] attempt) {
        String path;
        do {
            path = folder + "/" + ClashNumber.on(file.storedName(), attempt[0]++);
        } while (!free(path));
        return path;
    }

    private boolean free(String path) {
        return !files.taken(path) && !Files.exists(store.resolve(path), LinkOption.NOFOLLOW_LINKS);
    }
}
