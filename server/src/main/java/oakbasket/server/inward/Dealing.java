package oakbasket.server.inward;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Objects;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorCompletionService;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.stream.Stream;
import oakbasket.core.inward.MailKind;
import oakbasket.core.inward.MailTrust;
import oakbasket.core.inward.MailedPart;
import oakbasket.server.decode.Decoders;
import oakbasket.server.decode.work.ReadMarkup;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.post.MailTags;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.Hash;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.DataFolder;
import oakbasket.server.storage.FileStore;
import oakbasket.server.storage.Transactions;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/**
 * Deals with messages that were taken. Every step can be done again: a paper is known by its message and its number in it, a sending by its message, and the message is settled last, in one step with the answer that
 * waits. So it is dealt with once, whatever dies when.
 */
@Service
class Dealing {

    private static final int AT_ONCE = 50;
    /** As many are read before the first of them is dealt with: each takes room on the disk meanwhile. */
    private static final int READ_AHEAD = 3;
    private static final int MOST_TRIES = 5;
    private static final int LONGEST_SUBJECT = 500;
    private static final int LONGEST_ID = 500;
    private static final int LONGEST_NAME = 300;
    private static final int LONGEST_ADDRESS = 320;
    /** As long as the message lies as it came. */
    private static final Duration KEPT = Duration.ofDays(30);
    private static final Logger LOG = LoggerFactory.getLogger(Dealing.class);

    private final ExecutorService readers = Executors.newFixedThreadPool(2, work -> {
        Thread thread = new Thread(work, "mail-reader");
        thread.setDaemon(true);
        return thread;
    });
    private final InwardTable table;
    private final Matching matching;
    private final MailedPapers papers;
    private final Reports reports;
    private final Winmail winmail;
    private final KeptText kept;
    private final Decoders decoders;
    private final Answering answering;
    private final DataFolder folder;
    private final Transactions transactions;
    private final LiveHub live;
    private final Words words;
    private final Clock clock;

    Dealing(InwardTable table, Matching matching, MailedPapers papers, Reports reports, Winmail winmail, KeptText kept, Decoders decoders, Answering answering, DataFolder folder, Transactions transactions, LiveHub live, Words words, Clock clock) {
        this.table = table;
        this.matching = matching;
        this.papers = papers;
        this.reports = reports;
        this.winmail = winmail;
        this.kept = kept;
        this.decoders = decoders;
        this.answering = answering;
        this.folder = folder;
        this.transactions = transactions;
        this.live = live;
        this.words = words;
        this.clock = clock;
    }

    /** A message as it was read, or why it was not. */
    private record Reading(InwardMessage message, @Nullable ReadMail mail, @Nullable Exception trouble) {
    }

    /** Deals with what was taken, in whatever order it could be read: a message that takes long holds nobody up behind it. */
    synchronized void dealWithAll() {
        Iterator<InwardMessage> taken = table.taken(AT_ONCE).iterator();
        ExecutorCompletionService<Reading> reading = new ExecutorCompletionService<>(readers);
        int under = 0;
        boolean full = false;
        while (under > 0 || taken.hasNext() && !full) {
            while (taken.hasNext() && under < READ_AHEAD && !full) {
                InwardMessage next = taken.next();
                reading.submit(() -> Acting.asOffice(() -> read(next)));
                under++;
            }
            try {
                full |= !dealtWith(reading.take().get());
            } catch (ExecutionException broken) {
                LOG.error("A message could not be read", broken);
            } catch (InterruptedException stopped) {
                Thread.currentThread().interrupt();
                return;
            }
            under--;
        }
    }

    private Reading read(InwardMessage message) {
        try {
            return new Reading(message, MailReader.read(folder.postIn().resolve(message.fileName()), folder.postIn(), prefix(message), this::plain), null);
        } catch (IOException | RuntimeException trouble) {
            return new Reading(message, null, trouble);
        }
    }

    /** Says no when the tray is full, so that nothing more can be dealt with. */
    private boolean dealtWith(Reading reading) {
        InwardMessage message = reading.message();
        try {
            settle(dealt(reading));
        } catch (Exception broken) {
            if (broken instanceof Problem full && full.code().equals("tray-full")) {
                LOG.warn("Messages wait: the tray is full");
                return false;
            }
            LOG.error("Message {} could not be dealt with", message.id(), broken);
            transactions.durably(() -> {
                table.tried(message.id());
                return true;
            });
            if (message.tries() + 1 >= MOST_TRIES) {
                settle(unreadable(message, words.of("inward.broken")));
            }
        } finally {
            tidyParts(message);
        }
        return true;
    }

