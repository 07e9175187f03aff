package oakbasket.server.post;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import oakbasket.core.letter.LetterKind;
import oakbasket.server.Settings;
import oakbasket.server.board.Board;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import org.springframework.stereotype.Service;

/** Letters by the day: when those of a round went and will go, and how many go in the next weeks. */
@Service
class LetterDays {

    private static final Duration AHEAD = Duration.ofDays(120);
    private static final int DAYS = 14;

    /** Letters of one kind on one day of the round's zone, as the ruler shows them. */
    record LetterTick(LetterKind kind, Instant at, int letters, boolean planned) {
    }

    /** Letters that will go on one day of the office. */
    record ComingLetters(LocalDate date, long roundId, String round, LetterKind kind, int letters) {
    }

    private final Letters letters;
    private final PlannedLetters planned;
    private final Rounds rounds;
    private final Board board;
    private final Settings settings;
    private final Clock clock;

    LetterDays(Letters letters, PlannedLetters planned, Rounds rounds, Board board, Settings settings, Clock clock) {
        this.letters = letters;
        this.planned = planned;
        this.rounds = rounds;
        this.board = board;
        this.settings = settings;
        this.clock = clock;
    }

    /** When letters of a round went and will go, by days of the round's zone. */
    List<LetterTick> ofRound(long id) {
        Board.Judged judged = board.judge(id);
        List<LetterTick> ticks = new ArrayList<>();
        letters.went(id).forEach(went -> ticks.add(new LetterTick(went.kind(), went.hour(), went.letters(), false)));
        planned.coming(judged, judged.now().plus(AHEAD)).forEach(coming -> ticks.add(new LetterTick(coming.kind(), coming.at(), coming.letters(), true)));
        return byDay(ticks, judged.round());
    }

    /** The letters of the next two weeks as things stand, by days of the office. */
    List<ComingLetters> coming() {
        LocalDate today = LocalDate.ofInstant(clock.instant(), settings.zone());
        Instant until = today.plusDays(DAYS).atStartOfDay(settings.zone()).toInstant();
        List<ComingLetters> coming = new ArrayList<>();
        PlannedLetters.Look look = planned.look(clock.instant());
        for (Board.Judged judged : board.judge(rounds.gathering())) {
            Round round = judged.round();
            Map<LocalDate, Map<LetterKind, Integer>> days = new TreeMap<>();
            planned.coming(look, judged, until).forEach(one -> days.computeIfAbsent(LocalDate.ofInstant(one.at(), settings.zone()), day -> new EnumMap<>(LetterKind.class))
                    .merge(one.kind(), one.letters(), Integer::sum));
            days.forEach((date, kinds) -> kinds.forEach((kind, count) -> coming.add(new ComingLetters(date, round.id(), round.title(), kind, count))));
        }
        return coming;
    }

    private static List<LetterTick> byDay(List<LetterTick> ticks, Round round) {
        record Key(LetterKind kind, LocalDate day, boolean planned) {
        }
        Map<Key, LetterTick> days = new LinkedHashMap<>();
        ticks.forEach(tick -> days.merge(new Key(tick.kind(), LocalDate.ofInstant(tick.at(), round.zone()), tick.planned()), tick,
                (one, other) -> new LetterTick(one.kind(), one.at().isBefore(other.at()) ? one.at() : other.at(), one.letters() + other.letters(), one.planned())));
        return days.values().stream().sorted(Comparator.comparing(LetterTick::at)).toList();
    }
}
