package oakbasket.bench;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import oakbasket.core.deadline.WorkingDays;
import oakbasket.core.reminder.Forecast;
import oakbasket.core.reminder.PlannedLetter;
import oakbasket.core.reminder.QuietHours;
import oakbasket.core.reminder.Recipient;
import oakbasket.core.reminder.ReminderPlan;
import oakbasket.core.reminder.ReminderStep;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/** What will go of six steps for 100,000 baskets of 60,000 people in six zones, with 20 different deadlines: plans worked out and looked ahead over a year. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(1)
@Warmup(iterations = 4, time = 2)
@Measurement(iterations = 6, time = 2)
public class WhatWillGo {

    private static final int BASKETS = 100_000;
    private static final int PEOPLE = 60_000;
    private static final int DEADLINES = 20;
    private static final Instant NOW = Instant.parse("2026-06-01T08:00:00Z");
    private static final List<ZoneId> ZONES = List.of("Europe/London", "Europe/Warsaw", "Africa/Cairo", "America/New_York", "Asia/Tokyo", "Australia/Lord_Howe").stream().map(ZoneId::of).toList();

    private record Basket(int person, LocalDate deadline, Recipient recipient) {
    }

    private final List<Basket> baskets = new ArrayList<>();
    private final ReminderPlan plan = new ReminderPlan(List.of(-30, -14, -7, -1, 1, 10).stream().map(days -> new ReminderStep(days, ReminderStep.Unit.WORKING, LocalTime.of(9, 0))).toList(), null,
            WorkingDays.Shift.EARLIER, QuietHours.NIGHT);

    @Setup
    public void people() {
        Random random = new Random(1);
        for (int b = 0; b < BASKETS; b++) {
            boolean finished = random.nextInt(3) == 0;
            Recipient recipient = new Recipient(true, false, false, false, finished ? NOW : null, random.nextInt(20) == 0, true, random.nextInt(50) != 0, null);
            baskets.add(new Basket(b % PEOPLE, LocalDate.of(2026, 7, 1).plusDays(random.nextInt(DEADLINES) * 5L), recipient));
        }
    }

    @Benchmark
    public int lettersOfAllPeople() {
        Map<String, List<PlannedLetter>> known = new HashMap<>();
        Map<Integer, List<Forecast.Strand>> people = new HashMap<>(PEOPLE * 2);
        for (int b = 0; b < BASKETS; b++) {
            Basket basket = baskets.get(b);
            ZoneId zone = ZONES.get(basket.person() % ZONES.size());
            List<PlannedLetter> letters = known.computeIfAbsent(basket.deadline() + zone.getId(), any -> plan.letters(basket.deadline(), zone, WorkingDays.MONDAY_TO_FRIDAY));
            people.computeIfAbsent(basket.person(), any -> new ArrayList<>(2)).add(new Forecast.Strand(b, basket.recipient(), letters));
        }
        int letters = 0;
        Instant until = NOW.plus(Duration.ofDays(365));
        for (Map.Entry<Integer, List<Forecast.Strand>> person : people.entrySet()) {
            letters += Forecast.of(person.getValue(), ZONES.get(person.getKey() % ZONES.size()), null, NOW, until).size();
        }
        return letters;
    }
}
