package oakbasket.server.claim;

import java.util.List;
import java.util.Objects;
import oakbasket.core.identity.Claim;
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
import oakbasket.server.storage.Transactions;
import org.springframework.stereotype.Service;

/** Says yes or no to what is claimed, and takes it back. Files go to where they then belong. */
@Service
public class Claims {

    private final Submissions submissions;
    private final Baskets baskets;
    private final Rounds rounds;
    private final ReceivedFiles files;
    private final Filing filing;
    private final FileMoves moves;
    private final Transactions transactions;
    private final LiveHub live;

    Claims(Submissions submissions, Baskets baskets, Rounds rounds, ReceivedFiles files, Filing filing, FileMoves moves, Transactions transactions, LiveHub live) {
        this.submissions = submissions;
        this.baskets = baskets;
        this.rounds = rounds;
        this.files = files;
        this.filing = filing;
        this.moves = moves;
        this.transactions = transactions;
        this.live = live;
    }

    /**
     * Decides a claim.
     *
     * @param from what the coordinator saw
     * @throws Problem with status 404 when nothing is claimed by this submission, 409 when somebody decided otherwise meanwhile
     */
    public void decide(long submissionId, Claim from, Claim to, long account) {
        Submission submission = submissions.find(submissionId).filter(one -> one.claim() != null).orElseThrow(() -> Problem.notFound("no-claim"));
        transactions.durably(() -> {
            if (!submissions.decide(submission, from, to, account)) {
                throw Problem.conflict("changed-elsewhere");
            }
            files.keepApart(submissionId, to.keptApart());
        });
        Submission decided = submissions.byId(submissionId);
        Basket basket = baskets.byId(Objects.requireNonNull(decided.basketId()));
        if (from.keptApart() != to.keptApart()) {
            fileAnew(decided, basket);
        }
        live.publish(new LiveEvent("basket", basket.roundId(), basket.id()));
    }

    /** Takes every file of a submission to the place that its round's patterns give it as things stand now. */
    public void fileAnew(Submission submission, Basket basket) {
        Round round = rounds.opened(basket.roundId());
        List<Item> items = rounds.items(round.id());
        for (ReceivedFile file : files.ofSubmission(submission.id())) {
            items.stream().filter(item -> item.id() == file.itemId()).findFirst().ifPresent(item ->
                    moves.move(file, () -> filing.choose(round, basket, submission, item, file.originalName(), file.receivedAt())));
        }
    }
}
