package oakbasket.server.claim;

import java.util.Objects;
import oakbasket.core.identity.Claim;
import oakbasket.server.basket.Basket;
import oakbasket.server.basket.Baskets;
import oakbasket.server.basket.Submission;
import oakbasket.server.basket.Submissions;
import oakbasket.server.filing.Refile;
import oakbasket.server.journal.Act;
import oakbasket.server.journal.Journal;
import oakbasket.server.journal.Why;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.problem.Problem;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.storage.Transactions;
import org.springframework.stereotype.Service;

/** Says yes or no to what is claimed, and takes it back. Files go to where they then belong. */
@Service
public class Claims {

    private final Submissions submissions;
    private final Baskets baskets;
    private final ReceivedFiles files;
    private final Refile refile;
    private final Transactions transactions;
    private final LiveHub live;

    Claims(Submissions submissions, Baskets baskets, ReceivedFiles files, Refile refile, Transactions transactions, LiveHub live) {
        this.submissions = submissions;
        this.baskets = baskets;
        this.files = files;
        this.refile = refile;
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
            fileAnew(decided, Journal.Cause.by(Act.MOVED, Why.of(to.keptApart() ? "claim-declined" : "claim-accepted"), account));
        }
        live.publish(new LiveEvent("basket", basket.roundId(), basket.id()));
    }

    /** Takes what a sender gave as theirs who has confirmed the address of the person; a no that the coordinator said before stands. */
    public void confirm(Submission submission, long basketId) {
        boolean accepted = transactions.durably(() -> {
            boolean decided = submissions.accept(submission);
            if (decided) {
                files.keepApart(submission.id(), false);
            }
            return decided;
        });
        Basket basket = baskets.byId(basketId);
        if (accepted) {
            fileAnew(submissions.byId(submission.id()), Journal.Cause.of(Act.MOVED, Why.of("claim-confirmed")));
        }
        live.publish(new LiveEvent("basket", basket.roundId(), basketId));
    }

    /** Takes every file of a submission to the place that the rules give it as things stand now. */
    public void fileAnew(Submission submission, Journal.Cause cause) {
        for (ReceivedFile file : files.ofSubmission(submission.id())) {
            refile.refile(file, cause);
        }
    }
}
