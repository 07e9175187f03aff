package oakbasket.server.basket;

import java.time.Clock;
import java.time.Instant;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Stream;
import oakbasket.core.receipt.ReceiptCode;
import oakbasket.server.held.HeldFile;
import oakbasket.server.held.HeldFiles;
import oakbasket.server.problem.Problem;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Rounds;
import oakbasket.server.security.Limits;
import oakbasket.server.storage.Transactions;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;

/** Ends sendings and gives the sender's proof of what was received. */
@Service
public class Receipts {

    /** The longest note in characters. */
    public static final int LONGEST_NOTE = 2_000;

    /**
     * One line of a receipt.
     *
     * @param waiting whether it is received and waits to be checked for malware before anybody opens it
     */
    public record ReceiptLine(String item, String name, long bytes, String sha256, boolean sentBefore, boolean waiting) {
    }

    /** The sender's proof. */
    public record Receipt(String code, Instant at, List<ReceiptLine> files) {
    }

    private final SubmissionTable table;
    private final ReceivedFiles files;
    private final HeldFiles held;
    private final Rounds rounds;
    private final Transactions transactions;
    private final Limits limits;
    private final ApplicationEventPublisher events;
    private final Clock clock;

    Receipts(SubmissionTable table, ReceivedFiles files, HeldFiles held, Rounds rounds, Transactions transactions, Limits limits, ApplicationEventPublisher events, Clock clock) {
        this.table = table;
        this.files = files;
        this.held = held;
        this.rounds = rounds;
        this.transactions = transactions;
        this.limits = limits;
        this.events = events;
        this.clock = clock;
    }

    /**
     * Whether this very content was received with the submission of a receipt. What is said is the same for a code that was never given and for another content.
     *
     * @param sha256 in hexadecimal
     * @param caller the caller's address, by which asking is limited
     * @throws Problem naming the field that cannot be read, or when there were too many questions
     */
    public boolean proves(String code, String sha256, String caller) {
        limits.count(Limits.Kind.RECEIPT, caller);
        if (!sha256.matches("[0-9a-fA-F]{64}")) {
            throw Problem.field("sha256", "not-a-hash");
        }
        ReceiptCode receipt;
        try {
            receipt = ReceiptCode.parse(code);
        } catch (IllegalArgumentException mistyped) {
            throw Problem.field("code", "not-a-receipt");
        }
        return table.byReceipt(receipt.text()).filter(submission -> submission.finishedAt() != null && files.receivedWith(submission.id(), HexFormat.of().parseHex(sha256)) || held.waitsOf(submission.id(), HexFormat.of().parseHex(sha256))).isPresent();
    }

    /**
     * Ends a submission and tells what was received. Asking again gives the same receipt.
     *
     * @param note what the sender writes to the office; kept only when the submission ends by this
     * @throws Problem when nothing was received, or the note is too long
     */
    public Receipt finish(Submission submission, String note) {
        if (note.strip().length() > LONGEST_NOTE) {
            throw Problem.field("note", "longest-has", LONGEST_NOTE, note.strip().length());
        }
        // In the order of the checklist: in which order the lines of a connection were done is nothing to anybody.
        List<ReceivedFile> received = files.ofSubmission(submission.id()).stream().sorted(Comparator.comparingLong(ReceivedFile::itemId)).toList();
        List<HeldFile> waiting = held.ofSubmission(submission.id()).stream().filter(file -> file.waits() && file.outcome() == null).toList();
        if (received.isEmpty() && waiting.isEmpty()) {
            throw Problem.refused("nothing-sent");
        }
        if (submission.finishedAt() == null) {
            transactions.durably(() -> {
                int finished = table.finish(submission.id(), note.strip(), clock.instant());
                if (finished == 1) {
                    events.publishEvent(new SendingFinished(table.byId(submission.id()).orElseThrow()));
                }
                return finished;
            });
        }
        Instant at = Objects.requireNonNull(table.byId(submission.id()).orElseThrow().finishedAt());
        Map<Long, String> titles = rounds.itemTitles(Stream.concat(received.stream().map(ReceivedFile::itemId), waiting.stream().map(HeldFile::itemId)).distinct().toList());
        List<ReceivedFile> earlier = submission.selfDeclared() || submission.basketId() == null ? received : files.ofBasket(submission.basketId());
        List<ReceiptLine> lines = Stream.concat(
                received.stream().map(file -> new ReceiptLine(titles.getOrDefault(file.itemId(), ""), file.originalName(), file.sizeBytes(), HexFormat.of().formatHex(file.sha256()),
                        earlier.stream().anyMatch(other -> other.id() < file.id() && Arrays.equals(other.sha256(), file.sha256())), false)),
                waiting.stream().map(file -> new ReceiptLine(titles.getOrDefault(file.itemId(), ""), file.originalName(), file.sizeBytes(), HexFormat.of().formatHex(file.sha256()), false, true)))
                .toList();
        return new Receipt(new ReceiptCode(submission.receiptCode()).toString(), at, lines);
    }
}
