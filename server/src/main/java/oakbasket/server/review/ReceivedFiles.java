package oakbasket.server.review;

import java.time.Clock;
import java.time.Instant;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import oakbasket.core.naming.ClashNumber;
import oakbasket.core.standing.FileFact;
import oakbasket.core.standing.Review;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.problem.Problem;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.Transactions;
import org.jspecify.annotations.Nullable;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;

/** The records of received files, and their review. */
@Service
public class ReceivedFiles {

    /** A folder directly below the root that a round has files in. */
    public record TopFolder(long roundId, String name) {
    }

    /** A file as the rules need it, and the item it is for. */
    public record ItemFact(long itemId, FileFact fact) {
    }

    /** The longest reason for a return or a removal in characters. */
    public static final int LONGEST_REASON = 500;

    private final ReceivedFileTable table;
    private final ApplicationEventPublisher events;
    private final Transactions transactions;
    private final LiveHub live;
    private final Clock clock;

    ReceivedFiles(ReceivedFileTable table, ApplicationEventPublisher events, Transactions transactions, LiveHub live, Clock clock) {
        this.table = table;
        this.events = events;
        this.transactions = transactions;
        this.live = live;
        this.clock = clock;
    }

    /** Records a file. Runs in the caller's transaction. @return its id */
    public long record(NewFile file) {
        table.insert(file, ClashNumber.key(file.storedPath()));
        return table.idOf(file.uploadId()).orElseThrow();
    }

    /** Says whether a file waits in the tray. Runs in the caller's transaction. */
    public void tray(long id, boolean there) {
        table.tray(id, there);
    }

    /** Every folder directly below the root that a round has files in. */
    public List<TopFolder> topFolders() {
        return table.topFolders();
    }

    /** Whether a received file has this place, or one that a disk ignoring case would mix up with it. */
    public boolean taken(String path) {
        return table.pathTaken(ClashNumber.key(path));
    }

    /** One file, or 404. */
    public ReceivedFile byId(long id) {
        return table.byId(id).orElseThrow(() -> Problem.notFound("no-file"));
    }

    /** One file, if it is there and not taken out. */
    public Optional<ReceivedFile> find(long id) {
        return table.byId(id);
    }

    /** Files by id in the order of their places; ids that do not exist are left out. */
    public List<ReceivedFile> byIds(Collection<Long> ids) {
        return table.byIds(ids);
    }

    /** All files of a round that count, the oldest first. */
    public List<ReceivedFile> ofRound(long roundId) {
        return table.ofRound(roundId).stream().filter(ReceivedFile::counts).toList();
    }

    /** What the rules need of all files of a round, by basket. */
    public Map<Long, List<ItemFact>> factsOfRound(long roundId) {
        return table.factsOfRound(roundId);
    }

    /** What the rules need of the files of these baskets, by basket. */
    public Map<Long, List<ItemFact>> factsOfBaskets(Collection<Long> basketIds) {
        return table.factsOfBaskets(basketIds);
    }

    /** The files of a round that wait for review, the oldest first. */
    public List<ReceivedFile> toCheck(long roundId) {
        return table.toCheck(roundId);
    }

    /** For each content the file that brought it first, in whatever round. */
    public List<ReceivedFile> firstOf(Collection<byte[]> hashes) {
        return table.firstOf(hashes);
    }

    /** Files whose name holds these words, the newest first. */
    public List<ReceivedFile> named(String words, int most) {
        return table.named(words, most);
    }

    /** The reasons given most for returning files. */
    public List<String> reasons(int most) {
        return table.reasons(most);
    }

    /** Moves the files of submissions to another basket. Runs in the caller's transaction. */
    public void move(List<Long> submissions, long basketId) {
        table.move(submissions, basketId);
    }

    /** How many files came for these items in all baskets, whatever became of them, in the order of the items; an item for which none came is left out. */
    public Map<Long, Integer> countsOf(Collection<Long> itemIds) {
        return table.countsOf(itemIds);
    }

    /** All files of a basket that count, the oldest first. */
    public List<ReceivedFile> ofBasket(long basketId) {
        return withClaimed(basketId).stream().filter(ReceivedFile::counts).toList();
    }

    /** All files of these baskets that count, the oldest first. */
    public List<ReceivedFile> ofBaskets(Collection<Long> basketIds) {
        return table.ofBaskets(basketIds).stream().filter(ReceivedFile::counts).toList();
    }

    /** All files of a basket, those that count for nothing included, the oldest first. */
    public List<ReceivedFile> withClaimed(long basketId) {
        return table.ofBasket(basketId);
    }

    /** Keeps all files of a submission apart, or no longer. Runs in the caller's transaction. */
    public void keepApart(long submissionId, boolean apart) {
        table.keepApart(submissionId, apart);
    }

    /** Notes that a file is about to move. Runs in the caller's transaction. */
    public boolean beginMove(ReceivedFile file, String to) {
        return table.beginMove(file.id(), file.storedPath(), to) == 1;
    }

