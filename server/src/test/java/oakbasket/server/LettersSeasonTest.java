package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import oakbasket.server.post.Postman;
import oakbasket.server.post.ReminderRounds;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/**
 * Six weeks of three rounds that ask the same people, hour by hour, with papers, extensions, pauses and excuses coming at random. What goes is held against a plain
 * reading of the plan, counted on fingers: seven days before the deadline, the working day before it, the working day after it.
 */
class LettersSeasonTest {

    private static final ZoneId LONDON = ZoneId.of("Europe/London");
    private static final String PLAN = "{\"shift\":\"EARLIER\",\"steps\":[{\"days\":-7,\"unit\":\"CALENDAR\",\"at\":\"09:00\"},{\"days\":-1,\"unit\":\"WORKING\",\"at\":\"10:30\"},"
            + "{\"days\":1,\"unit\":\"WORKING\",\"at\":\"09:00\"}]}";
    private static final List<String> PEOPLE = List.of("Ann Season", "Bob Season", "Cat Season", "Dan Season", "Eve Season", "Fay Season");

    private final Random random = new Random(7);
    private final List<TestRound> rounds = new ArrayList<>();
    private final Map<String, Instant> lastLetter = new HashMap<>();
    private final Set<Long> seen = new HashSet<>();
    /** Whose letter fell due at night and waits for the morning. */
    private final Set<String> waiting = new HashSet<>();
    private int letters;
    private int joint;

    @AfterEach
    void setTheClockBack() {
        RunningApp.CLOCK.set(Instant.parse("2026-06-01T09:00:00Z"));
    }

    @Test
    void whatGoesIsWhatThePlanSaysAndNothingElse() {
        Instant now = Instant.parse("2026-06-01T09:00:00Z");
        RunningApp.CLOCK.set(now);
        for (String deadline : List.of("2026-06-19", "2026-06-22", "2026-06-22")) {
            TestRound round = new TestRound().item("Map", true, 1, 9, 1, "PDF").withLetters(PLAN);
            round.sheet.put("deadlineDate", deadline);
            round.sheet.putArray("people");
            PEOPLE.forEach(name -> round.person(name, name.toLowerCase().replace(' ', '.') + "@example.org"));
            round.open().board().path("rows").forEach(row -> round.desk.post("/api/baskets/" + row.path("id").asLong() + "/handed-over", ""));
            rounds.add(round);
        }
        RunningApp.bean(ReminderRounds.class).look();
        while (now.isBefore(Instant.parse("2026-07-10T00:00:00Z"))) {
            Instant before = now;
            now = now.plus(Duration.ofMinutes(random.nextInt(30) == 0 ? 60 * 40 : 60));
            RunningApp.CLOCK.set(now);
            if (random.nextInt(3) == 0) {
                somethingHappens();
            }
            check(before, now);
        }
        assertThat(letters).isGreaterThan(20);
        assertThat(joint).as("letters about several rounds").isGreaterThan(0);
    }

    private void somethingHappens() {
        TestRound round = rounds.get(random.nextInt(rounds.size()));
        String name = PEOPLE.get(random.nextInt(PEOPLE.size()));
        switch (random.nextInt(9)) {
            case 0 -> round.act("PAUSE", name, "\"on\":" + random.nextBoolean());
            case 1 -> round.act("EXTEND", name, "\"date\":\"" + LocalDate.ofInstant(RunningApp.CLOCK.instant(), LONDON).plusDays(random.nextInt(12)) + "\",\"reason\":\"asked for it\"");
            case 2 -> round.act("EXCUSE", name, "\"on\":" + (random.nextInt(3) == 0));
            case 3 -> round.personal(name).begin().send(1 + random.nextInt(2), "p.pdf", TestRound.pdf(name + random.nextInt()));
            default -> {
            }
        }
    }

    private void check(Instant before, Instant now) {
        Map<Long, JsonNode> rows = new HashMap<>();
        rounds.forEach(round -> round.board().path("rows").forEach(row -> rows.put(row.path("id").asLong(), row)));
        RunningApp.bean(ReminderRounds.class).look();
        RunningApp.bean(Postman.class).deliver();
        Map<String, Set<Long>> told = new HashMap<>();
        boolean awake = awake(now);
        for (JsonNode letter : Http.desk().get("/api/letters?find=season").json().path("letters")) {
            if (!letter.path("state").asString().equals("SENT") || !seen.add(letter.path("id").asLong())) {
                continue;
            }
            String name = letter.path("name").asString();
            Set<Long> about = new HashSet<>();
            letter.path("about").forEach(one -> about.add(one.path("basketId").asLong()));
            assertThat(awake).as("%s is written to at %s", name, now).isTrue();
            assertThat(told.put(name, about)).as("two letters at once to " + name).isNull();
            assertThat(lastLetter.getOrDefault(name, Instant.EPOCH).plus(Duration.ofHours(20))).as("the gap of " + name).isBeforeOrEqualTo(now);
            assertThat(about).allSatisfy(basket -> assertThat(owes(rows.get(basket))).as("%s owes nothing at %s: %s", name, now, rows.get(basket)).isTrue());
            letters++;
            joint += about.size() > 1 ? 1 : 0;
        }
        for (JsonNode row : rows.values()) {
            String name = row.path("name").asString();
            boolean gap = lastLetter.getOrDefault(name, Instant.EPOCH).plus(Duration.ofHours(20)).isAfter(now);
            boolean due = owes(row) && !gap && planned(row).stream().anyMatch(at -> at.isAfter(before) && !at.isAfter(now));
            if (due && awake) {
                assertThat(told.getOrDefault(name, Set.of())).as("%s is due a letter at %s, deadline %s", name, now, row.path("deadline")).contains(row.path("id").asLong());
            } else if (due) {
                waiting.add(name);
            }
        }
        told.forEach((name, about) -> {
            lastLetter.put(name, now);
            assertThat(waiting.remove(name) || about.stream().anyMatch(basket -> planned(rows.get(basket)).stream().anyMatch(at -> at.isAfter(before) && !at.isAfter(now))))
                    .as("something was due to %s at %s", name, now).isTrue();
        });
    }

    private static boolean owes(JsonNode row) {
        return row.path("finishedAt").isNull() && !row.path("paused").asBoolean() && !row.path("waived").asBoolean();
    }

    private static boolean awake(Instant now) {
        ZonedDateTime local = now.atZone(LONDON);
        return working(local.toLocalDate()) && !local.toLocalTime().isBefore(LocalTime.of(7, 0)) && !local.toLocalTime().isAfter(LocalTime.of(20, 0));
    }

    private static List<Instant> planned(JsonNode row) {
        LocalDate deadline = LocalDate.ofInstant(Instant.parse(row.path("deadline").asString()), LONDON);
        LocalDate week = deadline.minusDays(7);
        while (!working(week)) {
            week = week.minusDays(1);
        }
        LocalDate before = deadline.minusDays(1);
        while (!working(before)) {
            before = before.minusDays(1);
        }
        LocalDate after = deadline.plusDays(1);
        while (!working(after)) {
            after = after.plusDays(1);
        }
        return List.of(week.atTime(9, 0).atZone(LONDON).toInstant(), before.atTime(10, 30).atZone(LONDON).toInstant(), after.atTime(9, 0).atZone(LONDON).toInstant());
    }

    private static boolean working(LocalDate date) {
        return date.getDayOfWeek() != DayOfWeek.SATURDAY && date.getDayOfWeek() != DayOfWeek.SUNDAY;
    }
}
