package oakbasket.server.outlook;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import oakbasket.core.letter.LetterKind;
import oakbasket.core.reminder.PlanChange;
import oakbasket.core.reminder.Recipient;
import oakbasket.core.round.RoundState;
import oakbasket.server.Settings;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.post.PlanChanges;
import oakbasket.server.post.PlannedLetters;
import oakbasket.server.problem.Problem;
import oakbasket.server.round.Rounds;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** The letters of the next weeks as things stand, by days, and decisions about them before they go. */
@Service
class Outlook {

    static final int MOST_DAYS = 120;
    static final int MOST_PEOPLE = 500;
    static final int MOST_DECIDED = 50_000;
    private static final Duration SOON = Duration.ofMinutes(1);

    /**
     * Letters of one round that the plan means for one moment.
     *
     * @param goes how many go by themselves
     * @param along how many people are told of it in a letter about another round
     * @param moved how many of them somebody moved
     * @param leftOut how many do not go, by the reason
     */
    record OutlookLetters(Instant at, long roundId, String round, LetterKind kind, int goes, int along, int moved, Map<Recipient.Reason, Integer> leftOut) {
    }

    /** Letters of one day of the office. */
    record OutlookDay(LocalDate date, List<OutlookLetters> letters) {
    }

    /**
     * One person's letter.
     *
     * @param stepAt the moment the plan means, which names the letter
     * @param reason why it does not go; null when it does
     * @param since since when that is so: when everything came, or the letter before went; null where that says nothing
     * @param along the title of the round whose letter takes it along; empty where it goes by itself
     * @param localAt when that is where the person is, as {@code yyyy-MM-ddTHH:mm}
     */
    record OutlookPerson(long contactId, String name, long basketId, Instant at, Instant stepAt, LetterKind kind, Recipient.@Nullable Reason reason, @Nullable Instant since, String along, boolean moved,
            String localAt, String zone) {
    }

    record OutlookPeople(List<OutlookPerson> people, int all) {
    }

    /** What was decided. @param letters about how many letters @param batch by which it can be taken back */
    record OutlookDecision(long batch, int letters) {
    }

    private final Ahead ahead;
    private final PlanChanges changes;
    private final Rounds rounds;
    private final LiveHub live;
    private final Settings settings;
    private final Clock clock;

    Outlook(Ahead ahead, PlanChanges changes, Rounds rounds, LiveHub live, Settings settings, Clock clock) {
        this.ahead = ahead;
        this.changes = changes;
        this.rounds = rounds;
        this.live = live;
        this.settings = settings;
        this.clock = clock;
    }

    /** The letters of the next days. @param round only of this one; null for all */
    List<OutlookDay> days(int days, @Nullable Long round) {
        if (days < 1 || days > MOST_DAYS) {
            throw Problem.field("days", "between", 1, MOST_DAYS);
        }
        ZoneId zone = settings.zone();
        Instant until = LocalDate.ofInstant(clock.instant(), zone).plusDays(days).atStartOfDay(zone).toInstant();
        Map<LocalDate, Map<Instant, Map<Long, Map<LetterKind, Tally>>>> tallies = new TreeMap<>();
        for (Ahead.Seen seen : ahead.until(ahead.look(), until)) {
            if (round == null || seen.round().id() == round) {
                Instant at = seen.letter().at();
                tallies.computeIfAbsent(LocalDate.ofInstant(at, zone), one -> new TreeMap<>()).computeIfAbsent(at, one -> new TreeMap<>()).computeIfAbsent(seen.round().id(), one -> new TreeMap<>())
                        .computeIfAbsent(seen.letter().kind(), one -> new Tally(seen.round().title())).add(seen);
            }
        }
        List<OutlookDay> found = new ArrayList<>();
        tallies.forEach((date, moments) -> {
            List<OutlookLetters> letters = new ArrayList<>();
            moments.forEach((at, inRounds) -> inRounds.forEach((id, kinds) -> kinds.forEach((kind, tally) -> letters.add(tally.letters(at, id, kind)))));
            found.add(new OutlookDay(date, letters));
        });
        return found;
    }

