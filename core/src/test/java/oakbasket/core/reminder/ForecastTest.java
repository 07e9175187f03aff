package oakbasket.core.reminder;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Stream;
import oakbasket.core.deadline.WorkingDays;
import oakbasket.core.deadline.WorkingDays.Shift;
import oakbasket.core.letter.LetterKind;
import oakbasket.core.reminder.ReminderStep.Unit;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What will go: what is foreseen is what the rules then send. */
class ForecastTest {

    private static final WorkingDays WEEKDAYS = WorkingDays.MONDAY_TO_FRIDAY;
    private static final Instant MONDAY = Instant.parse("2026-06-01T09:00:00Z");
    private static final Duration TWO_DAYS = Duration.ofDays(2);
    private static final List<ZoneId> ZONES = ZoneId.getAvailableZoneIds().stream().sorted().map(ZoneId::of).toList();

    /** Letters at hours from Monday 9:00 UTC; rounds A and B; the gap is two days. Foreseen: basket, hour, and what takes it along or speaks against it. */
    @ParameterizedTest(name = "A {0}, B {1}, last {2}: {3}")
    @CsvSource(delimiter = '|', value = {
        "1 100     | ''    | none | A1 A100",
        "1 24      | ''    | none | A1 A24:TOO_SOON",
        "1 49      | ''    | none | A1 A49",
        "1 48      | ''    | none | A1 A48:TOO_SOON",
        "1         | ''    | -24  | A1:TOO_SOON",
        "1 24 60   | ''    | none | A1 A24:TOO_SOON A60",
        "1         | 4     | none | A1 B1+A",
        "4         | 1     | none | B1 A1+B",
        "1         | 1     | none | A1 B1+A",
        "1         | 15    | none | A1 B15:TOO_SOON",
        "1 4       | 5     | none | A1 B1+A A4:TOO_SOON",
        "skip1 100 | 4     | none | A1:SKIPPED B4 A100",
        "hold1     | 4     | none | A1:HELD B4",
        "move1@72  | 4     | none | B4 A72",
        "move72@1  | 4     | none | A1 B1+A"})
    void lettersAreSeenAheadByTheRulesThatSendThem(String a, String b, String last, String foreseen) {
        List<Forecast.Strand> strands = Stream.of(strand(0, a), strand(1, b)).filter(strand -> !strand.letters().isEmpty()).toList();
        List<Forecast.Foreseen> found = Forecast.of(strands, ZoneOffset.UTC, last.equals("none") ? null : hour(Long.parseLong(last)), MONDAY, hour(500));
        assertThat(found.stream().map(one -> "AB".charAt((int) one.basket()) + "" + Duration.between(MONDAY, one.at()).toHours()
                + (one.with() == one.basket() ? "" : "+" + "AB".charAt((int) one.with())) + (one.against() == null ? "" : ":" + one.against())))
                .containsExactly(foreseen.split(" "));
    }

    private static Forecast.Strand strand(long basket, String letters) {
        List<PlannedLetter> planned = new ArrayList<>();
        Map<Instant, PlanChange> changes = new HashMap<>();
        for (String one : letters.isEmpty() ? new String[0] : letters.split(" ")) {
            String plain = one.replaceAll("^[a-z]+", "");
            Instant step = hour(Long.parseLong(plain.split("@")[0]));
            planned.add(new PlannedLetter(LetterKind.REMINDER, step));
            if (one.startsWith("move")) {
                changes.put(step, new PlanChange(PlanChange.Act.MOVE, hour(Long.parseLong(plain.split("@")[1]))));
            } else if (!one.equals(plain)) {
                changes.put(step, new PlanChange(one.startsWith("skip") ? PlanChange.Act.SKIP : PlanChange.Act.HOLD, null));
            }
        }
        return new Forecast.Strand(basket, owing(null), PlanChange.applied(planned, changes));
    }

    private static Instant hour(long hour) {
        return MONDAY.plus(Duration.ofHours(hour));
    }

