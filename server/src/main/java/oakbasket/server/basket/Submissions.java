package oakbasket.server.basket;

import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Base64;
import java.util.Collection;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import oakbasket.core.identity.Claim;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.core.link.LinkUse;
import oakbasket.core.receipt.ReceiptCode;
import oakbasket.server.link.Link;
import oakbasket.server.link.Links;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.problem.Problem;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.security.Hash;
import oakbasket.server.security.Limits;
import oakbasket.server.security.SecretKeys;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.Transactions;
import org.jspecify.annotations.Nullable;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/** Begins sendings and says whose they are. A submission is known to its sender by a random key that only the page which began it holds. */
@Service
public class Submissions {

    private static final int KEY_BYTES = 20;
    /** How long a submission without anything in it is remembered. */
    private static final Duration EMPTY_LIFE = Duration.ofDays(2);

    private final SubmissionTable table;
    private final Baskets baskets;
    private final ReceivedFiles files;
    private final Links links;
    private final SecretKeys keys;
    private final Transactions transactions;
    private final LiveHub live;
    private final Limits limits;
    private final Clock clock;

    Submissions(SubmissionTable table, Baskets baskets, ReceivedFiles files, Links links, SecretKeys keys, Transactions transactions,
            LiveHub live, Limits limits, Clock clock) {
        this.table = table;
        this.baskets = baskets;
        this.files = files;
        this.links = links;
        this.keys = keys;
        this.transactions = transactions;
        this.live = live;
        this.limits = limits;
        this.clock = clock;
    }

    /**
     * The person of a name and an address as a sender without a link of their own typed them.
     *
     * @throws Problem naming the fields that are missing or wrong
     */
    public static Person declared(String name, String email) {
        return DeclaredSender.of(name, email);
    }

    /**
     * Begins a submission. On an open link nothing else comes into being by that: no person, no basket.
     *
     * @param name who the sender says they are; needed on an open link, ignored on a personal one
     * @param caller the caller's address, by which limits hold over submissions
     * @return the key of the submission
     * @throws Problem naming the fields that are missing or wrong
     */
    public String begin(Link link, String name, String email, String caller) {
        Person declared = link.isOpen() ? DeclaredSender.of(name, email) : null;
        limits.count(Limits.Kind.SUBMISSION, link.id() + " " + caller);
        String key = Base64.getUrlEncoder().withoutPadding().encodeToString(keys.random(KEY_BYTES));
        byte[] callerHash = keys.sign(("caller " + caller).getBytes(StandardCharsets.UTF_8));
        transactions.durably(() -> insert(link, declared, callerHash, key, clock.instant()));
        return key;
    }

    /**
     * Corrects who the sender of an unfinished submission says they are. What has arrived goes along.
     *
     * @return the files that have arrived, as they are now
     * @throws Problem naming the fields that are missing or wrong; with status 409 when the receipt was given
     */
    public List<ReceivedFile> correct(Link link, Submission submission, String name, String email) {
        if (submission.finishedAt() != null) {
            throw Problem.conflict("submission-finished");
        }
        Person declared = DeclaredSender.of(name, email);
        Long before = transactions.durably(() -> {
            Submission locked = table.lock(submission.id());
            table.declare(locked.id(), declared);
            if (locked.basketId() != null) {
                Submission bound = bind(byId(locked.id()), declared, link.roundId());
                files.move(List.of(bound.id()), Objects.requireNonNull(bound.basketId()));
                files.keepApart(bound.id(), bound.keptApart());
                if (!locked.basketId().equals(bound.basketId())) {
                    baskets.forgetIfEmpty(locked.basketId());
                }
            }
            return locked.basketId();
        });
        if (before != null) {
            live.publish(new LiveEvent("basket", link.roundId(), null));
        }
        return files.ofSubmission(submission.id());
    }

    /**
     * Begins a sending for what a coordinator puts in. It stands under a link of the basket, as every sending does, but is no use of it. Runs in the caller's transaction.
     *
     * @throws Problem with status 409 when the basket never had a link
     */
    public Submission byDesk(Basket basket) {
        long link = anyLink(basket);
        String key = Base64.getUrlEncoder().withoutPadding().encodeToString(keys.random(KEY_BYTES));
        return byId(table.insertByDesk(basket.id(), link, Hash.of(key), ReceiptCode.random(keys.generator()).text(), clock.instant()));
    }

    /**
     * The sending of what came by mail, whose sender is sure. Asked again with the same key it is the same sending. Runs in the caller's transaction.
     *
     * @param key by which the message is known
     */
    public Submission byMail(Basket basket, Person sender, String note, String key) {
        String text = note.length() <= Receipts.LONGEST_NOTE ? note : note.substring(0, Receipts.LONGEST_NOTE);
        return table.byKeyHash(Hash.of(key)).orElseGet(() -> byId(table.insertByMail(basket.id(), anyLink(basket), Hash.of(key), ReceiptCode.random(keys.generator()).text(), sender, text, clock.instant())));
    }

    /** A link that a sending without one is kept under. */
    private long anyLink(Basket basket) {
        return links.ofBasket(basket.id()).or(() -> links.lastOf(basket.id())).map(Link::id)
                .or(() -> table.ofBasket(basket.id()).stream().map(Submission::linkId).findFirst()).or(() -> links.openOf(basket.roundId()).map(Link::id))
                .orElseThrow(() -> Problem.conflict("changed-elsewhere"));
    }

