package oakbasket.server.outlook;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import oakbasket.core.compose.RoundPlan;
import oakbasket.core.identity.Person;
import oakbasket.core.letter.LetterKind;
import oakbasket.core.reminder.Forecast;
import oakbasket.core.reminder.Recipient;
import oakbasket.core.round.RoundState;
import oakbasket.server.Settings;
import oakbasket.server.contact.Contact;
import oakbasket.server.contact.Contacts;
import oakbasket.server.post.PlannedLetters;
import oakbasket.server.round.Drafts;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import org.springframework.stereotype.Service;

/** What a plan would send over the whole round if it were opened now and nothing came in. */
@Service
class DryRun {

    /** As long as the last repetition of any plan can be away. */
    private static final int DAYS = 1_000;

    /**
     * Letters of one kind on one day of the office.
     *
     * @param leftOut how many do not go, by the reason
     */
    record DryRunLetters(LocalDate date, LetterKind kind, int goes, Map<Recipient.Reason, Integer> leftOut) {
    }

    /**
     * What would go.
     *
     * @param people how many are asked
     * @param letters how many letters in all
     * @param mostToOne how many of them one person gets at most
     * @param late how many steps of the plan are over already for somebody, and never go
     */
    record DryRunResult(int people, int letters, int mostToOne, int late, List<DryRunLetters> days) {
    }

    private final Drafts drafts;
    private final Rounds rounds;
    private final Contacts contacts;
    private final PlannedLetters planned;
    private final Settings settings;
    private final Clock clock;

    DryRun(Drafts drafts, Rounds rounds, Contacts contacts, PlannedLetters planned, Settings settings, Clock clock) {
        this.drafts = drafts;
        this.rounds = rounds;
        this.contacts = contacts;
        this.planned = planned;
        this.settings = settings;
        this.clock = clock;
    }

    /**
     * Runs the plan of a draft.
     *
     * @throws oakbasket.server.problem.Problem with status 422 naming every field that keeps it from being opened
     */
    DryRunResult of(long draftId) {
        rounds.head(draftId).state().after(RoundState.Change.OPEN);
        RoundPlan plan = drafts.plan(rounds.sheet(draftId));
        Round round = drafts.rehearse(draftId).round();
        Instant now = clock.instant();
        PlannedLetters.Look look = planned.look(now);
        Map<String, Long> asked = people(plan);
        LocalDate deadline = LocalDate.ofInstant(round.deadline().instant(), round.zone());
        Instant invited = now.plus(settings.letterHold());
        boolean invites = plan.letters().invite();
        Map<LocalDate, Map<LetterKind, Map<String, Integer>>> tally = new TreeMap<>();
        int letters = 0;
        int most = 0;
        int late = 0;
        for (Map.Entry<String, Long> person : asked.entrySet()) {
            Forecast.Strand strand = look.strand(round, deadline, 0, person.getValue(), person.getKey());
            late = Math.max(late, (int) strand.letters().stream().filter(letter -> !letter.at().isAfter(now)).count());
            int own = invites ? 1 : 0;
            if (invites) {
                count(tally, invited, LetterKind.INVITATION, "");
            }
            ZoneId zone = look.zone(round, person.getValue());
            for (Forecast.Foreseen letter : Forecast.of(List.of(strand), zone, invites ? invited : look.last(person.getValue()), now, now.plus(Duration.ofDays(DAYS)))) {
                Recipient.Reason against = letter.against();
                count(tally, letter.at(), letter.kind(), against == null ? "" : against.name());
                own += against == null ? 1 : 0;
            }
            letters += own;
            most = Math.max(most, own);
        }
        return new DryRunResult(asked.size(), letters, most, late, days(tally));
    }

    private void count(Map<LocalDate, Map<LetterKind, Map<String, Integer>>> tally, Instant at, LetterKind kind, String against) {
        tally.computeIfAbsent(LocalDate.ofInstant(at, settings.zone()), day -> new TreeMap<>()).computeIfAbsent(kind, one -> new TreeMap<>()).merge(against, 1, Integer::sum);
    }

    private static List<DryRunLetters> days(Map<LocalDate, Map<LetterKind, Map<String, Integer>>> tally) {
        List<DryRunLetters> days = new ArrayList<>();
        tally.forEach((date, kinds) -> kinds.forEach((kind, counts) -> {
            Map<Recipient.Reason, Integer> leftOut = new TreeMap<>();
            counts.forEach((reason, count) -> {
                if (!reason.isEmpty()) {
                    leftOut.put(Recipient.Reason.valueOf(reason), count);
                }
            });
            days.add(new DryRunLetters(date, kind, counts.getOrDefault("", 0), leftOut));
        }));
        return days;
    }

    /** Everybody who is asked, by address, with their contact; 0 for those who are none yet. */
    private Map<String, Long> people(RoundPlan plan) {
        Map<String, Long> people = new LinkedHashMap<>();
        Map<String, Long> known = contacts.byKeys();
        for (Person person : plan.people()) {
            people.put(person.address().text(), known.getOrDefault(person.address().key(), 0L));
        }
        List<Long> members = plan.groups().stream().flatMap(group -> contacts.idsOfGroup(group).stream()).distinct().filter(id -> !people.containsValue(id)).toList();
        for (Contact member : contacts.byIds(members).values()) {
            people.put(member.email(), member.id());
        }
        return people;
    }
}