    private static Recipient owing(@Nullable Instant finished) {
        return new Recipient(true, false, false, false, finished, false, true, true, null, TWO_DAYS);
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource({"COMPLETE", "PAUSED", "EXCUSED", "REMOVED", "WALK_IN", "NOT_ASKED", "UNREACHABLE", "ROUND_NOT_GATHERING"})
    void whoIsLeftOutIsNamedWithTheReasonAndNeverWrittenTo(Recipient.Reason reason) {
        Recipient recipient = new Recipient(reason != Recipient.Reason.ROUND_NOT_GATHERING, reason == Recipient.Reason.REMOVED, reason == Recipient.Reason.WALK_IN, reason == Recipient.Reason.EXCUSED,
                reason == Recipient.Reason.COMPLETE ? MONDAY : null, reason == Recipient.Reason.PAUSED, reason != Recipient.Reason.NOT_ASKED, reason != Recipient.Reason.UNREACHABLE, null, TWO_DAYS);
        List<PlannedLetter> letters = List.of(new PlannedLetter(LetterKind.REMINDER, hour(1)), new PlannedLetter(LetterKind.OVERDUE, hour(100)));
        assertThat(Forecast.of(List.of(new Forecast.Strand(7, recipient, letters)), ZoneOffset.UTC, null, MONDAY, hour(500))).extracting(Forecast.Foreseen::against).containsExactly(reason, reason);
    }

    /** In every zone and over both changes of the clock: what is foreseen goes and nothing else, by looks as the server takes them; never in quiet hours, never within the gap. */
    @Test
    void whatIsForeseenIsWhatGoesInEveryZoneOverTheWholeYear() {
        Random random = new Random(13);
        int went = 0;
        for (int n = 0; n < 2_000; n++) {
            ZoneId zone = ZONES.get(n % ZONES.size());
            QuietHours quiet = random.nextInt(4) == 0 ? new QuietHours(LocalTime.of(random.nextInt(24), 0), LocalTime.of(random.nextInt(24), 30)) : QuietHours.NIGHT;
            ReminderPlan plan = new ReminderPlan(random.ints(1 + random.nextInt(6), -30, 30).mapToObj(day -> new ReminderStep(day, random.nextBoolean() ? Unit.CALENDAR : Unit.WORKING,
                    LocalTime.of(random.nextInt(24), 15 * random.nextInt(4)), random.nextInt(5) == 0)).toList(), random.nextBoolean() ? null : new ReminderPlan.Repeat(1 + random.nextInt(5), 1 + random.nextInt(6)),
                    Shift.values()[random.nextInt(3)], quiet);
            LocalDate deadline = LocalDate.of(2026, 1, 1).plusDays(random.nextInt(365));
            List<PlannedLetter> letters = plan.letters(deadline, zone, WEEKDAYS);
            Recipient recipient = new Recipient(true, false, false, false, null, false, true, true, null, Duration.ofHours(random.nextInt(100)));
            Instant from = deadline.minusDays(60).atStartOfDay(ZoneOffset.UTC).toInstant();
            Instant until = from.plus(Duration.ofDays(200));
            List<Instant> foreseen = Forecast.of(List.of(new Forecast.Strand(1, recipient, letters)), zone, null, from, until).stream().filter(one -> one.against() == null).map(Forecast.Foreseen::at).toList();
            List<Instant> sent = new ArrayList<>();
            Instant before = from;
            for (PlannedLetter next : letters) {
                // A look just at each moment, and one a little before it.
                for (Instant now : List.of(next.at().minusSeconds(30), next.at())) {
                    if (now.isAfter(before) && ReminderDecision.decide(letters, recipient.after(sent.isEmpty() ? null : sent.get(sent.size() - 1)), before, now) instanceof ReminderDecision.Send send) {
                        sent.add(send.letter().at());
                    }
                    before = now.isAfter(before) ? now : before;
                }
            }
            assertThat(foreseen).as("%s %s %s", zone, deadline, plan).isEqualTo(sent);
            assertThat(sent).allSatisfy(at -> assertThat(quiet.at(at.atZone(zone).toLocalTime())).as("%s in %s", at, zone).isFalse());
            for (int i = 1; i < sent.size(); i++) {
                assertThat(Duration.between(sent.get(i - 1), sent.get(i))).isGreaterThanOrEqualTo(recipient.gap());
            }
            went += sent.size();
        }
        assertThat(went).isGreaterThan(4_000);
    }
}