    private static final class Tally {
        private final String title;
        private final Map<Recipient.Reason, Integer> leftOut = new TreeMap<>();
        private int goes;
        private int along;
        private int moved;

        Tally(String title) {
            this.title = title;
        }

        void add(Ahead.Seen seen) {
            Recipient.Reason against = seen.letter().against();
            if (against != null) {
                leftOut.merge(against, 1, Integer::sum);
            } else if (seen.letter().with() != seen.letter().basket()) {
                along++;
            } else {
                goes++;
            }
            moved += moved(seen) ? 1 : 0;
        }

        OutlookLetters letters(Instant at, long id, LetterKind kind) {
            return new OutlookLetters(at, id, title, kind, goes, along, moved, leftOut);
        }
    }

    private static boolean moved(Ahead.Seen seen) {
        return seen.letter().with() == seen.letter().basket() && !seen.letter().at().equals(seen.letter().step());
    }

    /** Who gets the letter that a round means for a moment, and who does not and why. @param find part of a name; empty for all */
    OutlookPeople people(long round, Instant at, String find) {
        PlannedLetters.Look look = ahead.look();
        List<Ahead.Seen> all = ahead.until(look, at);
        String part = find.strip().toLowerCase(Locale.ROOT);
        List<Ahead.Seen> here = all.stream().filter(seen -> seen.round().id() == round && seen.letter().at().equals(at)).filter(seen -> seen.row().name().toLowerCase(Locale.ROOT).contains(part))
                .sorted(Comparator.comparing((Ahead.Seen seen) -> seen.letter().against() != null).thenComparing(seen -> seen.row().name())).toList();
        Map<Long, String> titles = new TreeMap<>();
        all.forEach(seen -> titles.putIfAbsent(seen.row().id(), seen.round().title()));
        return new OutlookPeople(here.stream().limit(MOST_PEOPLE).map(seen -> person(seen, look, titles, all)).toList(), here.size());
    }

    private static OutlookPerson person(Ahead.Seen seen, PlannedLetters.Look look, Map<Long, String> titles, List<Ahead.Seen> all) {
        Recipient.Reason reason = seen.letter().against();
        Instant since = reason == Recipient.Reason.COMPLETE ? seen.row().finishedAt() : reason == Recipient.Reason.TOO_SOON ? before(seen, look, all) : null;
        boolean along = seen.letter().with() != seen.letter().basket();
        ZoneId zone = look.zone(seen.round(), seen.row().contactId());
        return new OutlookPerson(seen.row().contactId(), seen.row().name(), seen.row().id(), seen.letter().at(), seen.letter().step(), seen.letter().kind(), reason, since,
                along ? titles.getOrDefault(seen.letter().with(), "") : "", moved(seen), LocalDateTime.ofInstant(seen.letter().at(), zone).withSecond(0).withNano(0).toString(), zone.getId());
    }

    /** The letter that went, or will have gone, too short a time before. */
    private static @Nullable Instant before(Ahead.Seen seen, PlannedLetters.Look look, List<Ahead.Seen> all) {
        return all.stream().filter(one -> one.row().contactId() == seen.row().contactId() && one.letter().against() == null && one.letter().at().isBefore(seen.letter().at()))
                .map(one -> one.letter().at()).max(Comparator.naturalOrder()).orElseGet(() -> look.last(seen.row().contactId()));
    }