    /** Records that a file has its new place; the old one is kept in mind until it is empty. Runs in the caller's transaction. */
    public void swapPlaces(ReceivedFile file, String to) {
        table.swapPlaces(file.id(), to, ClashNumber.key(to), file.storedPath());
    }

    /** Records that a file no longer moves. Runs in the caller's transaction. */
    public void endMove(long id) {
        table.endMove(id);
    }

    /** The files that were moving when the server stopped. */
    public List<ReceivedFile> moving() {
        return table.moving();
    }

    /** How many files of these submissions were sent back, and so give their places free. */
    public int countReturned(Collection<Long> submissions, long itemId) {
        return table.countReturned(submissions, itemId);
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

    /** The highest number of a file; 0 when there is none. */
    public long newestId() {
        return table.newestId();
    }

    /** Files by their numbers, in the order they were recorded. */
    public List<ReceivedFile> between(long after, long upTo, int most) {
        return table.between(after, upTo, most);
    }

    /** The file that an upload became; empty when there is none, or it was taken out. */
    public Optional<Long> idOf(String uploadId) {
        return table.idOf(uploadId);
    }

    /** Whether a file with this content was received with a submission, also where it was taken out since. */
    public boolean receivedWith(long submissionId, byte[] sha256) {
        return table.receivedWith(submissionId, sha256);
    }

    /** Whether a file of this name and content was received with a submission for an item. */
    public boolean receivedAs(long submissionId, long itemId, String name, byte[] sha256) {
        return table.receivedAs(submissionId, itemId, name, sha256);
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
     * @param account who reviews
     * @throws Problem with status 409 when somebody else reviewed it meanwhile, 422 when a return has no reason
     */
    public ReceivedFile review(long id, Review from, Review to, String reason, long account) {
        String plain = reason.strip();
        if (to == Review.RETURNED && (plain.isEmpty() || plain.length() > LONGEST_REASON)) {
            throw plain.isEmpty() ? Problem.field("reason", "return-reason") : Problem.field("reason", "longest", LONGEST_REASON);
        }
        ReceivedFile file = byId(id);
        transactions.durably(() -> {
            if (file.keptApart()) {
                throw Problem.conflict("claim-first");
            }
            if (table.review(id, from, to, to == Review.RETURNED ? plain : "", clock.instant()) != 1) {
                throw Problem.conflict("changed-elsewhere");
            }
            if (to == Review.RETURNED) {
                events.publishEvent(new FileReturned(file.basketId(), account));
            }
        });
        live.publish(new LiveEvent("basket", file.roundId(), file.basketId()));
        return byId(id);
    }

    /**
     * Accepts every file of a basket that waits for review.
     *
     * @return those that were accepted by this, a (potentially empty) list
     */
    public List<ReceivedFile> acceptAll(long basketId) {
        List<ReceivedFile> waiting = ofBasket(basketId).stream().filter(file -> file.review() == Review.NONE).toList();
        List<ReceivedFile> accepted = transactions.durably(() -> waiting.stream()
                .filter(file -> table.review(file.id(), Review.NONE, Review.ACCEPTED, "", clock.instant()) == 1).toList());
        if (!accepted.isEmpty()) {
            live.publish(new LiveEvent("basket", accepted.get(0).roundId(), basketId));
        }
        return accepted;
    }

    /** Takes the acceptance of these files back, where it still stands. */
    public int unaccept(Collection<Long> ids) {
        List<ReceivedFile> accepted = byIds(ids);
        int changed = transactions.durably(() -> accepted.stream().mapToInt(file -> table.review(file.id(), Review.ACCEPTED, Review.NONE, "", clock.instant())).sum());
        accepted.stream().map(file -> new LiveEvent("basket", file.roundId(), file.basketId())).distinct().forEach(live::publish);
        return changed;
    }

    /** Takes a file out of everything that counts or lists files; false when it is out already. Runs in the caller's transaction. */
    public boolean takeOut(long id) {
        return table.takeOut(id) == 1;
    }

    /**
     * A file that is being destroyed.
     *
     * @param removed whether it lay in the bin
     */
    public record Purging(long id, String place, boolean removed) {
    }

    /** What stays on record of a file, whether it is there or destroyed. */
    public record Kept(long id, String place, String originalName, long sizeBytes, byte[] sha256, Instant receivedAt, @Nullable Instant purgedAt, boolean removed) {
    }

    /** Every file that lies somewhere and does not move. */
    public List<ReceivedFile> resting() {
        return table.resting();
    }

    /** The keys of all places that files have a right to, those in the bin included. */
    public Set<String> everyPlace() {
        return new HashSet<>(table.everyKey());
    }

    /** Records that a file was moved by somebody else; false when it moves or was moved meanwhile. Runs in the caller's transaction. */
    public boolean relocate(ReceivedFile file, String to) {
        return table.relocate(file.id(), file.storedPath(), to, ClashNumber.key(to)) == 1;
    }

    /** Records another content of a file. Runs in the caller's transaction. */
    public void alter(ReceivedFile file, byte[] sha256, long sizeBytes) {
        table.alter(file.id(), sha256, sizeBytes);
    }

    /** Records that a file is destroyed, before its content is; false when it moves, or was destroyed already. Runs in the caller's transaction. */
    public boolean beginPurge(long id, boolean removed, Instant at) {
        return table.beginPurge(removed ? "removed_file" : "received_file", id, ":purged-" + id, at) == 1;
    }

    /** Records that the content of a destroyed file is gone. Runs in the caller's transaction. */
    public void endPurge(long id, boolean removed) {
        table.endPurge(removed ? "removed_file" : "received_file", id);
    }

    /** Files whose content may not be gone yet. */
    public List<Purging> purging() {
        return table.purging();
    }

    /** Every file that ever came for a round. */
    public List<Kept> keptOf(long round) {
        return table.keptOf(round);
    }

    /** Files that rules sent to the tray, the oldest first. */
    public List<ReceivedFile> inTray(int most) {
        return table.inTray(most);
    }

    /** Gives a file of the tray to a person and an item; false when somebody decided meanwhile. Runs in the caller's transaction. */
    public boolean decide(ReceivedFile file, long basket, long item, boolean assigned) {
        return table.decide(file.id(), file.basketId(), file.itemId(), file.inTray(), basket, item, assigned) == 1;
    }

    /** Takes {@link #decide} back. Runs in the caller's transaction. */
    public void undecide(long id, long basket, long item, boolean assigned) {
        table.undecide(id, basket, item, assigned);
    }

    /** The files of a basket that do not follow their sendings. */
    public List<Long> assignedTo(long basket) {
        return table.assignedTo(basket);
    }

    /** Gives such files to another basket. Runs in the caller's transaction. */
    public void give(List<Long> ids, long basket) {
        table.give(ids, basket);
    }

    /** The files at these places, by the keys of the places. */
    public List<ReceivedFile> atPlaces(Collection<String> keys) {
        return table.atPlaces(keys);
    }

    /**
     * Whether a folder, given with its slash, is to be kept from whoever this thread works for: it holds files of rounds that they do not see, and none that they do.
     */
    public boolean hidesFolder(String folder) {
        return Acting.restricted() && !table.anyBelow(folder) && Acting.asOffice(() -> table.anyBelow(folder));
    }

    /** The same of a folder or any above it: what is below a folder that is kept from somebody is so too, also when nothing lies in it yet. */
    public boolean hidesPath(String folder) {
        if (!Acting.restricted()) {
            return false;
        }
        for (int end = folder.indexOf('/'); end >= 0; end = folder.indexOf('/', end + 1)) {
            String above = folder.substring(0, end + 1);
            if ((!above.startsWith(":") || above.indexOf('/') < end) && hidesFolder(above)) {
                return true;
            }
        }
        return false;
    }

    /** Those of some places, as keys, where files lie that whoever this thread works for does not see. */
    public Set<String> hidden(Collection<String> keys) {
        if (!Acting.restricted()) {
            return Set.of();
        }
        Set<Long> seen = table.atPlaces(keys).stream().map(ReceivedFile::id).collect(Collectors.toSet());
        return Acting.asOffice(() -> table.atPlaces(keys)).stream().filter(file -> !seen.contains(file.id())).map(file -> ClashNumber.key(file.storedPath())).collect(Collectors.toSet());
    }

    /** Every file below a folder, given with its slash. */
    public List<ReceivedFile> below(String folder) {
        return table.below(folder);
    }

    /**
     * Files below a folder whose name holds folded words, the newest first.
     *
     * @param firstRoot whether the folder is the whole first root, so that its places have no beginning in common
     */
    public List<ReceivedFile> foundBelow(String folder, String words, boolean firstRoot, int most) {
        return table.foundBelow(folder, words, firstRoot, most);
    }

    /** The how-manieth of its item in its basket a file is, from 1. */
    public int rankOf(ReceivedFile file) {
        return table.rankOf(file.basketId(), file.itemId(), file.receivedAt(), file.id());
    }

    /** All files of rounds, those that count for nothing included, the oldest of each round first. */
    public List<ReceivedFile> allOfRounds(Collection<Long> rounds) {
        return table.ofRounds(rounds);
    }

    /** The ids of all files that ever came for a basket, those that are out included. */
    public List<Long> everOf(long basketId) {
        return table.everOf(basketId);
    }

    /** Takes {@link #takeOut} back. Runs in the caller's transaction. */
    public void putBack(long id) {
        table.putBack(id);
    }

    /** Sets a review at a time of the past; only the demo does. */
    public void backdate(long id, Review to, String reason, Instant at) {
        transactions.quickly(() -> table.review(id, Review.NONE, to, reason, at));
    }
}
