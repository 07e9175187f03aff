package oakbasket.server.post;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import oakbasket.core.letter.LetterKind;
import oakbasket.core.letter.LetterState;
import oakbasket.core.reminder.Recipient;
import oakbasket.core.round.RoundState;
import oakbasket.core.standing.ItemStanding;
import oakbasket.server.Settings;
import oakbasket.server.basket.Baskets;
import oakbasket.server.board.Board;
import oakbasket.server.clock.MachineTime;
import oakbasket.server.lettersetting.LetterSettings;
import oakbasket.server.mail.MailTrouble;
import oakbasket.server.mail.Mailer;
import oakbasket.server.mail.OutgoingMail;
import oakbasket.server.round.Rounds;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.Transactions;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/**
 * Carries letters whose time has come to the mail server, one after another. What is owed is looked at again at the last moment, so that nobody who has just
 * sent everything is asked for it.
 */
@Service
public class Postman {

    private static final Logger LOG = LoggerFactory.getLogger(Postman.class);
    private static final int MOST_AT_ONCE = 200;
    /** Pauses between tries of one letter; after the last it is given up, about a day after the first. */
    private static final List<Duration> TRIES = List.of(Duration.ofMinutes(1), Duration.ofMinutes(5), Duration.ofMinutes(20), Duration.ofHours(1), Duration.ofHours(3), Duration.ofHours(6),
            Duration.ofHours(12));
    private static final Duration PAUSE = Duration.ofMinutes(1);

    private final LetterTable table;
    private final LetterWriter writer;
    private final ParcelLetters parcels;
    private final LinkAddress links;
    private final Letters letters;
    private final Mailer mailer;
    private final Rounds rounds;
    private final Baskets baskets;
    private final Board board;
    private final Transactions transactions;
    private final Words words;
    private final LetterSettings settings;
    private final MailTags tags;
    private final Settings office;
    private final MachineTime machine;
    private final Clock clock;
    private final ExchangeLetters exchanges;
    private final Pace pace = new Pace();
    /** Whether what was under way when the server stopped is told from what is under way now. */
    private volatile boolean awake;
    private volatile @Nullable Instant pausedUntil;
    private volatile String trouble = "";

    Postman(LetterTable table, LetterWriter writer, ParcelLetters parcels, LinkAddress links, Letters letters, Mailer mailer, Rounds rounds, Baskets baskets, Board board, Transactions transactions,
            Words words, LetterSettings settings, MailTags tags, Settings office, MachineTime machine, Clock clock, ExchangeLetters exchanges) {
        this.exchanges = exchanges;
        this.table = table;
        this.writer = writer;
        this.parcels = parcels;
        this.links = links;
        this.letters = letters;
        this.mailer = mailer;
        this.rounds = rounds;
        this.baskets = baskets;
        this.board = board;
        this.transactions = transactions;
        this.words = words;
        this.settings = settings;
        this.tags = tags;
        this.office = office;
        this.machine = machine;
        this.clock = clock;
    }

    /** Of letters that were being handed over when the server stopped nobody knows whether they went; somebody is asked, rather than that anybody gets one twice or none. */
    @EventListener(ApplicationReadyEvent.class)
    synchronized void wake() {
        List<Letter> lost = table.inState(LetterState.SENDING);
        for (Letter letter : lost) {
            settle(letter, LetterState.Event.LOSE, letter.tries() + 1, "");
        }
        awake = true;
        if (!lost.isEmpty()) {
            LOG.warn("{} letters were being handed over when the server stopped; whether they went is asked at the desk", lost.size());
        }
    }

    /** Why no letter can be handed over at present; empty when they can. */
    String trouble() {
        return trouble;
    }

    /** Hands over what is due. */
    @Scheduled(fixedDelayString = "${oakbasket.post-every:PT3S}")
    public void deliver() {
        Acting.officeDoes(this::deliverNow);
    }

    private synchronized void deliverNow() {
        Instant until = pausedUntil;
        if (!awake || until != null && clock.instant().isBefore(until)) {
            return;
        }
        int most = pace.left(settings.now().perMinute(), machine.now());
        for (Letter letter : table.due(clock.instant(), Math.min(most, MOST_AT_ONCE))) {
            try {
                pace.one();
                if (!deliver(letter)) {
                    return;
                }
            } catch (RuntimeException broken) {
                LOG.error("Letter {} could not be written", letter.id(), broken);
                later(letter, words.of("fault.letter-not-written"));
            }
        }
    }

    /** Whether the mail server can be given more. */
    private boolean deliver(Letter waiting) {
        if (transactions.durably(() -> table.settle(waiting, waiting.state().after(LetterState.Event.TAKE), waiting.notBefore(), waiting.tries(), "", null)) != 1) {
            return true;
        }
        Letter letter = table.byId(waiting.id()).orElseThrow();
        Long parcel = letter.parcelLinkId();
        List<LetterWriter.Told> all = told(letter);
        List<LetterWriter.Told> owing = owing(letter, all);
        Optional<String> against = parcel != null ? parcels.against(letter.kind(), parcel) : owing.isEmpty() ? Optional.of(against(letter, all.get(0)).orElse("")) : Optional.empty();
        if (against.isPresent()) {
            settle(letter, LetterState.Event.STOP, letter.tries(), against.get());
            return true;
        }
        LetterWriter.Written written = parcel != null ? parcels.write(letter.kind(), parcel) : writer.write(letter.kind(), owing, letter.submissionId(), tags.address(MailTags.Of.LETTER, letter.id()));
        transactions.quickly(() -> {
            table.words(letter.id(), written.to().address().text(), written.subject(), written.body(), written.language().getLanguage());
            return true;
        });
        try {
            mailer.send(new OutgoingMail(messageId(letter), written.to(), written.replyTo(), written.subject(), links.open(written.body(), written.language()), clock.instant(),
                    written.language(), tags.address(MailTags.Of.BOUNCE, letter.id()), "", written.calendar()));
        } catch (MailTrouble refused) {
            return refused(letter, refused);
        }
        trouble = "";
        settle(letter, LetterState.Event.TAKEN_BY_SERVER, letter.tries() + 1, "");
        if (letter.kind().bringsLink()) {
            owing.forEach(one -> baskets.invited(one.row().id(), clock.instant()));
        }
        return true;
    }

