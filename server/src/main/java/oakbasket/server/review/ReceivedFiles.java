package oakbasket.server.review;

import java.time.Clock;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import oakbasket.core.naming.ClashNumber;
import oakbasket.core.standing.Review;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.storage.Transactions;
import oakbasket.server.web.Problem;
import org.springframework.stereotype.Service;

/** The records of received files, and their review. */
@Service
public class ReceivedFiles {

    private static final int LONGEST_REASON = 500;

    private final ReceivedFileTable table;
    private final Transactions transactions;
    private final LiveHub live;
    private final Clock clock;

    ReceivedFiles(ReceivedFileTable table, Transactions transactions, LiveHub live, Clock clock) {
        this.table = table;
        this.transactions = transactions;
        this.live = live;
        this.clock = clock;
    }

    /** Records a file. Runs in the caller's transaction. */
    public void record(NewFile file) {
        table.insert(file, ClashNumber.key(file.storedPath()));
    }

    /** Whether a received file has this place, or one that a disk ignoring case would mix up with it. */
    public boolean taken(String path) {
        return table.pathTaken(ClashNumber.key(path));
    }

    /** One file, or 404. */
    public ReceivedFile byId(long id) {
        return table.byId(id).orElseThrow(() -> Problem.notFound("no-file"));
    }

    /** Files by id in the order of their places; ids that do not exist are left out. */
    public List<ReceivedFile> byIds(Collection<Long> ids) {
        return table.byIds(ids);
    }

    /** All files of a round, the oldest first. */
    public List<ReceivedFile> ofRound(long roundId) {
        return table.ofRound(roundId);
    }

    /** All files of a basket, the oldest first. */
    public List<ReceivedFile> ofBasket(long basketId) {
        return table.ofBasket(basketId);
    }

    /** All files of a submission, the oldest first. */
    public List<ReceivedFile> ofSubmission(long submissionId) {
        return table.ofSubmission(submissionId);
    }

    /** Files received after an instant, the newest first, at most so many. */
    public List<ReceivedFile> since(Instant since, int most) {
        return table.since(since, most);
    }

    /** Whether an upload became a received file. */
    public boolean receivedBy(String uploadId) {
        return table.receivedBy(uploadId);
    }

    /** Whether anything of a submission was received. */
    public boolean anyOfSubmission(long submissionId) {
        return table.anyOfSubmission(submissionId);
    }

    /** How many files of an item that count came by other submissions than this one. */
    public int countKeptFromOthers(long basketId, long itemId, long submissionId) {
        return table.countKeptFromOthers(basketId, itemId, submissionId);
    }

    /** How many files an item of a basket has received, returned ones included. */
    public int countOfItem(long basketId, long itemId) {
        return table.countOfItem(basketId, itemId);
    }

    /**
     * Accepts or returns a file, or takes a review back.
     *
     * @param from the review the coordinator saw
     * @throws Problem with status 409 when somebody else reviewed it meanwhile, 422 when a return has no reason
     */
    public ReceivedFile review(long id, Review from, Review to, String reason) {
        String plain = reason.strip();
        if (to == Review.RETURNED && (plain.isEmpty() || plain.length() > LONGEST_REASON)) {
            throw Problem.refused("fields").at("reason", plain.isEmpty() ? "Say why, in words the sender will read" : "Use at most " + LONGEST_REASON + " characters");
        }
        ReceivedFile file = byId(id);
        if (transactions.durably(() -> table.review(id, from, to, to == Review.RETURNED ? plain : "", clock.instant())) != 1) {
            throw Problem.conflict("changed-elsewhere");
        }
        live.publish(new LiveEvent("basket", file.roundId(), file.basketId()));
        return byId(id);
    }

    /** Sets a review at a time of the past; only the demo does. */
    public void backdate(long id, Review to, String reason, Instant at) {
        transactions.quickly(() -> table.review(id, Review.NONE, to, reason, at));
    }
}
