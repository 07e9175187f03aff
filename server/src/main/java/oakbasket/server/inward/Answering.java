package oakbasket.server.inward;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import oakbasket.core.fault.FaultyValue;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.core.inward.MailKind;
import oakbasket.core.inward.MailTrust;
import oakbasket.core.receipt.ReceiptCode;
import oakbasket.server.Settings;
import oakbasket.server.basket.Baskets;
import oakbasket.server.basket.Submissions;
import oakbasket.server.board.Board;
import oakbasket.server.brand.Brand;
import oakbasket.server.contact.Contact;
import oakbasket.server.lettersetting.LetterSettings;
import oakbasket.server.mail.MailTrouble;
import oakbasket.server.mail.Mailer;
import oakbasket.server.mail.OutgoingMail;
import oakbasket.server.mail.OutgoingMailBuilder;
import oakbasket.server.post.MailTags;
import oakbasket.server.problem.Problem;
import oakbasket.server.round.Item;
import oakbasket.server.round.Rounds;
import oakbasket.server.security.Limits;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.Transactions;
import oakbasket.server.words.SenderLanguages;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/**
 * Answers papers that a person sent by mail with what became of each, and nothing else ever: not programs, not lists, not ourselves (RFC 3834). An answer says nothing about a basket to an address that is not sure, and names
 * nobody to an address that is not theirs. Who sends so much that more answers do not go in a day gets the rest in one.
 */
@Service
class Answering {

    private static final int AT_ONCE = 50;
    private static final Duration GATHERED_FOR = Duration.ofHours(12);
    private static final int MOST_GATHERED = 100;
    private static final List<Duration> TRIES = List.of(Duration.ofMinutes(1), Duration.ofMinutes(10), Duration.ofHours(1), Duration.ofHours(6));
    private static final Logger LOG = LoggerFactory.getLogger(Answering.class);

    private final InwardTable table;
    private final Mailer mailer;
    private final MailTags tags;
    private final Submissions submissions;
    private final Baskets baskets;
    private final Board board;
    private final Rounds rounds;
    private final LetterSettings common;
    private final Limits limits;
    private final Transactions transactions;
    private final Settings settings;
    private final Brand brand;
    private final Words words;
    private final Clock clock;
    /** Whether what was under way when the server stopped is told from what is under way now. */
    private volatile boolean awake;

    Answering(InwardTable table, Mailer mailer, MailTags tags, Submissions submissions, Baskets baskets, Board board, Rounds rounds, LetterSettings common, Limits limits, Transactions transactions, Settings settings, Words words,
            Clock clock, Brand brand) {
        this.brand = brand;
        this.table = table;
        this.mailer = mailer;
        this.tags = tags;
        this.submissions = submissions;
        this.baskets = baskets;
        this.board = board;
        this.rounds = rounds;
        this.common = common;
        this.limits = limits;
        this.transactions = transactions;
        this.settings = settings;
        this.words = words;
        this.clock = clock;
    }

    /** The message with the answer to its papers; without one where nobody is to be answered. */
    InwardMessage papers(InwardMessage message, ReadMail mail, Matching.Match match, MailedPapers.Filed filed) {
        Contact contact = named(match);
        Words spoken = spoken(contact);
        String lines = filed.told().stream().filter(told -> told.part().outcome() != InwardPart.Outcome.LEFT_OUT).map(told -> line(spoken, told)).collect(Collectors.joining("\n"));
        StringBuilder end = new StringBuilder();
        Long submission = filed.submissionId();
        Long basket = filed.basketId();
        if (match.trust() == MailTrust.CONFIRMED && basket != null) {
            if (submission != null) {
                end.append(spoken.of("answer.receipt", new ReceiptCode(submissions.byId(submission).receiptCode()).toString())).append('\n');
            }
            end.append(still(spoken, basket)).append('\n');
        }
        return answered(message, mail, contact, spoken, spoken.of("answer.body", name(mail, contact), lines, end.toString().strip(), brand.name()), lines);
    }

