package oakbasket.server.inward;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import oakbasket.core.inward.MailKind;
import oakbasket.core.inward.MailTrust;
import oakbasket.server.decode.Decoders;
import oakbasket.server.decode.work.ReadMarkup;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.post.MailTags;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.Hash;
import oakbasket.server.storage.DataFolder;
import oakbasket.server.storage.Transactions;
import oakbasket.server.words.Words;
import org.apache.james.mime4j.MimeException;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/**
 * Deals with messages that were taken. Every step can be done again: a paper is known by its message and its number in it, a sending by its message, and the message is settled last, in one step with the answer that
 * waits. So it is dealt with once, whatever dies when.
 */
@Service
class Dealing {

    private static final int AT_ONCE = 50;
    private static final int MOST_TRIES = 5;
    private static final int LONGEST_SUBJECT = 500;
    private static final int LONGEST_ID = 500;
    private static final int LONGEST_NAME = 300;
    private static final int LONGEST_ADDRESS = 320;
    /** As long as the message lies as it came. */
    private static final Duration KEPT = Duration.ofDays(30);
    private static final Logger LOG = LoggerFactory.getLogger(Dealing.class);

    private final InwardTable table;
    private final Matching matching;
    private final MailedPapers papers;
    private final Reports reports;
    private final Winmail winmail;
    private final Decoders decoders;
    private final Answering answering;
    private final DataFolder folder;
    private final Transactions transactions;
    private final LiveHub live;
    private final Words words;
    private final Clock clock;

    Dealing(InwardTable table, Matching matching, MailedPapers papers, Reports reports, Winmail winmail, Decoders decoders, Answering answering, DataFolder folder, Transactions transactions, LiveHub live, Words words, Clock clock) {
        this.table = table;
        this.matching = matching;
        this.papers = papers;
        this.reports = reports;
        this.winmail = winmail;
        this.decoders = decoders;
        this.answering = answering;
        this.folder = folder;
        this.transactions = transactions;
        this.live = live;
        this.words = words;
        this.clock = clock;
    }

    synchronized void dealWithAll() {
        for (InwardMessage message : table.taken(AT_ONCE)) {
            try {
                settle(deal(message));
            } catch (RuntimeException | IOException broken) {
                if (broken instanceof Problem full && full.code().equals("tray-full")) {
                    LOG.warn("Messages wait: the tray is full");
                    return;
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
        }
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

    private InwardMessage deal(InwardMessage message) throws IOException {
        Path file = folder.postIn().resolve(message.fileName());
        ReadMail mail;
        try {
            mail = MailReader.read(file, folder.postIn(), prefix(message), this::plain);
        } catch (MimeException | IOException unreadable) {
            if (!Files.exists(file)) {
                return unreadable(message, words.of("inward.gone"));
            }
            return unreadable(message, words.of("inward.unreadable"));
        }
        InwardMessage read = InwardMessageBuilder.builder(message).fromName(cut(mail.fromName(), LONGEST_NAME)).fromAddress(cut(mail.from(), LONGEST_ADDRESS)).subject(cut(mail.subject(), LONGEST_SUBJECT))
                .messageId(cut(mail.headers().first("Message-ID"), LONGEST_ID)).text(mail.text()).build();
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
        MailKind kind = MailKind.of(mail.headers(), mail.from(), matching.own(mail));
        return switch (kind) {
            case REPORT -> reports.taken(read, mail, matching.tag(mail, MailTags.Of.BOUNCE).orElse(null));
            case LOOP -> InwardMessageBuilder.builder(read).kind(InwardMessage.Kind.LOOP).build();
            case LIST -> fromNobody(read, mail, InwardMessage.Kind.LIST);
            case AUTOMATIC -> fromNobody(read, mail, InwardMessage.Kind.AUTOMATIC);
            case PERSON -> fromSomebody(read, mail);
        };
    }

    /** What a program or a list sent is never answered and files nothing by itself; what is attached is not lost. */
    private InwardMessage fromNobody(InwardMessage read, ReadMail mail, InwardMessage.Kind kind) throws IOException {
        Matching.Match match = matching.of(mail);
        Matching.Match unsure = new Matching.Match(match.contact(), match.letterId(), match.baskets(), match.certain(), MailTrust.DECLARED, match.theirAddress());
        keep(papers.file(read, opened(read, mail), mail, unsure).parts());
        return with(read, kind, unsure);
    }

    private InwardMessage fromSomebody(InwardMessage read, ReadMail mail) throws IOException {
        Matching.Match match = matching.of(mail);
        List<ReadMail.Part> attached = opened(read, mail);
        if (attached.isEmpty()) {
            return with(read, InwardMessage.Kind.ANSWER, match);
        }
        MailedPapers.Filed filed = papers.file(read, attached, mail, match);
        keep(filed.parts());
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

    private List<ReadMail.Part> opened(InwardMessage message, ReadMail mail) throws IOException {
        List<ReadMail.Part> opened = new ArrayList<>();
        for (ReadMail.Part part : mail.parts()) {
            opened.addAll(Winmail.is(part) ? winmail.opened(part, folder.postIn(), prefix(message) + opened.size()) : List.of(part));
        }
        return opened;
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
            try (InputStream in = Files.newInputStream(part.path())) {
                byte[] buffer = new byte[1 << 16];
                for (int read = in.read(buffer); read >= 0; read = in.read(buffer)) {
                    digest.update(buffer, 0, read);
                }
            }
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
