package oakbasket.server.bell;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import oakbasket.core.identity.Identity;
import oakbasket.server.basket.Baskets;
import oakbasket.server.basket.Submission;
import oakbasket.server.basket.Submissions;
import oakbasket.server.digest.Digests;
import oakbasket.server.inward.MailedMessages;
import oakbasket.server.parcel.TakenAway;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Rounds;
import oakbasket.server.storage.Known;
import oakbasket.server.storage.Transactions;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Tells each coordinator what came since they last looked, without what they muted and what was put in at the desk. */
@Service
public class Bell {

    /**
     * What one sending brought.
     *
     * @param names the first names of files
     * @param fileId of the first, which leads straight to it
     */
    record Rang(long roundId, String round, long basketId, String person, Identity identity, Instant at, int files, List<String> names, long fileId) {
    }

    /** A message that nobody has read. */
    record Wrote(long id, String from, String subject, Instant at) {
    }

    /**
     * What came.
     *
     * @param files how many since the last look, as far as they are counted
     * @param taken how many files of their own parcels were taken away
     * @param upToFile and {@code upToMail}, {@code upToTaken}: what is seen once this was looked at
     */
    record Rings(int files, int mails, int taken, long upToFile, long upToMail, Instant upToTaken, List<Rang> sendings, List<Wrote> messages, List<TakenAway.Taking> takings) {
    }

    private static final int MOST_FILES = 1_000;
    private static final int MOST_SENDINGS = 20;
    private static final int MOST_NAMES = 3;

    private final BellTable table;
    private final ReceivedFiles files;
    private final Submissions submissions;
    private final Baskets baskets;
    private final Rounds rounds;
    private final Digests digests;
    private final MailedMessages mails;
    private final TakenAway taken;
    private final Transactions transactions;
    private final Clock clock;

    Bell(BellTable table, ReceivedFiles files, Submissions submissions, Baskets baskets, Rounds rounds, Digests digests, MailedMessages mails, TakenAway taken, Transactions transactions, Clock clock) {
        this.table = table;
        this.files = files;
        this.submissions = submissions;
        this.baskets = baskets;
        this.rounds = rounds;
        this.digests = digests;
        this.mails = mails;
        this.taken = taken;
        this.transactions = transactions;
        this.clock = clock;
    }

    /** What came since the account looked; what was here before it first did is not told. */
    Rings of(long account) {
        long newest = files.newestId();
        BellLook look = table.of(account).orElseGet(() -> {
            BellLook first = new BellLook(account, newest, mails.newestId(), clock.instant());
            transactions.own(() -> table.put(first));
            return first;
        });
        List<ReceivedFile> came = new ArrayList<>(files.between(look.fileId(), newest, MOST_FILES));
        Set<Long> muted = digests.mutedOf(account);
        Map<Long, Submission> sendings = submissions.byIds(came.stream().map(ReceivedFile::submissionId).distinct().toList()).stream().collect(Collectors.toMap(Submission::id, one -> one));
        came.removeIf(file -> muted.contains(file.roundId()) || sendings.get(file.submissionId()) == null || Known.in(sendings, file.submissionId()).byDesk() && !Known.in(sendings, file.submissionId()).byMail());
        Map<Long, List<ReceivedFile>> bySending = new LinkedHashMap<>();
        Collections.reverse(came);
        came.forEach(file -> bySending.computeIfAbsent(file.submissionId(), id -> new ArrayList<>()).add(file));
        Map<Long, String> people = baskets.names(came.stream().map(ReceivedFile::basketId).distinct().toList());
        Map<Long, String> titles = rounds.all().stream().collect(Collectors.toMap(Rounds.Head::id, Rounds.Head::title));
        List<Rang> rang = bySending.values().stream().limit(MOST_SENDINGS).map(sent -> rang(sent, Known.in(sendings, sent.get(0).submissionId()), people, titles)).toList();
        List<MailedMessages.MailedMessage> wrote = mails.since(look.mailId());
        Instant now = clock.instant();
        List<TakenAway.Taking> took = taken.of(account, look.takenAt(), now);
        return new Rings(came.size(), wrote.size(), took.stream().mapToInt(TakenAway.Taking::files).sum(), newest, mails.newestId(), now, rang, wrote.stream().limit(MOST_SENDINGS)
                .map(one -> new Wrote(one.id(), one.name().isEmpty() ? one.fromName().isEmpty() ? one.fromAddress() : one.fromName() : one.name(), one.subject(), one.at())).toList(), took.stream().limit(MOST_SENDINGS).toList());
    }

    private static Rang rang(List<ReceivedFile> sent, Submission sending, Map<Long, String> people, Map<Long, String> titles) {
        ReceivedFile newest = sent.get(0);
        return new Rang(newest.roundId(), titles.getOrDefault(newest.roundId(), ""), newest.basketId(), people.getOrDefault(newest.basketId(), ""), sending.identity(), newest.receivedAt(), sent.size(),
                sent.stream().limit(MOST_NAMES).map(ReceivedFile::storedName).toList(), sent.get(sent.size() - 1).id());
    }

    /** Notes that everything up to these numbers was seen; what is beyond the newest counts as the newest. */
    public void seen(long account, long file, long mail, @Nullable Instant taken) {
        Instant now = clock.instant();
        Instant upTo = taken == null || taken.isAfter(now) ? now : taken;
        transactions.own(() -> table.put(new BellLook(account, Math.min(file, files.newestId()), Math.min(mail, mails.newestId()), upTo)));
    }
}