    /** What the server itself could not do just then, such as writing to a full disk or finding a child process, is no fault of the message: it is tried again. */
    private InwardMessage dealt(Reading reading) throws Exception {
        ReadMail mail = reading.mail();
        if (mail != null) {
            return deal(reading.message(), mail);
        }
        if (reading.trouble() instanceof NoSuchFileException) {
            return unreadable(reading.message(), words.of("inward.gone"));
        }
        throw Objects.requireNonNull(reading.trouble());
    }

    @EventListener(ContextClosedEvent.class)
    void close() {
        readers.shutdownNow();
    }

    private void settle(InwardMessage settled) {
        if (transactions.durably(() -> table.settle(settled)) == 1) {
            Long round = settled.roundId();
            live.publish(new LiveEvent(LiveEvent.LETTER, round == null ? 0 : round, settled.basketId()));
        }
    }

    private InwardMessage unreadable(InwardMessage message, String why) {
        return InwardMessageBuilder.builder(message).kind(InwardMessage.Kind.UNREADABLE).why(why).answerState(InwardMessage.AnswerState.NONE).build();
    }

    private InwardMessage deal(InwardMessage message, ReadMail mail) throws IOException {
        InwardMessage read = InwardMessageBuilder.builder(message).fromName(cut(mail.fromName(), LONGEST_NAME)).fromAddress(cut(mail.from(), LONGEST_ADDRESS)).subject(cut(kept.of(mail.subject()), LONGEST_SUBJECT))
                .messageId(cut(mail.headers().first("Message-ID"), LONGEST_ID)).text(kept.of(mail.text())).build();
        if (!message.whole()) {
            Matching.Match match = matching.of(mail);
            return answering.tooLarge(with(read, InwardMessage.Kind.TOO_LARGE, match), mail, match);
        }
        byte[] same = sameAs(mail);
        if (table.cameBefore(same, message.id())) {
            return InwardMessageBuilder.builder(read).kind(InwardMessage.Kind.DUPLICATE).build();
        }
        transactions.durably(() -> {
            table.sameAs(message.id(), same);
            return true;
        });
        MailKind kind = MailKind.of(mail.headers(), mail.from(), matching.ours(mail), mail.subject(), mail.text());
        return switch (kind) {
            case REPORT -> reports.taken(read, mail, matching.tag(mail, MailTags.Of.BOUNCE).orElse(null));
            case LOOP -> InwardMessageBuilder.builder(read).kind(InwardMessage.Kind.LOOP).build();
            case LIST -> fromNobody(read, mail, InwardMessage.Kind.LIST);
            case AUTOMATIC -> fromNobody(read, mail, InwardMessage.Kind.AUTOMATIC);
            case PERSON -> matching.colleague(mail) ? passedOn(read, mail) : fromSomebody(read, mail);
        };
    }

    /** What a program or a list sent is never answered and files nothing by itself; what is attached is not lost. */
    private InwardMessage fromNobody(InwardMessage read, ReadMail mail, InwardMessage.Kind kind) throws IOException {
        Matching.Match match = matching.of(mail);
        Matching.Match unsure = new Matching.Match(match.contact(), match.letterId(), match.baskets(), match.certain(), MailTrust.DECLARED, match.theirAddress());
        keep(papers.file(read, sorted(read, mail), mail, unsure).parts());
        return with(read, kind, unsure);
    }

    /** What somebody of the office passes on waits in the tray with whom it is supposed to be of. It is not answered. */
    private InwardMessage passedOn(InwardMessage read, ReadMail mail) throws IOException {
        Matching.Match match = matching.passedOn(mail);
        List<MailedPapers.Sorted> sorted = sorted(read, mail);
        keep(papers.file(read, sorted, mail, match).parts());
        return with(read, sorted.stream().allMatch(one -> one.as() == MailedPart.NO_PAPER) ? InwardMessage.Kind.ANSWER : InwardMessage.Kind.PAPERS, match);
    }

