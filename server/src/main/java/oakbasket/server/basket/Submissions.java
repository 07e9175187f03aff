package oakbasket.server.basket;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HexFormat;
import java.util.List;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.core.receipt.ReceiptCode;
import oakbasket.server.link.Hash;
import oakbasket.server.link.Link;
import oakbasket.server.link.Links;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Item;
import oakbasket.server.round.Rounds;
import oakbasket.server.storage.SecretKeys;
import oakbasket.server.storage.Transactions;
import oakbasket.server.web.Limits;
import oakbasket.server.web.Problem;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Begins sendings and gives receipts. A submission is known to its sender by a random key that only the page which began it holds. */
@Service
public class Submissions {

    private static final int KEY_BYTES = 20;

    /** One line of a receipt. */
    public record ReceiptLine(String item, String name, long bytes, String sha256, boolean sentBefore) {
    }

    /** The sender's proof. */
    public record Receipt(String code, Instant at, List<ReceiptLine> files) {
    }

    private final SubmissionTable table;
    private final Baskets baskets;
    private final ReceivedFiles files;
    private final Rounds rounds;
    private final Links links;
    private final SecretKeys keys;
    private final Transactions transactions;
    private final LiveHub live;
    private final Limits limits;
    private final Clock clock;

    Submissions(SubmissionTable table, Baskets baskets, ReceivedFiles files, Rounds rounds, Links links, SecretKeys keys, Transactions transactions,
            LiveHub live, Limits limits, Clock clock) {
        this.table = table;
        this.baskets = baskets;
        this.files = files;
        this.rounds = rounds;
        this.links = links;
        this.keys = keys;
        this.transactions = transactions;
        this.live = live;
        this.limits = limits;
        this.clock = clock;
    }

    /**
     * Begins a submission.
     *
     * @param name who the sender says they are; needed on an open link, ignored on a personal one
     * @return the key of the submission
     * @throws Problem naming the fields that are missing or wrong
     */
    public String begin(Link link, String name, String email) {
        Person declared = link.isOpen() ? declared(name, email) : null;
        limits.count(Limits.Kind.SUBMISSION, Long.toString(link.id()));
        String key = Base64.getUrlEncoder().withoutPadding().encodeToString(keys.random(KEY_BYTES));
        transactions.durably(() -> insert(link, declared, key, clock.instant()));
        if (declared != null) {
            live.publish(new LiveEvent("basket", link.roundId(), byKey(key).basketId()));
        }
        return key;
    }

    /** Begins a submission at a time of the past; only the demo does. */
    public Submission backdated(Link link, @Nullable Person declared, Instant at) {
        String key = Base64.getUrlEncoder().encodeToString(keys.random(KEY_BYTES));
        return transactions.quickly(() -> {
            long id = insert(link, declared, key, at);
            table.finish(id, at);
            links.use(link.id());
            return byId(id);
        });
    }

    private long insert(Link link, @Nullable Person declared, String key, Instant at) {
        Long personal = link.basketId();
        long basket = personal != null ? personal : baskets.declared(link.roundId(), java.util.Objects.requireNonNull(declared)).id();
        return table.insert(basket, link.id(), Hash.of(key), ReceiptCode.random(keys.generator()).text(),
                declared == null ? null : declared.name(), declared == null ? null : declared.address().text(), at);
    }

    /** The submission with this key, or 404. */
    public Submission byKey(@Nullable String key) {
        if (key == null || key.length() > 100) {
            throw Problem.notFound("no-submission");
        }
        return table.byKeyHash(Hash.of(key)).orElseThrow(() -> Problem.notFound("no-submission"));
    }

    /** A submission known to exist. */
    public Submission byId(long id) {
        return table.byId(id).orElseThrow();
    }

    /** The basket a submission belongs to, which stays so until the end of the caller's transaction. */
    public long lockedBasket(long id) {
        return table.lockedBasket(id);
    }

    /** The submissions of a basket, the oldest first. */
    List<Submission> ofBasket(long basketId) {
        return table.ofBasket(basketId);
    }

    /**
     * Ends a submission and tells what was received. Asking again gives the same receipt.
     *
     * @throws Problem when nothing was received
     */
    public Receipt finish(Submission submission) {
        List<ReceivedFile> received = files.ofSubmission(submission.id());
        if (received.isEmpty()) {
            throw Problem.refused("nothing-sent");
        }
        if (submission.finishedAt() == null) {
            transactions.durably(() -> table.finish(submission.id(), clock.instant()));
        }
        Instant at = byId(submission.id()).finishedAt();
        List<Item> items = rounds.items(received.get(0).roundId());
        List<ReceivedFile> earlier = submission.selfDeclared() ? received : files.ofBasket(submission.basketId());
        List<ReceiptLine> lines = received.stream().map(file -> new ReceiptLine(
                items.stream().filter(item -> item.id() == file.itemId()).findFirst().map(item -> item.spec().title()).orElseGet(() -> rounds.itemTitle(file.itemId())), file.originalName(),
                file.sizeBytes(), HexFormat.of().formatHex(file.sha256()),
                earlier.stream().anyMatch(other -> other.id() < file.id() && java.util.Arrays.equals(other.sha256(), file.sha256())))).toList();
        return new Receipt(new ReceiptCode(submission.receiptCode()).toString(), at, lines);
    }

    private static Person declared(String name, String email) {
        List<Problem.FieldError> errors = new ArrayList<>();
        if (name.isBlank() || name.strip().length() > Person.LONGEST_NAME || name.strip().chars().anyMatch(Character::isISOControl)) {
            errors.add(new Problem.FieldError("name", name.isBlank() ? "Please give your name" : "Please use at most 200 characters on one line"));
        }
        try {
            MailAddress address = MailAddress.parse(email);
            if (errors.isEmpty()) {
                return new Person(name.strip(), address);
            }
        } catch (IllegalArgumentException problem) {
            errors.add(new Problem.FieldError("email", String.valueOf(problem.getMessage())));
        }
        throw Problem.fields(errors);
    }
}