    /**
     * Decides about letters of a round that the plan means for a moment.
     *
     * @param baskets whose; null for everybody's
     * @param act null lets them go as the plan means
     * @param to where they are moved, in everybody's own time; null unless they are
     * @throws Problem when nothing of the kind is planned, or it cannot be moved there
     */
    OutlookDecision decide(long round, Instant at, @Nullable List<Long> baskets, PlanChange.@Nullable Act act, @Nullable LocalDateTime to, long account) {
        if (rounds.head(round).state() != RoundState.GATHERING) {
            throw Problem.conflict("plan-not-gathering");
        }
        Instant now = clock.instant();
        if (act == PlanChange.Act.MOVE && to == null) {
            throw Problem.field("to", "move-where");
        }
        PlannedLetters.Look look = ahead.look();
        Set<Long> chosen = baskets == null ? Set.of() : new HashSet<>(baskets);
        List<PlanChanges.Decided> decided = new ArrayList<>();
        for (Ahead.Seen seen : ahead.until(look, at)) {
            if (seen.round().id() == round && seen.letter().at().equals(at) && (baskets == null || chosen.contains(seen.row().id()))) {
                decided.add(new PlanChanges.Decided(new PlanChanges.Step(seen.row().id(), seen.letter().step()), change(seen, look, act, to, now)));
            }
        }
        if (act == null && decided.isEmpty()) {
            decided.addAll(heldPastTheirTime(look, round, at, baskets, now));
        }
        if (decided.isEmpty()) {
            throw Problem.conflict("letter-gone");
        }
        if (decided.size() > MOST_DECIDED) {
            throw Problem.field("baskets", "choose-people", MOST_DECIDED);
        }
        long batch = changes.decide(round, decided, account);
        live.publish(new LiveEvent(LiveEvent.LETTER, round, null));
        return new OutlookDecision(batch, decided.size());
    }

    private @Nullable PlanChange change(Ahead.Seen seen, PlannedLetters.Look look, PlanChange.@Nullable Act act, @Nullable LocalDateTime to, Instant now) {
        if (act == null) {
            return null;
        }
        if (act != PlanChange.Act.MOVE || to == null) {
            return new PlanChange(act, null);
        }
        Instant there = look.allowed(seen.round(), seen.row().contactId(), to.atZone(look.zone(seen.round(), seen.row().contactId())).toInstant());
        if (!there.isAfter(now) || there.isAfter(now.plus(Duration.ofDays(MOST_DAYS)))) {
            throw Problem.field("to", "move-range", MOST_DAYS);
        }
        return new PlanChange(act, there);
    }

    /** What was held beyond its time goes as soon as it may when it is let go. */
    private List<PlanChanges.Decided> heldPastTheirTime(PlannedLetters.Look look, long round, Instant at, @Nullable List<Long> baskets, Instant now) {
        return ahead.held(look, round, at).stream().filter(seen -> baskets == null || baskets.contains(seen.row().id()))
                .map(seen -> new PlanChanges.Decided(new PlanChanges.Step(seen.row().id(), seen.letter().step()),
                        new PlanChange(PlanChange.Act.MOVE, look.allowed(seen.round(), seen.row().contactId(), now.plus(SOON))))).toList();
    }

    /** Letters that are held beyond their time, by the round and the moment. */
    List<OutlookLetters> held() {
        Map<Instant, Map<Long, Map<LetterKind, Tally>>> tallies = new TreeMap<>();
        PlannedLetters.Look look = ahead.look();
        for (Ahead.Seen seen : ahead.held(look, null, null)) {
            tallies.computeIfAbsent(seen.letter().at(), one -> new TreeMap<>()).computeIfAbsent(seen.round().id(), one -> new TreeMap<>()).computeIfAbsent(seen.letter().kind(), one -> new Tally(seen.round().title())).add(seen);
        }
        List<OutlookLetters> found = new ArrayList<>();
        tallies.forEach((at, inRounds) -> inRounds.forEach((id, kinds) -> kinds.forEach((kind, tally) -> found.add(tally.letters(at, id, kind)))));
        return found;
    }

    void undo(long batch) {
        changes.undo(batch);
        live.publish(new LiveEvent(LiveEvent.LETTER, 0, null));
    }
}
