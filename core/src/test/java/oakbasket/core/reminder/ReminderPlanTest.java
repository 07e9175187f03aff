package oakbasket.core.reminder;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import oakbasket.core.deadline.WorkingDays;
import oakbasket.core.deadline.WorkingDays.Shift;
import oakbasket.core.letter.LetterKind;
import oakbasket.core.reminder.ReminderStep.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ReminderPlanTest {

    private static final ZoneId LONDON = ZoneId.of("Europe/London");
    private static final WorkingDays WEEKDAYS = WorkingDays.MONDAY_TO_FRIDAY;
    /** A Friday. */
    private static final LocalDate DEADLINE = LocalDate.of(2026, 6, 12);

    /** June 2026 begins on a Monday; the deadline is Friday the 12th. Days of the month, times in London. */
    @ParameterizedTest(name = "{0} at {1}, {2}, closed [{3}]: {4}")
    @CsvSource({
        "-3c,  09:00, EARLIER, '',      2026-06-09T09:00, REMINDER",
        "-3w,  09:00, EARLIER, '',      2026-06-09T09:00, REMINDER",
        "-5c,  09:00, EARLIER, '',      2026-06-05T09:00, REMINDER",
        "-5c,  09:00, LATER,   '',      2026-06-08T09:00, REMINDER",
        "-5c,  09:00, KEEP,    '',      2026-06-07T09:00, REMINDER",
        "-5w,  09:00, EARLIER, '',      2026-06-05T09:00, REMINDER",
        "-5w,  09:00, EARLIER, '5 9',   2026-06-03T09:00, REMINDER",
        "0c,   09:00, EARLIER, '',      2026-06-12T09:00, REMINDER",
        "0w,   09:00, EARLIER, '12',    2026-06-11T09:00, REMINDER",
        "1c,   09:00, LATER,   '',      2026-06-15T09:00, OVERDUE",
        "1c,   09:00, EARLIER, '',      2026-06-12T09:00, OVERDUE",
        "1w,   09:00, EARLIER, '',      2026-06-15T09:00, OVERDUE",
        "3w,   09:00, EARLIER, '16',    2026-06-18T09:00, OVERDUE",
        "-1c,  20:00, EARLIER, '',      2026-06-11T20:00, REMINDER",
        "-1c,  07:00, EARLIER, '',      2026-06-11T07:00, REMINDER",
        "-1c,  22:30, EARLIER, '',      2026-06-11T20:00, REMINDER",
        "-1c,  22:30, LATER,   '',      2026-06-12T07:00, REMINDER",
        "-1c,  03:00, EARLIER, '',      2026-06-10T20:00, REMINDER",
        "-1c,  03:00, LATER,   '',      2026-06-11T07:00, REMINDER",
        "0c,   23:00, LATER,   '',      2026-06-15T07:00, REMINDER",
        "-4c,  01:00, EARLIER, '',      2026-06-05T20:00, REMINDER"})
    void aStepFallsOnAWorkingDayOutsideTheQuietHours(String offset, LocalTime at, Shift shift, String closed, LocalDateTime expected, LetterKind kind) {
        Unit unit = offset.endsWith("c") ? Unit.CALENDAR : Unit.WORKING;
        ReminderStep step = new ReminderStep(Integer.parseInt(offset.substring(0, offset.length() - 1)), unit, at);
        Set<LocalDate> days = Arrays.stream(closed.split(" ")).filter(day -> !day.isEmpty()).map(day -> LocalDate.of(2026, 6, Integer.parseInt(day))).collect(Collectors.toSet());
        List<PlannedLetter> letters = new ReminderPlan(List.of(step), null, shift, QuietHours.NIGHT)
                .letters(DEADLINE, LONDON, new WorkingDays(Set.of(DayOfWeek.SATURDAY, DayOfWeek.SUNDAY), days));
        assertThat(letters).containsExactly(new PlannedLetter(kind, expected.atZone(LONDON).toInstant()));
    }

    /** The skipped and the doubled hour of the IANA tz database, as in the checks of deadlines. */
    @Test
    void clockChangesMoveALetterNotLoseIt() {
        ReminderPlan plan = new ReminderPlan(List.of(new ReminderStep(0, Unit.CALENDAR, LocalTime.of(1, 30))), null, Shift.KEEP, new QuietHours(LocalTime.NOON, LocalTime.NOON));
        assertThat(plan.letters(LocalDate.of(2027, 3, 28), LONDON, WEEKDAYS)).extracting(PlannedLetter::at).containsExactly(Instant.parse("2027-03-28T01:30:00Z"));
        assertThat(plan.letters(LocalDate.of(2026, 10, 25), LONDON, WEEKDAYS)).extracting(PlannedLetter::at).containsExactly(Instant.parse("2026-10-25T01:30:00Z"));
    }

    /** What was missed and is found at this moment of June goes at that one. */
    @ParameterizedTest(name = "{0}, {1}: {2}")
    @CsvSource({
        "2026-06-11T10:15, LATER, 2026-06-11T10:15",
        "2026-06-11T20:00, LATER, 2026-06-11T20:00",
        "2026-06-11T23:10, EARLIER, 2026-06-12T07:00",
        "2026-06-12T03:00, LATER, 2026-06-12T07:00",
        "2026-06-12T23:00, LATER, 2026-06-15T07:00",
        "2026-06-13T11:00, EARLIER, 2026-06-15T07:00",
        "2026-06-13T11:00, KEEP,  2026-06-13T11:00",
        "2026-06-13T23:00, KEEP,  2026-06-14T07:00"})
    void nobodyIsWokenByWhatWasMissed(LocalDateTime found, Shift shift, LocalDateTime goes) {
        assertThat(new ReminderPlan(List.of(), null, shift, QuietHours.NIGHT).allowed(found.atZone(LONDON).toInstant(), LONDON, WEEKDAYS)).isEqualTo(goes.atZone(LONDON).toInstant());
    }

    @Test
    void theSameStepReachesEveryoneInTheirOwnMorning() {
        ReminderPlan plan = plan(step(-1));
        assertThat(plan.letters(DEADLINE, ZoneId.of("Asia/Kathmandu"), WEEKDAYS).get(0).at()).isEqualTo(Instant.parse("2026-06-11T03:15:00Z"));
        assertThat(plan.letters(DEADLINE, ZoneId.of("America/New_York"), WEEKDAYS).get(0).at()).isEqualTo(Instant.parse("2026-06-11T13:00:00Z"));
    }

    @Test
    void theLastStepComesAgainSoManyTimes() {
        ReminderPlan plan = new ReminderPlan(List.of(step(1), step(-3)), new ReminderPlan.Repeat(5, 2), Shift.LATER, QuietHours.NIGHT);
        assertThat(plan.letters(DEADLINE, LONDON, WEEKDAYS)).extracting(letter -> letter.kind() + " " + letter.at().atZone(LONDON).toLocalDate()).containsExactly(
                "REMINDER 2026-06-09", "OVERDUE 2026-06-15", "OVERDUE 2026-06-19", "OVERDUE 2026-06-26");
    }

    @Test
    void stepsThatFallTogetherMakeOneLetter() {
        ReminderPlan plan = new ReminderPlan(List.of(step(2), step(3), step(1)), null, Shift.LATER, QuietHours.NIGHT);
        assertThat(plan.letters(DEADLINE, LONDON, WEEKDAYS)).hasSize(1);
    }

    @Test
    void plansWithoutEndAreRefused() {
        assertThatThrownBy(() -> new ReminderPlan.Repeat(1, 21)).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> new ReminderPlan.Repeat(0, 1)).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> new ReminderStep(181, Unit.CALENDAR, LocalTime.NOON)).hasMessageContaining("180");
        assertThatThrownBy(() -> plan(java.util.Collections.nCopies(9, step(1)).toArray(ReminderStep[]::new))).hasMessageContaining("8 steps");
        assertThat(new WorkingDays(Set.of(), LocalDate.of(2026, 1, 1).datesUntil(LocalDate.of(2030, 1, 1)).collect(Collectors.toSet())).plus(DEADLINE, 180)).isBefore(LocalDate.of(2027, 6, 1));
    }

    // --- decisions

    private static final Instant DUE = Instant.parse("2026-06-09T08:00:00Z");

    /** A recipient who owes, with one thing different. */
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource({
        "nothing,      ",
        "closed,       ROUND_NOT_GATHERING",
        "removed,      REMOVED",
        "walk-in,      WALK_IN",
        "waived,       EXCUSED",
        "finished,     COMPLETE",
        "paused,       PAUSED",
        "not asked,    NOT_ASKED",
        "unreachable,  UNREACHABLE",
        "gap 19 h,     TOO_SOON",
        "gap 20 h,     "})
    void onlyWhoStillOwesIsWrittenTo(String different, Recipient.Reason reason) {
        Instant last = different.startsWith("gap") ? DUE.minus(Duration.ofHours(Long.parseLong(different.split(" ")[1]))) : null;
        Recipient recipient = new Recipient(!different.equals("closed"), different.equals("removed"), different.equals("walk-in"), different.equals("waived"),
                different.equals("finished") ? DUE.minusSeconds(1) : null, different.equals("paused"), !different.equals("not asked"), !different.equals("unreachable"), last);
        PlannedLetter letter = new PlannedLetter(LetterKind.REMINDER, DUE);
        assertThat(ReminderDecision.decide(List.of(letter), recipient, DUE.minusSeconds(60), DUE))
                .isEqualTo(reason == null ? new ReminderDecision.Send(letter) : new ReminderDecision.Skip(letter, reason));
    }

    /** By hand people are written to before they are asked and at doubtful addresses, but not against what was agreed or a moment after the last letter. */
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource({"nothing, ", "not asked, ", "unreachable, ", "gap 20 h, ", "paused, PAUSED", "gap 0 h, TOO_SOON", "gap 19 h, TOO_SOON"})
    void byHandSomeAreLeftOutUntilThatIsMeant(String different, Recipient.Reason reason) {
        Instant last = different.startsWith("gap") ? DUE.minus(Duration.ofHours(Long.parseLong(different.split(" ")[1]))) : null;
        Recipient recipient = new Recipient(true, false, false, false, null, different.equals("paused"), !different.equals("not asked"), !different.equals("unreachable"), last);
        assertThat(recipient.againstByHand(DUE)).isEqualTo(Optional.ofNullable(reason));
    }

    /** Letters at 9, 10 and 11 o'clock. */
    @ParameterizedTest(name = "looked at {0}, then at {1}: {2}")
    @CsvSource({
        "08:00, 08:59, ",
        "08:59, 09:00, 9",
        "09:00, 09:01, ",
        "08:00, 10:30, 10",
        "08:00, 23:00, 11",
        "11:00, 23:00, "})
    void afterAStandstillOnlyTheNewestGoes(LocalTime looked, LocalTime now, Integer hour) {
        List<PlannedLetter> letters = List.of(9, 10, 11).stream().map(at -> new PlannedLetter(LetterKind.REMINDER, at(LocalTime.of(at, 0)))).toList();
        ReminderDecision decision = ReminderDecision.decide(letters, owing(null), at(looked), at(now));
        assertThat(decision).isEqualTo(hour == null ? new ReminderDecision.NothingDue() : new ReminderDecision.Send(letters.get(hour - 9)));
    }

    /** Looks at random times over a season, with standstills; what must hold whatever the plan. */
    @Test
    void nobodyGetsALetterTwiceOrAPileOfThem() {
        Random random = new Random(2026);
        int sent = 0;
        for (int n = 0; n < 500; n++) {
            ReminderPlan plan = new ReminderPlan(random.ints(1 + random.nextInt(4), -20, 20).mapToObj(day -> new ReminderStep(day, random.nextBoolean() ? Unit.CALENDAR : Unit.WORKING,
                    LocalTime.of(random.nextInt(24), 0))).toList(), random.nextBoolean() ? null : new ReminderPlan.Repeat(1 + random.nextInt(5), 1 + random.nextInt(4)),
                    Shift.values()[random.nextInt(3)], QuietHours.NIGHT);
            List<PlannedLetter> letters = plan.letters(DEADLINE, LONDON, WEEKDAYS);
            Instant finished = at(LocalTime.NOON).plus(Duration.ofHours(random.nextInt(24 * 30)));
            List<Instant> went = new ArrayList<>();
            Instant before = at(LocalTime.MIDNIGHT).minus(Duration.ofDays(30));
            for (Instant now = before; now.isBefore(at(LocalTime.NOON).plus(Duration.ofDays(60)));) {
                now = now.plus(random.nextInt(20) == 0 ? Duration.ofDays(1 + random.nextInt(9)) : Duration.ofMinutes(30 + random.nextInt(600)));
                Recipient recipient = new Recipient(true, false, false, false, now.isAfter(finished) ? finished : null, false, true, true, went.isEmpty() ? null : went.get(went.size() - 1));
                if (ReminderDecision.decide(letters, recipient, before, now) instanceof ReminderDecision.Send send) {
                    assertThat(send.letter().at()).isAfter(before).isBeforeOrEqualTo(now);
                    assertThat(letters.stream().filter(other -> other.at().isAfter(send.letter().at())).map(PlannedLetter::at)).noneMatch(now::isAfter);
                    assertThat(now).isBeforeOrEqualTo(finished);
                    went.add(now);
                    sent++;
                }
                before = now;
            }
            assertThat(went.size()).isLessThanOrEqualTo(letters.size());
            for (int i = 1; i < went.size(); i++) {
                assertThat(Duration.between(went.get(i - 1), went.get(i))).isGreaterThanOrEqualTo(Recipient.MINIMUM_GAP);
            }
            assertThat(letters).allSatisfy(letter -> assertThat(QuietHours.NIGHT.at(letter.at().atZone(LONDON).toLocalTime())).isFalse());
        }
        assertThat(sent).isGreaterThan(500);
    }

    private static ReminderStep step(int days) {
        return new ReminderStep(days, Unit.CALENDAR, LocalTime.of(9, 0));
    }

    private static ReminderPlan plan(ReminderStep... steps) {
        return new ReminderPlan(List.of(steps), null, Shift.EARLIER, QuietHours.NIGHT);
    }

    private static Instant at(LocalTime time) {
        return DEADLINE.atTime(time).atZone(LONDON).toInstant();
    }

    private static Recipient owing(Instant lastLetter) {
        return new Recipient(true, false, false, false, null, false, true, true, lastLetter);
    }

    /** Quiet hours may lie within a day; at both their ends people are written to. */
    @ParameterizedTest(name = "quiet from {0} to {1}, at {2}: {3}")
    @CsvSource({"12:00, 14:00, 12:00, false", "12:00, 14:00, 12:01, true", "12:00, 14:00, 13:59, true", "12:00, 14:00, 14:00, false", "12:00, 14:00, 09:00, false",
        "20:00, 07:00, 20:00, false", "20:00, 07:00, 20:01, true", "20:00, 07:00, 00:00, true", "20:00, 07:00, 06:59, true", "20:00, 07:00, 07:00, false", "12:00, 12:00, 12:00, false"})
    void quietHoursEndAndBeginExactly(LocalTime from, LocalTime to, LocalTime at, boolean quiet) {
        assertThat(new QuietHours(from, to).at(at)).isEqualTo(quiet);
    }
}
