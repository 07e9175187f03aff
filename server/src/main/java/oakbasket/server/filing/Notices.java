package oakbasket.server.filing;

import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.server.Settings;
import oakbasket.server.account.Account;
import oakbasket.server.account.AccountService;
import oakbasket.server.mail.MailTrouble;
import oakbasket.server.mail.Mailer;
import oakbasket.server.mail.OutgoingMail;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Rounds;
import oakbasket.server.storage.Roots;
import oakbasket.server.storage.Transactions;
import oakbasket.server.words.Words;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** Tells people whom rules name of files that came: one letter for all files of a round that wait to be told. */
@Component
class Notices {

    private static final Logger LOG = LoggerFactory.getLogger(Notices.class);
    private static final int MOST_TRIES = 8;
    private static final int MOST_FILES = 200;

    private record To(String address, long round) {
    }

    private final EffectTable effects;
    private final ReceivedFiles files;
    private final Rounds rounds;
    private final Roots roots;
    private final Mailer mailer;
    private final AccountService accounts;
    private final Transactions transactions;
    private final Settings settings;
    private final Words words;
    private final Clock clock;

    Notices(EffectTable effects, ReceivedFiles files, Rounds rounds, Roots roots, Mailer mailer, AccountService accounts, Transactions transactions, Settings settings, Words words, Clock clock) {
        this.effects = effects;
        this.files = files;
        this.rounds = rounds;
        this.roots = roots;
        this.mailer = mailer;
        this.accounts = accounts;
        this.transactions = transactions;
        this.settings = settings;
        this.words = words;
        this.clock = clock;
    }

    /** How many were given up after several tries. */
    int givenUp() {
        return effects.noticesGivenUp(MOST_TRIES);
    }

    void tell() {
        List<EffectTable.Notice> due = effects.noticesDue(MOST_TRIES, MOST_FILES);
        Map<Long, ReceivedFile> known = files.byIds(due.stream().map(EffectTable.Notice::fileId).distinct().toList()).stream().collect(Collectors.toMap(ReceivedFile::id, one -> one));
        List<Long> pointless = due.stream().filter(notice -> !known.containsKey(notice.fileId())).map(EffectTable.Notice::id).toList();
        if (!pointless.isEmpty()) {
            transactions.durably(() -> effects.told(pointless));
        }
        Map<To, List<EffectTable.Notice>> letters = new LinkedHashMap<>();
        for (EffectTable.Notice notice : due) {
            ReceivedFile file = known.get(notice.fileId());
            if (file != null) {
                letters.computeIfAbsent(new To(notice.address(), file.roundId()), to -> new ArrayList<>()).add(notice);
            }
        }
        letters.forEach((to, notices) -> send(to, notices, known));
    }

    private void send(To to, List<EffectTable.Notice> notices, Map<Long, ReceivedFile> known) {
        List<Long> ids = notices.stream().map(EffectTable.Notice::id).toList();
        String title = rounds.head(to.round()).title();
        String lines = notices.stream().map(notice -> known.get(notice.fileId())).map(file -> file == null ? "" : "- " + roots.words(file.storedPath())).collect(Collectors.joining("\n"));
        Account asker = accounts.current(rounds.askedBy(to.round()));
        String from = settings.letterSender();
        // The same files give the same id, so that a letter sent again after a crash can be told from another one.
        String id = "oak-filed-" + ids.get(0) + "-" + ids.size() + from.substring(from.lastIndexOf('@'));
        try {
            mailer.send(new OutgoingMail(id, new Person(to.address(), MailAddress.parse(to.address())), new Person(asker.name(), MailAddress.parse(asker.email())),
                    words.of("notice.subject", ids.size(), title), words.of("notice.body", ids.size(), title, lines), clock.instant()));
            transactions.durably(() -> effects.told(ids));
        } catch (MailTrouble trouble) {
            LOG.warn("Nobody could be told of {} files ({}); it will be tried again", ids.size(), trouble.kind());
            transactions.durably(() -> effects.tryAgain(ids, clock.instant().plus(Duration.ofMinutes(1L << Math.min(MOST_TRIES, notices.get(0).tries())))));
        }
    }
}