    /** The submission with its basket, which comes into being now that a file of it has arrived. */
    public Submission bound(long id) {
        Submission sending = byId(id);
        if (sending.basketId() != null) {
            return sending;
        }
        try {
            return bindNow(id);
        } catch (org.springframework.dao.DuplicateKeyException metMeanwhile) {
            // Two first files of one new person at the same moment: the other one made the person.
            return bindNow(id);
        }
    }

    private Submission bindNow(long id) {
        return transactions.quickly(() -> {
            Submission locked = table.lock(id);
            return locked.basketId() != null ? locked : bind(locked, who(locked), links.byId(locked.linkId()).roundId());
        });
    }

    private Submission bind(Submission submission, Person declared, long roundId) {
        Basket basket = baskets.arrivedFrom(roundId, declared);
        table.bind(submission.id(), basket.id(), Claim.needed(submission.selfDeclared(), baskets.everAsked(basket)) ? Claim.OPEN : null);
        return byId(submission.id());
    }

    private static Person who(Submission submission) {
        return new Person(String.valueOf(submission.declaredName()), MailAddress.parse(String.valueOf(submission.declaredEmail())));
    }

    /** The submissions of the same sender through the same link, as far as that can be told; at least this one. */
    public List<Long> ofSameSender(Submission submission) {
        String key = submission.declaredKey();
        return key == null ? List.of(submission.id()) : table.ofSameSender(submission.linkId(), key, submission.callerHash());
    }

    /** Sendings with files whose sender nobody has looked at: claimed by somebody's address, or of somebody who was not asked and only says who they are. */
    public List<Submission> undecided(int most) {
        return table.undecided(most);
    }

    /** Notes that somebody looked at these senders, or takes that back. Runs in the caller's transaction. @return how many it was not noted of before */
    public int seeSenders(Collection<Long> ids, @Nullable Instant at) {
        return table.seeSenders(ids, at);
    }

    /** Counts a file that came with a submission. Runs in the caller's transaction. */
    public void count(Submission submission, long bytes, Instant at) {
        table.count(submission.id(), bytes, at);
    }

    /** What came through a link. */
    public LinkUse through(long linkId) {
        return table.through(linkId);
    }

    /** The link among whose uses the submission with this key is counted; 0 when there is none. */
    public long countedThrough(@Nullable String key) {
        return key == null || key.length() > 100 ? 0 : table.byKeyHash(Hash.of(key)).filter(sending -> sending.files() > 0).map(Submission::linkId).orElse(0L);
    }

    /** Keeps what stands for a mailed code; the one before works no more. */
    public boolean keepCode(long id, byte[] hash, Instant until) {
        return table.keepCode(id, hash, until) == 1;
    }

    /** Counts a try of the mailed code; false when there is none to be tried any more. */
    public boolean countCodeTry(long id, int most) {
        return table.countCodeTry(id, most, clock.instant()) == 1;
    }

    /** Remembers that the declared address is the sender's. */
    public boolean confirm(long id) {
        return table.confirm(id, clock.instant()) == 1;
    }

    /** Takes an open claim as the person's own; nobody of the office decided that. Runs in the caller's transaction. */
    public boolean accept(Submission submission) {
        return table.decide(submission.id(), Claim.OPEN, Claim.ACCEPTED, clock.instant(), null) == 1;
    }

    /** Decides a claim. Runs in the caller's transaction. */
    public boolean decide(Submission submission, Claim from, Claim to, long account) {
        return table.decide(submission.id(), from, to, clock.instant(), account) == 1;
    }

    /** Removes submissions that nothing ever came of. */
    @Scheduled(initialDelay = 90_000, fixedDelay = 3_600_000)
    void removeEmpty() {
        Acting.officeDoes(this::removeEmptyNow);
    }

    private void removeEmptyNow() {
        transactions.quickly(() -> table.removeEmpty(clock.instant().minus(EMPTY_LIFE)));
    }

    /** Begins a submission at a time of the past; only the demo does. */
    public Submission backdated(Link link, @Nullable Person declared, Instant at) {
        String key = Base64.getUrlEncoder().encodeToString(keys.random(KEY_BYTES));
        return transactions.quickly(() -> {
            long id = insert(link, declared, null, key, at);
            table.finish(id, "", at);
            return byId(id);
        });
    }

    private long insert(Link link, @Nullable Person declared, byte @Nullable [] caller, String key, Instant at) {
        Long personal = link.basketId();
        String code = ReceiptCode.random(keys.generator()).text();
        return personal != null ? table.insert(personal, link.id(), Hash.of(key), code, at)
                : table.insert(Objects.requireNonNull(declared), caller, link.id(), Hash.of(key), code, at);
    }

    /** The submission with this key, or 404. */
    public Submission byKey(@Nullable String key) {
        if (key == null || key.length() > 100) {
            throw Problem.notFound("no-submission");
        }
        return table.byKeyHash(Hash.of(key)).orElseThrow(() -> Problem.notFound("no-submission"));
    }

    /** Submissions by id; ids that do not exist are left out. */
    public List<Submission> byIds(Collection<Long> ids) {
        return table.byIds(ids);
    }

    /** The submission with this receipt code, if there is one. */
    public Optional<Submission> byReceipt(String code) {
        return table.byReceipt(code);
    }

    /** A submission, if there is one. */
    public Optional<Submission> find(long id) {
        return table.byId(id);
    }

    /** A submission known to exist. */
    public Submission byId(long id) {
        return table.byId(id).orElseThrow();
    }

    /** A submission with the basket it belongs to, which stays so until the end of the caller's transaction. */
    public Submission locked(long id) {
        return table.lock(id);
    }

    /** The submissions of a basket, the oldest first. */
    List<Submission> ofBasket(long basketId) {
        return table.ofBasket(basketId);
    }
}
