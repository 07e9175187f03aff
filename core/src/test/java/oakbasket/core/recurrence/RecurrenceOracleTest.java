package oakbasket.core.recurrence;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

/**
 * Recurrence rules made at random, against a plain reading of RFC 5545 §3.3.10 that looks at every day of some years in turn: whether its month is one of the rule's months, and
 * whether it is among the days that the rule picks within its week or month.
 */
class RecurrenceOracleTest {

    private static final LocalDate START = LocalDate.of(2026, 1, 1);
    private static final int RULES = 400;
    private static final int DATES = 25;

    @Test
    void monthlyRulesFallOnTheDaysAPlainReadingGives() {
        Random random = new Random(2026);
        for (int i = 0; i < RULES; i++) {
            int interval = 1 + random.nextInt(3);
            boolean byDay = random.nextBoolean();
            List<DayOfWeek> days = pick(random);
            int nth = random.nextInt(4) == 0 ? -1 : 1 + random.nextInt(3);
            int monthDay = random.nextInt(3) == 0 ? -1 - random.nextInt(5) : 1 + random.nextInt(28);
            String rule = "FREQ=MONTHLY;INTERVAL=" + interval + ";" + (byDay ? "BYDAY=" + names(days) + ";BYSETPOS=" + nth : "BYMONTHDAY=" + monthDay);
            List<LocalDate> expected = new ArrayList<>();
            for (LocalDate month = START; expected.size() < DATES; month = month.plusMonths(interval)) {
                List<LocalDate> all = month.datesUntil(month.plusMonths(1)).toList();
                List<LocalDate> fitting = byDay ? all.stream().filter(day -> days.contains(day.getDayOfWeek())).toList() : all;
                int place = byDay ? nth : monthDay;
                int index = place > 0 ? place - 1 : fitting.size() + place;
                if (index >= 0 && index < fitting.size()) {
                    expected.add(fitting.get(index));
                }
            }
            assertThat(new Recurrence(rule).dates(START, null, DATES)).as(rule).isEqualTo(expected);
        }
    }

    @Test
    void weeklyRulesFallOnTheDaysAPlainReadingGives() {
        Random random = new Random(7);
        for (int i = 0; i < RULES; i++) {
            int interval = 1 + random.nextInt(4);
            List<DayOfWeek> days = pick(random);
            LocalDate start = START.plusDays(random.nextInt(60));
            LocalDate firstMonday = start.minusDays(start.getDayOfWeek().getValue() - 1L);
            List<LocalDate> expected = new ArrayList<>();
            for (LocalDate day = start; expected.size() < DATES; day = day.plusDays(1)) {
                long week = ChronoUnit.WEEKS.between(firstMonday, day);
                if (week % interval == 0 && days.contains(day.getDayOfWeek())) {
                    expected.add(day);
                }
            }
            String rule = "FREQ=WEEKLY;INTERVAL=" + interval + ";BYDAY=" + names(days);
            assertThat(new Recurrence(rule).dates(start, null, DATES)).as(rule + " from " + start).isEqualTo(expected);
        }
    }

    /** Asked in small pieces, each after the last date of the one before, a rule gives the same dates as asked at once. */
    @Test
    void datesAreTheSameInPiecesAndAtOnce() {
        for (String rule : List.of("FREQ=DAILY;INTERVAL=3", "FREQ=WEEKLY;INTERVAL=2;BYDAY=MO,FR", "FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1", "FREQ=YEARLY;BYMONTH=3,9;BYDAY=1MO",
                "FREQ=MONTHLY;BYMONTHDAY=31;COUNT=20")) {
            Recurrence recurrence = new Recurrence(rule);
            List<LocalDate> pieces = new ArrayList<>();
            LocalDate last = null;
            for (List<LocalDate> piece = recurrence.dates(START, last, 3); !piece.isEmpty() && pieces.size() < 21; piece = recurrence.dates(START, last, 3)) {
                pieces.addAll(piece);
                last = piece.get(piece.size() - 1);
            }
            assertThat(pieces).as(rule).isEqualTo(recurrence.dates(START, null, pieces.size()));
            assertThat(new TreeSet<>(pieces)).as("in order, each once").containsExactlyElementsOf(pieces);
        }
    }

    private static List<DayOfWeek> pick(Random random) {
        List<DayOfWeek> all = new ArrayList<>(List.of(DayOfWeek.values()));
        Collections.shuffle(all, random);
        return all.subList(0, 1 + random.nextInt(5)).stream().sorted().toList();
    }

    private static String names(List<DayOfWeek> days) {
        return days.stream().map(day -> day.name().substring(0, 2)).collect(Collectors.joining(","));
    }
}
