package oakbasket.server.folder;

import java.time.Instant;
import java.util.HexFormat;
import java.util.List;
import oakbasket.core.filing.Place;
import oakbasket.core.identity.Identity;
import oakbasket.core.receipt.ReceiptCode;
import oakbasket.core.standing.Review;
import oakbasket.core.team.Permission;
import oakbasket.server.basket.Baskets;
import oakbasket.server.basket.Submission;
import oakbasket.server.basket.Submissions;
import oakbasket.server.filing.Effects;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Rounds;
import oakbasket.server.security.Needs;
import oakbasket.server.storage.Roots;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;

/** Everything that is known of one file. Every place it ever had stands in the journal. */
@RestController
@Needs(Permission.CHANGE)
class FileDetailsController {

    /**
     * A file.
     *
     * @param root the root it lies in
     * @param folder the folder below that root
     */
    record FileDetails(long id, String name, String place, long root, String folder, String originalName, long bytes, String sha256, String mediaType, Instant receivedAt, long roundId, String round, long basketId,
            String person, String item, String receipt, Identity identity, Review review, String reviewReason, boolean unchecked, boolean tray, List<String> marks, List<String> copies, @Nullable Instant purgedAt) {
    }

    private final ReceivedFiles files;
    private final Submissions submissions;
    private final Baskets baskets;
    private final Rounds rounds;
    private final Effects effects;
    private final Roots roots;

    FileDetailsController(ReceivedFiles files, Submissions submissions, Baskets baskets, Rounds rounds, Effects effects, Roots roots) {
        this.files = files;
        this.submissions = submissions;
        this.baskets = baskets;
        this.rounds = rounds;
        this.effects = effects;
        this.roots = roots;
    }

    @GetMapping("/api/folders/files/{id}")
    FileDetails details(@PathVariable long id) {
        ReceivedFile file = files.byId(id);
        Submission sending = submissions.byId(file.submissionId());
        return new FileDetails(id, file.storedName(), roots.words(file.storedPath()), Place.root(file.storedPath()), Place.folder(Place.path(file.storedPath())), file.originalName(), file.sizeBytes(),
                HexFormat.of().formatHex(file.sha256()), file.mediaType(), file.receivedAt(), file.roundId(), rounds.head(file.roundId()).title(), file.basketId(),
                baskets.names(List.of(file.basketId())).getOrDefault(file.basketId(), ""), rounds.itemTitle(file.itemId()), new ReceiptCode(sending.receiptCode()).toString(), sending.identity(), file.review(),
                file.reviewReason(), file.unchecked(), file.inTray(), List.copyOf(effects.marks(id)), effects.copiesOf(id).stream().map(roots::words).toList(), file.purgedAt());
    }
}