    private boolean refused(Letter letter, MailTrouble refused) {
        String why = words.of(refused.reason());
        if (refused.kind() == MailTrouble.Kind.UNREACHABLE) {
            Instant next = clock.instant().plus(PAUSE);
            pausedUntil = next;
            trouble = why;
            LOG.warn("No letters can be handed over: {}", why);
            transactions.durably(() -> table.settle(letter, letter.state().after(LetterState.Event.TRY_LATER), next, letter.tries(), why, null));
            letters.tell(letter);
            return false;
        }
        if (refused.kind() == MailTrouble.Kind.UNCERTAIN) {
            settle(letter, LetterState.Event.LOSE, letter.tries() + 1, why);
        } else if (refused.kind() == MailTrouble.Kind.REFUSED) {
            settle(letter, LetterState.Event.GIVE_UP, letter.tries() + 1, why);
        } else {
            later(letter, why);
        }
        return true;
    }

    /** Tries a letter again a while later, or gives it up after the last try. */
    private void later(Letter letter, String why) {
        Letter now = table.byId(letter.id()).orElseThrow();
        if (now.state() != LetterState.SENDING) {
            return;
        }
        if (now.tries() >= TRIES.size()) {
            settle(now, LetterState.Event.GIVE_UP, now.tries() + 1, why);
            return;
        }
        Instant next = clock.instant().plus(TRIES.get(now.tries()));
        transactions.durably(() -> table.settle(now, now.state().after(LetterState.Event.TRY_LATER), next, now.tries() + 1, why, null));
        letters.tell(now);
    }

    private void settle(Letter letter, LetterState.Event event, int tries, String why) {
        transactions.durably(() -> table.settle(letter, letter.state().after(event), letter.notBefore(), tries, why, clock.instant()));
        letters.tell(letter);
    }

    /** What a letter that has not gone yet would say now. */
    LetterWriter.Written asOfNow(Letter letter) {
        if (letter.parcelLinkId() != null) {
            return parcels.write(letter.kind(), letter.parcelLinkId());
        }
        List<LetterWriter.Told> all = told(letter);
        List<LetterWriter.Told> owing = owing(letter, all);
        return writer.write(letter.kind(), owing.isEmpty() ? all : owing, letter.submissionId(), tags.address(MailTags.Of.LETTER, letter.id()));
    }

    private List<LetterWriter.Told> told(Letter letter) {
        return table.about(List.of(letter.id())).stream().map(about -> new LetterWriter.Told(about.roundId(), board.judgeBasket(about.basketId()))).toList();
    }

    private List<LetterWriter.Told> owing(Letter letter, List<LetterWriter.Told> all) {
        return all.stream().filter(one -> against(letter, one).isEmpty()).toList();
    }

    /** Why this letter is not to go about this basket after all. */
    private Optional<String> against(Letter letter, LetterWriter.Told told) {
        Board.Row row = told.row();
        boolean gathering = rounds.opened(told.roundId()).state() == RoundState.GATHERING;
        Recipient recipient = Letters.recipient(gathering, row, true, null);
        if (letter.kind() == LetterKind.RETURN) {
            boolean anything = row.tiles().stream().anyMatch(tile -> tile.standing() == ItemStanding.RETURNED);
            return !gathering ? Optional.of(Recipient.Reason.ROUND_NOT_GATHERING.name()) : anything && !row.removed() ? Optional.empty() : Optional.of("NOTHING_RETURNED");
        }
        if (letter.kind() == LetterKind.EXCHANGE) {
            return row.removed() ? Optional.of(Recipient.Reason.REMOVED.name()) : exchanges.isOpen(row.id()) ? Optional.empty() : Optional.of("EXCHANGE_OVER");
        }
        if (letter.kind().tellsOfReceived()) {
            return row.removed() ? Optional.of(Recipient.Reason.REMOVED.name()) : letter.kind() == LetterKind.THANKS && !row.progress().finished() ? Optional.of("NOT_COMPLETE") : Optional.empty();
        }
        if (letter.kind() == LetterKind.EXTENSION && !row.extended()) {
            return Optional.of("NOT_EXTENDED");
        }
        if (letter.accountId() == null && row.paused()) {
            return Optional.of(Recipient.Reason.PAUSED.name());
        }
        return recipient.againstOwing().map(Enum::name);
    }

    private String messageId(Letter letter) {
        String from = office.letterSender();
        return "oak-letter-" + letter.id() + "-" + letter.madeAt().toEpochMilli() + from.substring(from.lastIndexOf('@'));
    }
}
