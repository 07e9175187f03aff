package oakbasket.server.board;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.time.Instant;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import oakbasket.core.identity.Claim;
import oakbasket.core.identity.Identity;
import oakbasket.core.receipt.ReceiptCode;
import oakbasket.core.standing.Review;
import oakbasket.server.basket.Baskets;
import oakbasket.server.basket.Submission;
import oakbasket.server.basket.Submissions;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.storage.Known;
import oakbasket.server.storage.Roots;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Received files as the desk shows them, with where the same content lay first. */
@Service
class PanelFiles {

    /** Where the same content came first. */
    record SameAs(long fileId, long roundId, long basketId, String person, String path) {
    }

    /**
     * A received file.
     *
     * @param note what the sender wrote along with the sending
     * @param identity how sure it is who sent it
     * @param unchecked whether nobody could check it for malware
     * @param opened whether it is an archive whose files were taken out, and counts for nothing
     * @param declaredAs who the sender said they are; null where they came by their own link
     * @param claim what became of it where the sender only said they are this person; null where there is no doubt
     */
    @RecordBuilder
    @RecordBuilder.Options(builderMode = RecordBuilder.BuilderMode.STANDARD_AND_STAGED)
    record PanelFile(long id, long submissionId, long basketId, long itemId, String name, String originalName, String path, long bytes, String sha256, String mediaType, Instant receivedAt,
            Review review, @Nullable Instant reviewedAt, String reviewReason, String receipt, String note, Identity identity, boolean unchecked, boolean opened, @Nullable String declaredAs, @Nullable Claim claim, @Nullable SameAs sameAs) {
    }

    private final Submissions submissions;
    private final Baskets baskets;
    private final ReceivedFiles files;
    private final Roots roots;

    PanelFiles(Submissions submissions, Baskets baskets, ReceivedFiles files, Roots roots) {
        this.roots = roots;
        this.submissions = submissions;
        this.baskets = baskets;
        this.files = files;
    }

    List<PanelFile> of(List<ReceivedFile> received) {
        Map<Long, Submission> sendings = sendings(received);
        Map<String, ReceivedFile> first = files.firstOf(received.stream().map(ReceivedFile::sha256).toList()).stream()
                .collect(Collectors.toMap(file -> hex(file.sha256()), Function.identity()));
        Map<Long, String> names = baskets.names(first.values().stream().map(ReceivedFile::basketId).distinct().toList());
        return received.stream().map(file -> panelFile(file, Known.in(sendings, file.submissionId()), first.get(hex(file.sha256())), names)).toList();
    }

    /** The submissions that these files came with, by id. */
    Map<Long, Submission> sendings(List<ReceivedFile> received) {
        return submissions.byIds(received.stream().map(ReceivedFile::submissionId).distinct().toList()).stream()
                .collect(Collectors.toMap(Submission::id, Function.identity()));
    }

    private PanelFile panelFile(ReceivedFile file, Submission sending, @Nullable ReceivedFile first, Map<Long, String> names) {
        SameAs sameAs = first == null || first.id() == file.id() ? null
                : new SameAs(first.id(), first.roundId(), first.basketId(), names.getOrDefault(first.basketId(), ""), roots.words(first.storedPath()));
        String declaredAs = sending.declared() ? sending.declaredName() + " <" + sending.declaredEmail() + ">" : null;
        return PanelFilesPanelFileBuilder.stagedBuilder().id(file.id()).submissionId(file.submissionId()).basketId(file.basketId())
                .itemId(file.itemId()).name(file.storedName()).originalName(file.originalName()).path(roots.words(file.storedPath())).bytes(file.sizeBytes())
                .sha256(hex(file.sha256())).mediaType(file.mediaType()).receivedAt(file.receivedAt()).review(file.review())
                .reviewedAt(file.reviewedAt()).reviewReason(file.reviewReason()).receipt(new ReceiptCode(sending.receiptCode()).toString()).note(sending.note())
                .identity(sending.identity()).unchecked(file.unchecked()).opened(file.opened())
                .declaredAs(declaredAs).claim(sending.claim()).sameAs(sameAs).build();
    }

    private static String hex(byte[] hash) {
        return HexFormat.of().formatHex(hash);
    }
}
