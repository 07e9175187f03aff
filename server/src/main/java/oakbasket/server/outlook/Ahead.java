package oakbasket.server.outlook;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import oakbasket.core.reminder.Forecast;
import oakbasket.core.reminder.PlanChange;
import oakbasket.core.reminder.Recipient;
import oakbasket.server.board.Board;
import oakbasket.server.post.PlannedLetters;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import oakbasket.server.storage.Known;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Looks ahead over all gathering rounds at once, since letters of several rounds to one person are put together and kept apart by the gap. */
@Component
class Ahead {

    /** One letter of one basket that will go, or would. */
    record Seen(Forecast.Foreseen letter, Round round, Board.Row row) {
    }

    private final Rounds rounds;
    private final Board board;
    private final PlannedLetters planned;
    private final Clock clock;

    Ahead(Rounds rounds, Board board, PlannedLetters planned, Clock clock) {
        this.rounds = rounds;
        this.board = board;
        this.planned = planned;
        this.clock = clock;
    }

    PlannedLetters.Look look() {
        return planned.look(clock.instant());
    }

    /** Everything that will go until an instant, or would but for a reason. */
    List<Seen> until(PlannedLetters.Look look, Instant until) {
        Instant now = clock.instant();
        Map<Long, Board.Row> rows = new HashMap<>();
        Map<Long, Round> of = new HashMap<>();
        Map<Long, List<Forecast.Strand>> people = new LinkedHashMap<>();
        for (Board.Judged judged : board.judge(rounds.gathering())) {
            if (judged.round().letters().reminders().steps().isEmpty()) {
                continue;
            }
            for (Board.Row row : judged.rows()) {
                if (!row.removed() && !row.walkIn()) {
                    rows.put(row.id(), row);
                    of.put(row.id(), judged.round());
                    people.computeIfAbsent(row.contactId(), id -> new ArrayList<>()).add(look.strand(judged.round(), row));
                }
            }
        }
        List<Seen> seen = new ArrayList<>();
        people.forEach((contact, strands) -> {
            Round first = Known.in(of, strands.get(0).basket());
            Forecast.of(strands, look.zone(first, contact), look.last(contact), now, until).forEach(letter -> seen.add(new Seen(letter, Known.in(of, letter.basket()),
                    Known.in(rows, letter.basket()))));
        });
        return seen;
    }

    /** Letters to people who still owe that are held although their time has passed. @param round and {@code at}: only these; null for all */
    List<Seen> held(PlannedLetters.Look look, @Nullable Long round, @Nullable Instant at) {
        Instant now = clock.instant();
        List<Seen> held = new ArrayList<>();
        for (Board.Judged judged : board.judge(rounds.gathering().stream().filter(one -> round == null || one.id() == round).toList())) {
            for (Board.Row row : judged.rows()) {
                boolean owes = !row.removed() && !row.walkIn() && row.finishedAt() == null && !row.waived();
                if (owes && look.decided(row.id()).values().stream().anyMatch(change -> change.act() == PlanChange.Act.HOLD)) {
                    look.letters(judged.round(), row).stream().filter(letter -> letter.against() == Recipient.Reason.HELD && !letter.at().isAfter(now) && (at == null || letter.at().equals(at)))
                            .forEach(letter -> held.add(new Seen(new Forecast.Foreseen(row.id(), letter.kind(), letter.at(), letter.step(), row.id(), Recipient.Reason.HELD), judged.round(), row)));
                }
            }
        }
        return held;
    }
}
