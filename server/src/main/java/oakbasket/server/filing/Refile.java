package oakbasket.server.filing;

import java.util.function.Function;
import oakbasket.server.basket.Basket;
import oakbasket.server.basket.Baskets;
import oakbasket.server.basket.Submission;
import oakbasket.server.basket.Submissions;
import oakbasket.server.journal.Act;
import oakbasket.server.journal.Journal;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.round.Rounds;
import org.springframework.stereotype.Service;

/** Takes a file to the place that the rules give it as things stand now. */
@Service
public class Refile {

    private final Rounds rounds;
    private final Baskets baskets;
    private final Submissions submissions;
    private final Filing filing;
    private final FileMoves moves;

    Refile(Rounds rounds, Baskets baskets, Submissions submissions, Filing filing, FileMoves moves) {
        this.rounds = rounds;
        this.baskets = baskets;
        this.submissions = submissions;
        this.filing = filing;
        this.moves = moves;
    }

    /** Where a file goes now. */
    public Chosen choose(ReceivedFile file) {
        Basket basket = baskets.byId(file.basketId());
        Submission submission = submissions.byId(file.submissionId());
        return filing.choose(rounds.opened(file.roundId()), basket, submission, rounds.itemTitle(file.itemId()), file);
    }

    /** Takes it there, for a reason that is not the rules'. */
    public FileMoves.Outcome refile(ReceivedFile file, Journal.Cause cause) {
        return refile(file, chosen -> cause);
    }

    /** Takes it there because the rules say so. */
    public FileMoves.Outcome refile(ReceivedFile file) {
        return refile(file, chosen -> Journal.Cause.of(Act.MOVED, chosen.why()));
    }

    private FileMoves.Outcome refile(ReceivedFile file, Function<Chosen, Journal.Cause> cause) {
        Chosen[] chosen = new Chosen[1];
        return moves.move(file, () -> {
            chosen[0] = choose(file);
            return chosen[0].place();
        }, () -> cause.apply(chosen[0]), () -> filing.settled(file.id(), chosen[0], false, null));
    }
}