    private static String line(Words spoken, MailedPapers.Told told) {
        InwardPart part = told.part();
        return switch (part.outcome()) {
            case FILED -> part.item().isEmpty() ? spoken.of("answer.taken", part.name()) : spoken.of("answer.filed", part.name(), part.item());
            case TRAY -> told.alike().size() < 2 ? spoken.of("answer.waits", part.name()) : spoken.of("answer.waits-which", part.name(), String.join(", ", told.alike()));
            case REFUSED -> spoken.of("answer.refused", part.name(), part.why());
            case LEFT_OUT -> "";
        };
    }

    /** Whom an answer may name, and whose language it speaks: the person, where it goes to their address; nobody where a mark came from another one. */
    private static @Nullable Contact named(Matching.Match match) {
        return match.theirAddress() ? match.contact() : null;
    }

    /** The message with the answer that it is too large. */
    InwardMessage tooLarge(InwardMessage message, ReadMail mail, Matching.Match match) {
        Contact contact = named(match);
        Words spoken = spoken(contact);
        boolean person = MailKind.of(mail.headers(), mail.from(), false, mail.subject(), mail.text()) == MailKind.PERSON;
        String body = spoken.of("answer.too-large", name(mail, contact), Collecting.MOST_BYTES >> 20, brand.name());
        return person ? answered(message, mail, contact, spoken, body, spoken.of("answer.too-large-line", Collecting.MOST_BYTES >> 20)) : message;
    }

    private String still(Words spoken, long basketId) {
        Board.Row row = board.judgeBasket(basketId);
        List<Item> items = rounds.items(baskets.byId(basketId).roundId());
        String missing = items.stream().filter(item -> row.tiles().get(items.indexOf(item)).owed()).map(item -> item.spec().title()).collect(Collectors.joining(", "));
        return missing.isEmpty() ? spoken.of("answer.complete") : spoken.of("letter.still", missing);
    }

    private InwardMessage answered(InwardMessage message, ReadMail mail, @Nullable Contact contact, Words spoken, String body, String lines) {
        boolean gathered = false;
        try {
            MailAddress address = MailAddress.parse(mail.from());
            if (contact == null) {
                limits.count(Limits.Kind.MAIL_ANSWER_UNKNOWN, address.key());
                limits.count(Limits.Kind.MAIL_ANSWERS_UNKNOWN, "");
            } else {
                gathered = !within(address);
            }
        } catch (FaultyValue | Problem unanswered) {
            return message;
        }
        return InwardMessageBuilder.builder(message).answerState(gathered ? InwardMessage.AnswerState.GATHERED : InwardMessage.AnswerState.WAITING).answerAt(clock.instant())
                .answerSubject(cut(spoken.of("answer.subject", mail.subject()))).answerBody(gathered ? lines : LetterSettings.signed(common.now(), body)).answerLanguage(spoken.language().getLanguage()).build();
    }

    private boolean within(MailAddress address) {
        try {
            limits.count(Limits.Kind.MAIL_ANSWER, address.key());
            return true;
        } catch (Problem enough) {
            return false;
        }
    }

    private static String cut(String subject) {
        return subject.length() <= 250 ? subject : subject.substring(0, 250);
    }

    private Words spoken(@Nullable Contact contact) {
        return words.in(contact == null ? Locale.ENGLISH : SenderLanguages.ofTag(contact.language()).orElse(Locale.ENGLISH));
    }

    private static String name(ReadMail mail, @Nullable Contact contact) {
        return contact != null ? contact.name() : mail.fromName().isEmpty() ? mail.from() : mail.fromName();
    }

    // --- sending

    @EventListener(ApplicationReadyEvent.class)
    synchronized void wake() {
        int lost = transactions.durably(table::lost);
        awake = true;
        if (lost > 0) {
            LOG.warn("{} answers were being handed over when the server stopped; whether they went is not known, and they are not sent again", lost);
        }
    }

    /** Sends the answers that wait. */
    @Scheduled(fixedDelayString = "${oakbasket.post-every:PT3S}")
    void send() {
        Acting.officeDoes(this::sendNow);
    }