    private InwardMessage fromSomebody(InwardMessage read, ReadMail mail) throws IOException {
        Matching.Match match = matching.of(mail);
        List<MailedPapers.Sorted> sorted = sorted(read, mail);
        MailedPapers.Filed filed = papers.file(read, sorted, mail, match);
        keep(filed.parts());
        if (filed.parts().stream().allMatch(part -> part.outcome() == InwardPart.Outcome.LEFT_OUT)) {
            return with(read, InwardMessage.Kind.ANSWER, match);
        }
        InwardMessage settled = InwardMessageBuilder.builder(with(read, InwardMessage.Kind.PAPERS, match)).submissionId(filed.submissionId()).basketId(filed.basketId()).roundId(filed.roundId()).build();
        return answering.papers(settled, mail, match, filed);
    }

    private void keep(List<InwardPart> parts) {
        transactions.durably(() -> {
            parts.forEach(table::put);
            return true;
        });
    }

    private static InwardMessage with(InwardMessage read, InwardMessage.Kind kind, Matching.Match match) {
        Long basket = match.certain() ? (Long) match.baskets().get(0).id() : null;
        Long round = match.certain() ? (Long) match.baskets().get(0).roundId() : null;
        return InwardMessageBuilder.builder(read).kind(kind).contactId(match.contact() == null ? null : (Long) match.contact().id()).letterId(match.letterId()).basketId(basket).roundId(round)
                .confirmed(match.trust() == MailTrust.CONFIRMED).build();
    }

    /** What is attached, out of its envelopes, each with what the gate for papers says of it. */
    private List<MailedPapers.Sorted> sorted(InwardMessage message, ReadMail mail) throws IOException {
        List<ReadMail.Part> opened = new ArrayList<>();
        for (ReadMail.Part part : mail.parts()) {
            opened.addAll(Winmail.is(part) ? winmail.opened(part, folder.postIn(), prefix(message) + opened.size()) : List.of(part));
        }
        List<MailedPapers.Sorted> sorted = new ArrayList<>();
        for (ReadMail.Part part : opened) {
            byte[] sha256 = FileStore.digest(part.path());
            sorted.add(new MailedPapers.Sorted(part, MailedPart.of(part.facts(table.cameAsNoPaper(sha256, mail.from(), message.id()))), sha256));
        }
        return sorted;
    }

    /** The same message is known again by what its sender made of it, however it came. */
    private static byte[] sameAs(ReadMail mail) throws IOException {
        MessageDigest digest = Hash.sha256();
        for (String one : List.of(mail.headers().first("Message-ID"), mail.from(), mail.headers().first("Date"), mail.subject(), mail.text(), mail.report())) {
            digest.update(one.getBytes(StandardCharsets.UTF_8));
            digest.update((byte) 0);
        }
        for (ReadMail.Part part : mail.parts()) {
            digest.update(part.name().getBytes(StandardCharsets.UTF_8));
            digest.update(FileStore.digest(part.path()));
        }
        return digest.digest();
    }

    private String plain(String html) {
        return html.isBlank() ? "" : decoders.ask(new ReadMarkup(), html.getBytes(StandardCharsets.UTF_8), Decoders.Lane.MAIL).map(ReadMarkup.Written::text).orElse("");
    }

    private static String prefix(InwardMessage message) {
        return "m" + message.id() + "-";
    }

    private void tidyParts(InwardMessage message) {
        try (Stream<Path> lying = Files.list(folder.postIn())) {
            for (Path part : lying.filter(path -> path.getFileName().toString().startsWith(prefix(message)) && path.getFileName().toString().endsWith(".part")).toList()) {
                Files.deleteIfExists(part);
            }
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }

    /** Destroys messages as they came, when they have lain long enough. */
    @Scheduled(initialDelayString = "${oakbasket.purge-first:PT2M}", fixedDelayString = "${oakbasket.purge-every:PT1H}")
    void tidy() throws IOException {
        Acting.officeDoes(this::tidyNow);
    }

    private void tidyNow() throws IOException {
        Instant before = clock.instant().minus(KEPT);
        for (InwardMessage message : table.keptSince(before, AT_ONCE)) {
            Files.deleteIfExists(folder.postIn().resolve(message.fileName()));
            transactions.durably(() -> {
                table.forgetFile(message.id());
                return true;
            });
        }
    }

    private static String cut(@Nullable String text, int most) {
        String plain = String.valueOf(text);
        return plain.length() <= most ? plain : plain.substring(0, most);
    }
}
