package oakbasket.server.post;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import oakbasket.core.letter.LetterKind;
import oakbasket.core.reminder.PlannedLetter;
import oakbasket.core.reminder.ReminderDecision;
import oakbasket.server.board.Board;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.Known;
import oakbasket.server.storage.Transactions;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/**
 * Looks at the plans of all gathering rounds and makes the letters whose time has come. One person gets one letter, of however many rounds: what would go to
 * them later on the same day goes with it.
 */
@Service
public class ReminderRounds {

    private static final Logger LOG = LoggerFactory.getLogger(ReminderRounds.class);

    /** As long as a day can be, with its clock set back. */
    private static final Duration LATER_TODAY = Duration.ofHours(26);

    private record Due(Board.Row row, Round round, PlannedLetter letter) {
    }

    private final Rounds rounds;
    private final Board board;
    private final PlannedLetters planned;
    private final LetterTable table;
    private final LetterLookTable looks;
    private final Letters letters;
    private final Transactions transactions;
    private final LiveHub live;
    private final Clock clock;

    ReminderRounds(Rounds rounds, Board board, PlannedLetters planned, LetterTable table, LetterLookTable looks, Letters letters, Transactions transactions, LiveHub live, Clock clock) {
        this.rounds = rounds;
        this.board = board;
        this.planned = planned;
        this.table = table;
        this.looks = looks;
        this.letters = letters;
        this.transactions = transactions;
        this.live = live;
        this.clock = clock;
    }

    /** Makes the letters that fell due since the last look. Most looks find by the calendar alone that nothing did. */
    @Scheduled(fixedDelayString = "${oakbasket.reminders-every:PT30S}")
    public void look() {
        Acting.officeDoes(this::lookNow);
    }

    private synchronized void lookNow() {
        Instant now = clock.instant();
        List<Round> gathering = rounds.gathering();
        Map<Long, Instant> before = looks.all();
        PlannedLetters.Look look = planned.look(now);
        List<Round> planning = gathering.stream().filter(round -> before.containsKey(round.id()) && !round.letters().reminders().steps().isEmpty()).toList();
        boolean anything = planning.stream().anyMatch(round -> look.anything(round, Known.in(before, round.id()), now));
        List<Round> looked = new ArrayList<>(gathering);
        List<Board.Judged> judged = new ArrayList<>();
        for (Round round : anything ? planning : List.<Round>of()) {
            try {
                if (look.anything(round, Known.in(before, round.id()), now.plus(LATER_TODAY))) {
                    judged.add(board.judge(round.id()));
                }
            } catch (RuntimeException broken) {
                LOG.error("The reminders of round {} could not be looked at", round.id(), broken);
                looked.remove(round);
            }
        }
        List<Letter.Fresh> fresh = fresh(judged, before, look, now);
        transactions.durably(() -> {
            looks.keepOnly(gathering.stream().map(Round::id).toList());
            looked.forEach(round -> looks.looked(round.id(), now));
            if (!fresh.isEmpty()) {
                letters.plan(fresh, now);
            }
        });
        fresh.stream().flatMap(one -> one.about().stream()).map(Letter.FreshAbout::roundId).distinct().forEach(round -> live.publish(new LiveEvent(LiveEvent.LETTER, round, null)));
    }

    private List<Letter.Fresh> fresh(List<Board.Judged> judged, Map<Long, Instant> before, PlannedLetters.Look look, Instant now) {
        Map<Long, List<Due>> byPerson = new LinkedHashMap<>();
        if (judged.isEmpty()) {
            return List.of();
        }
        Instant earliest = judged.stream().map(round -> Known.in(before, round.round().id())).min(Comparator.naturalOrder()).orElse(now);
        Set<LetterTable.Answered> answered = table.answered(earliest, now.plus(LATER_TODAY));
        for (Board.Judged round : judged) {
            Instant after = Known.in(before, round.round().id());
            for (Board.Row row : round.rows()) {
                if (ReminderDecision.decide(look.letters(round.round(), row), look.recipient(row), after, now) instanceof ReminderDecision.Send send
                        && !answered.contains(new LetterTable.Answered(row.id(), send.letter().step()))) {
                    byPerson.computeIfAbsent(row.contactId(), id -> new ArrayList<>()).add(new Due(row, round.round(), send.letter()));
                }
            }
        }
        judged.forEach(round -> addLaterToday(round, byPerson, answered, look, now));
        return byPerson.values().stream().map(due -> asOne(due, look, now)).toList();
    }

    /** Whoever gets a letter now is told in it what would be told later on the same day. */
    private static void addLaterToday(Board.Judged round, Map<Long, List<Due>> byPerson, Set<LetterTable.Answered> answered, PlannedLetters.Look look, Instant now) {
        for (Board.Row row : round.rows()) {
            List<Due> due = byPerson.get(row.contactId());
            if (due == null || due.stream().anyMatch(one -> one.row().id() == row.id()) || look.recipient(row).against(now).isPresent()) {
                continue;
            }
            ZoneId zone = look.zone(round.round(), row.contactId());
            LocalDate today = LocalDate.ofInstant(now, zone);
            look.letters(round.round(), row).stream().filter(letter -> letter.against() == null && letter.at().isAfter(now) && LocalDate.ofInstant(letter.at(), zone).equals(today))
                    .filter(letter -> !answered.contains(new LetterTable.Answered(row.id(), letter.step()))).findFirst().ifPresent(letter -> due.add(new Due(row, round.round(), letter)));
        }
    }

    /** One letter; the graver kind where several come together. */
    private static Letter.Fresh asOne(List<Due> due, PlannedLetters.Look look, Instant now) {
        LetterKind kind = due.stream().map(one -> one.letter().kind()).reduce(LetterKind::graver).orElseThrow();
        return new Letter.Fresh(due.get(0).row().contactId(), kind, look.allowed(due.get(0).round(), due.get(0).row().contactId(), now), null,
                due.stream().map(one -> new Letter.FreshAbout(one.row().id(), one.round().id(), one.letter().step())).toList());
    }
}