    private synchronized void sendNow() {
        if (!awake) {
            return;
        }
        for (InwardMessage message : table.answersDue(clock.instant(), AT_ONCE)) {
            if (transactions.durably(() -> table.answer(message.id(), InwardMessage.AnswerState.WAITING, InwardMessage.AnswerState.SENDING, message.answerTries(), message.answerAt(), "")) == 1) {
                try {
                    send(message);
                } catch (RuntimeException broken) {
                    LOG.error("The answer to message {} could not be written", message.id(), broken);
                    settle(message, InwardMessage.AnswerState.FAILED, message.answerTries() + 1, clock.instant(), words.of("inward.broken"));
                }
            }
        }
    }

    /** Makes one answer of those that were gathered, half a day after the first of them. */
    @Scheduled(initialDelayString = "${oakbasket.purge-first:PT2M}", fixedDelayString = "${oakbasket.gather-every:PT10M}")
    void gather() {
        Acting.officeDoes(this::gatherNow);
    }

    private synchronized void gatherNow() {
        Map<String, List<InwardMessage>> bySender = table.gathered(clock.instant().minus(GATHERED_FOR)).stream().collect(Collectors.groupingBy(InwardMessage::fromAddress, LinkedHashMap::new, Collectors.toList()));
        for (List<InwardMessage> all : bySender.values()) {
            InwardMessage first = all.get(0);
            Words spoken = words.in(Locale.forLanguageTag(first.answerLanguage()));
            String lines = all.stream().limit(MOST_GATHERED).map(one -> spoken.of("answer.gathered-of", one.subject()) + "\n" + one.answerBody()).collect(Collectors.joining("\n\n"));
            String more = all.size() > MOST_GATHERED ? "\n\n" + spoken.of("answer.gathered-more", all.size() - MOST_GATHERED) : "";
            String name = first.fromName().isBlank() ? first.fromAddress() : first.fromName();
            String body = LetterSettings.signed(common.now(), spoken.of("answer.gathered", name, all.size(), lines + more, brand.name()));
            transactions.durably(() -> table.gather(first.id(), all.stream().map(InwardMessage::id).toList(), spoken.of("answer.gathered-subject", all.size()), body, clock.instant()));
        }
    }

    private void send(InwardMessage message) {
        String from = settings.letterSender();
        Person to = new Person(message.fromName().isBlank() ? message.fromAddress() : message.fromName(), MailAddress.parse(message.fromAddress()));
        Long basket = message.confirmed() ? message.basketId() : null;
        String collecting = basket == null ? settings.collecting() : tags.address(MailTags.Of.BASKET, basket);
        Person answers = new Person(brand.name(), MailAddress.parse(collecting.isEmpty() ? from : collecting));
        OutgoingMail mail = new OutgoingMail("oak-answer-" + message.id() + "-" + message.cameAt().toEpochMilli() + from.substring(from.lastIndexOf('@')), to, answers, message.answerSubject(), message.answerBody(),
                clock.instant());
        Instant now = clock.instant();
        try {
            mailer.send(OutgoingMailBuilder.builder(mail).language(Locale.forLanguageTag(message.answerLanguage())).inReplyTo(message.messageId()).build());
            settle(message, InwardMessage.AnswerState.SENT, message.answerTries() + 1, now, "");
        } catch (MailTrouble trouble) {
            String why = words.of(trouble.reason());
            int tries = message.answerTries() + 1;
            boolean again = trouble.kind() != MailTrouble.Kind.REFUSED && tries <= TRIES.size();
            if (trouble.kind() == MailTrouble.Kind.UNCERTAIN) {
                settle(message, InwardMessage.AnswerState.UNCERTAIN, tries, now, why);
                return;
            }
            settle(message, again ? InwardMessage.AnswerState.WAITING : InwardMessage.AnswerState.FAILED, tries, again ? now.plus(TRIES.get(tries - 1)) : now, why);
        }
    }

    private void settle(InwardMessage message, InwardMessage.AnswerState to, int tries, Instant at, String why) {
        transactions.durably(() -> table.answer(message.id(), InwardMessage.AnswerState.SENDING, to, tries, at, why));
    }
}
