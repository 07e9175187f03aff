package oakbasket.server.digest;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import oakbasket.core.digest.DigestPlan;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.server.Settings;
import oakbasket.server.account.Account;
import oakbasket.server.account.AccountService;
import oakbasket.server.basket.Submission;
import oakbasket.server.basket.Submissions;
import oakbasket.server.mail.MailTrouble;
import oakbasket.server.mail.Mailer;
import oakbasket.server.mail.OutgoingMail;
import oakbasket.server.parcel.TakenAway;
import oakbasket.server.problem.Problem;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.sharing.Sharing;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.Transactions;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/** Tells coordinators by mail of what has come, each as they want it, and never of nothing. */
@Service
public class Digests {

    static final int MOST_MUTED = 200;
    private static final int MOST_FILES = 2_000;
    private static final Duration NOTING = Duration.ofSeconds(5);
    private static final Logger LOG = LoggerFactory.getLogger(Digests.class);

    private final DigestTable table;
    private final DigestWriter writer;
    private final ReceivedFiles files;
    private final Submissions submissions;
    private final TakenAway taken;
    private final LinksEnding ending;
    private final AccountService accounts;
    private final Mailer mailer;
    private final Transactions transactions;
    private final Settings settings;
    private final Sharing sharing;
    private final Words words;
    private final Clock clock;
    /** The newest file of the look before. Whatever has a lower number is recorded by now, or never will be. */
    private volatile @Nullable Long seen;

    Digests(DigestTable table, DigestWriter writer, ReceivedFiles files, Submissions submissions, TakenAway taken, LinksEnding ending, AccountService accounts, Mailer mailer, Transactions transactions, Settings settings, Words words, Sharing sharing, Clock clock) {
        this.table = table;
        this.writer = writer;
        this.files = files;
        this.submissions = submissions;
        this.taken = taken;
        this.ending = ending;
        this.accounts = accounts;
        this.mailer = mailer;
        this.transactions = transactions;
        this.settings = settings;
        this.sharing = sharing;
        this.words = words;
        this.clock = clock;
    }

    /** How an account is told; never, where it said nothing. */
    Wanted of(long account) {
        return table.of(account).orElseGet(() -> new Wanted(account, DigestPlan.NEVER, "", files.newestId(), clock.instant(), clock.instant(), ""));
    }

    /** Rounds an account is not told of. */
    public Set<Long> mutedOf(long account) {
        return muted(of(account));
    }

    static Set<Long> muted(Wanted wanted) {
        return wanted.muted().isEmpty() ? Set.of() : Arrays.stream(wanted.muted().split(",")).map(Long::valueOf).collect(Collectors.toCollection(TreeSet::new));
    }

    /** Changes how an account is told. Who begins to want it is told of what comes from then on. */
    Wanted change(long account, DigestPlan plan, Set<Long> muted) {
        if (muted.size() > MOST_MUTED) {
            throw Problem.field("muted", "digest-muted", MOST_MUTED);
        }
        Wanted before = of(account);
        boolean begins = before.plan() == DigestPlan.NEVER;
        transactions.own(() -> table.put(new Wanted(account, plan, new TreeSet<>(muted).stream().map(String::valueOf).collect(Collectors.joining(",")),
                begins ? files.newestId() : before.toldFile(), begins ? clock.instant() : before.toldAt(), begins ? clock.instant() : before.toldTaken(), "")));
        return of(account);
    }

    /** Tells whoever is to be told now. */
    @Scheduled(initialDelayString = "${oakbasket.digest-every:PT1M}", fixedDelayString = "${oakbasket.digest-every:PT1M}")
    void look() {
        Acting.officeDoes(this::lookNow);
    }

    private synchronized void lookNow() {
        Long upTo = seen;
        seen = files.newestId();
        if (upTo == null) {
            return;
        }
        for (Wanted wanted : table.all()) {
            try {
                Acting.as(sharing.acting(wanted.accountId()), () -> {
                    tell(wanted, upTo);
                    ending.tell(wanted);
                    return true;
                });
            } catch (RuntimeException problem) {
                LOG.error("What came could not be told to account {}", wanted.accountId(), problem);
            }
        }
    }

    private void tell(Wanted wanted, long upTo) {
        Instant now = clock.instant();
        List<ReceivedFile> came = files.between(wanted.toldFile(), upTo, MOST_FILES);
        // What is just being noted may be of a moment ago.
        Instant upToTaken = now.minus(NOTING);
        List<TakenAway.Taking> took = upToTaken.isAfter(wanted.toldTaken()) ? taken.of(wanted.accountId(), wanted.toldTaken(), upToTaken) : List.of();
        if (came.isEmpty() && took.isEmpty()) {
            return;
        }
        long last = came.isEmpty() ? wanted.toldFile() : came.get(came.size() - 1).id();
        List<ReceivedFile> told = told(came, muted(wanted));
        if (told.isEmpty() && took.isEmpty()) {
            transactions.own(() -> table.told(wanted, last, wanted.toldAt(), wanted.toldTaken(), ""));
            return;
        }
        List<Instant> moments = Stream.concat(told.stream().map(ReceivedFile::receivedAt), took.stream().map(TakenAway.Taking::at)).sorted().toList();
        Instant oldest = moments.get(0);
        Instant newest = moments.get(moments.size() - 1);
        if (wanted.plan().due(wanted.toldAt(), oldest, newest, now, settings.zone())) {
            Account account = accounts.current(wanted.accountId());
            Person person = new Person(account.name(), MailAddress.parse(account.email()));
            String from = settings.letterSender();
            // The same files give the same id, so that a letter sent again after a crash can be told from another one.
            String id = "oak-digest-" + wanted.accountId() + "-" + wanted.toldFile() + "-" + last + (took.isEmpty() ? "" : "-" + wanted.toldTaken().toEpochMilli()) + from.substring(from.lastIndexOf('@'));
            try {
                mailer.send(new OutgoingMail(id, person, person, told.isEmpty() ? words.of("digest.taken-subject", took.stream().mapToInt(TakenAway.Taking::files).sum()) : words.of("digest.subject", told.size()),
                        writer.body(told, took), now));
                transactions.own(() -> table.told(wanted, last, now, took.isEmpty() ? wanted.toldTaken() : upToTaken, ""));
            } catch (MailTrouble trouble) {
                String why = words.of(trouble.reason());
                LOG.warn("What came could not be told to account {}: {}", wanted.accountId(), why);
                transactions.own(() -> table.told(wanted, wanted.toldFile(), wanted.toldAt(), wanted.toldTaken(), why));
            }
        }
    }

    /** What somebody put in at the desk is known there. */
    private List<ReceivedFile> told(List<ReceivedFile> came, Set<Long> muted) {
        List<ReceivedFile> others = came.stream().filter(file -> !muted.contains(file.roundId())).toList();
        Set<Long> byDesk = submissions.byIds(others.stream().map(ReceivedFile::submissionId).distinct().toList()).stream().filter(one -> one.byDesk() && !one.byMail()).map(Submission::id).collect(Collectors.toSet());
        return new ArrayList<>(others.stream().filter(file -> !byDesk.contains(file.submissionId())).toList());
    }
}
