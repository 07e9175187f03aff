package oakbasket.server.held;

import java.time.Clock;
import java.util.Arrays;
import java.util.List;
import oakbasket.server.problem.Problem;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** The records of files in quarantine. */
@Service
public class HeldFiles {

    /** How many files of a round lie there: those that wait to be checked, or those in which something was found. */
    public record PerRound(long roundId, String round, boolean waits, int files) {
    }

    /** The most that one list shows. */
    public static final int MOST_SHOWN = 500;

    private final HeldFileTable table;
    private final Clock clock;

    HeldFiles(HeldFileTable table, Clock clock) {
        this.table = table;
        this.clock = clock;
    }

    /** Records a file. Runs in the caller's transaction. */
    public void record(HeldFile file) {
        table.insert(file);
    }

    /** A file that lies there, or 404. */
    public HeldFile lying(long id) {
        return table.byId(id).filter(file -> file.outcome() == null).orElseThrow(() -> Problem.notFound("no-file"));
    }

    /** Whether the bytes of an upload belong there. */
    public boolean lies(String uploadId) {
        return table.lies(uploadId);
    }

    /** The newest files that lie there. */
    public List<HeldFile> newest() {
        return table.lying(MOST_SHOWN);
    }

    /** How many lie there. */
    public int count() {
        return table.lyingCount();
    }

    /** What waits to be checked, the oldest first. */
    public List<HeldFile> waiting() {
        return table.waiting();
    }

    /** What came with a submission and is or was there, the oldest first. */
    public List<HeldFile> ofSubmission(long submissionId) {
        return table.ofSubmission(submissionId);
    }

    /** Whether a file of this content came with a submission and waits to be checked. */
    public boolean waitsOf(long submissionId, byte[] sha256) {
        return table.ofSubmission(submissionId).stream().anyMatch(file -> file.waits() && file.outcome() == null && Arrays.equals(file.sha256(), sha256));
    }

    /** What was sent for a basket and is or was there, the oldest first. */
    public List<HeldFile> ofBasket(long basketId) {
        return table.ofBasket(basketId);
    }

    /** The same without what somebody else only claims to have sent as this person. */
    public List<HeldFile> ownOf(long basketId) {
        return table.ownOf(basketId);
    }

    /** How much lies there, by round. */
    public List<PerRound> perRound() {
        return table.perRound();
    }

    /** Says that something was found in what only waited. Runs in the caller's transaction. */
    public boolean condemn(HeldFile file, String found) {
        return table.condemn(file.id(), found) == 1;
    }

    /** Says how it ended; false when it had ended already. Runs in the caller's transaction. */
    public boolean settle(HeldFile file, HeldFile.Outcome outcome, @Nullable Long account) {
        return table.settle(file.id(), outcome, account, clock.instant()) == 1;
    }
}
