package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.List;
import java.util.stream.StreamSupport;
import oakbasket.server.post.Postman;
import oakbasket.server.post.ReminderRounds;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** What will go, decided about before it goes. The deadline of test rounds is Tuesday 30 June 2026, 17:00 in London. */
class WhatGoesTest {

    private static final String PLAN = "{\"steps\":[{\"days\":-3,\"unit\":\"WORKING\",\"at\":\"09:00\"},{\"days\":1,\"unit\":\"WORKING\",\"at\":\"10:00\",\"lastCall\":true}]}";
    private static final String REMINDER = "2026-06-25T08:00:00Z";
    private static final String LAST_CALL = "2026-07-01T09:00:00Z";
    private final Http desk = Http.desk();
    private static int tests;
    /** Nobody of another test, whose letters lie in the same outbox. */
    private final String una = "Una Mere " + ++tests;
    private final String vic = "Vic Tarn " + tests;
    private final String wes = "Wes Holm " + tests;
    private TestRound round;

    @BeforeEach
    void open() {
        RunningApp.CLOCK.set(Instant.parse("2026-06-01T09:00:00Z"));
        round = new TestRound().onlyPeople(una, vic, wes).withLetters(PLAN).open();
        List.of(una, vic, wes).forEach(name -> desk.post("/api/baskets/" + basket(name) + "/handed-over", ""));
        RunningApp.bean(ReminderRounds.class).look();
    }

    @AfterEach
    void setTheClockBack() {
        desk.post("/api/rounds/" + round.id + "/close", "");
        RunningApp.CLOCK.set(Instant.parse("2026-06-01T09:00:00Z"));
    }

    @Test
    void everyLetterOfTheNextWeeksIsThereWithWhoIsLeftOutAndWhy() {
        round.personal(una).begin().send(1, "c.pdf", TestRound.pdf("u"));
        round.act("PAUSE", vic, "\"on\":true");
        assertThat(outlook()).containsExactly(REMINDER + " REMINDER goes 1 {\"COMPLETE\":1,\"PAUSED\":1}", LAST_CALL + " LAST_CALL goes 1 {\"COMPLETE\":1,\"PAUSED\":1}");
        JsonNode people = people(REMINDER);
        assertThat(people).hasSize(3);
        assertThat(person(people, wes).path("reason").isNull()).isTrue();
        assertThat(person(people, una).path("since").asString()).as("complete since").startsWith("2026-06-01T09:00");
        assertThat(person(people, vic).path("reason").asString()).isEqualTo("PAUSED");
        assertThat(desk.get("/api/outlook?days=0").status()).isEqualTo(422);
    }

    /** What was decided holds when the time comes, and taken back it does not. */
    @ParameterizedTest(name = "{0}")
    @CsvSource({"SKIP,0", "HOLD,0", "MOVE,1"})
    void oneLetterIsSkippedHeldOrMovedAndTheOthersGo(String act, int went) {
        String to = act.equals("MOVE") ? ",\"to\":\"2026-06-26T11:30:00\"" : "";
        JsonNode decided = change(REMINDER, act, to, una).json();
        assertThat(decided.path("letters").asInt()).isEqualTo(1);
        at("2026-06-25T08:00:10Z");
        assertThat(Outbox.to(una)).isEmpty();
        assertThat(Outbox.to(vic)).hasSize(1);
        at("2026-06-26T10:30:10Z");
        assertThat(Outbox.to(una)).hasSize(went);
        if (act.equals("HOLD")) {
            assertThat(desk.get("/api/outlook").json().path("held")).anyMatch(one -> one.path("roundId").asLong() == round.id && one.path("at").asString().equals(REMINDER));
            assertThat(change(REMINDER, null, "", una).status()).isEqualTo(200);
            at("2026-06-26T10:32:00Z");
            assertThat(Outbox.to(una)).as("let go after its time it goes at once").hasSize(1);
        }
        at("2026-07-01T09:00:10Z");
        assertThat(Outbox.subject(Outbox.to(una).get(Outbox.to(una).size() - 1))).startsWith("Last reminder: ");
    }

    @Test
    void aDecisionIsTakenBackOnceAndNotWhenSomebodyDecidedOtherwiseSince() {
        long skipped = change(REMINDER, "SKIP", "").json().path("batch").asLong();
        assertThat(outlook().get(0)).contains("goes 0 {\"SKIPPED\":3}");
        assertThat(undo(skipped).status()).isEqualTo(204);
        assertThat(outlook().get(0)).contains("goes 3 {}");
        assertThat(undo(skipped).problem()).isEqualTo("undone-already");
        long moved = change(REMINDER, "MOVE", ",\"to\":\"2026-06-22T23:30:00\"").json().path("batch").asLong();
        assertThat(outlook().get(0)).as("the night is quiet: the next morning").startsWith("2026-06-23T06:00:00Z REMINDER goes 3");
        change("2026-06-23T06:00:00Z", "HOLD", "", vic);
        assertThat(undo(moved).problem()).isEqualTo("undone-already");
        at("2026-06-23T06:00:10Z");
        assertThat(Outbox.to(una)).hasSize(1);
        at("2026-06-25T08:00:10Z");
        assertThat(Outbox.to(una)).as("moved earlier it does not go again at its own time").hasSize(1);
        assertThat(Outbox.to(vic)).isEmpty();
    }

    @ParameterizedTest(name = "{0} {1}: {2}")
    @CsvSource({"MOVE,'',422", "MOVE,',\"to\":\"2026-05-01T10:00:00\"',422", "MOVE,',\"to\":\"2030-01-01T10:00:00\"',422", "MOVE,',\"to\":\"yesterday\"',400", "DANCE,'',400"})
    void aMoveIsChecked(String act, String more, int status) {
        assertThat(change(REMINDER, act, more).status()).isEqualTo(status);
        assertThat(outlook().get(0)).startsWith(REMINDER + " REMINDER goes 3");
    }

    @Test
    void nothingIsDecidedAboutALetterThatIsNotPlannedOrARoundThatDoesNotGather() {
        assertThat(change("2026-06-25T08:00:01Z", "SKIP", "").problem()).isEqualTo("letter-gone");
        assertThat(desk.post("/api/outlook/changes", "{\"roundId\":" + round.id + ",\"at\":\"" + REMINDER + "\",\"baskets\":[],\"act\":\"SKIP\"}").status()).isEqualTo(400);
        desk.post("/api/rounds/" + round.id + "/close", "");
        assertThat(change(REMINDER, "SKIP", "").problem()).isEqualTo("plan-not-gathering");
        desk.post("/api/rounds/" + round.id + "/reopen", "");
    }

    /** The gap of the office counts letters of all rounds together, and its quiet hours and those of a person move letters. */
    @Test
    void theOfficesGapAndQuietHoursAndThoseOfAPersonHold() {
        JsonNode before = desk.get("/api/letter-settings").json();
        try {
            assertThat(settings("\"gapHours\":240").status()).isEqualTo(200);
            assertThat(outlook().get(1)).as("six days after the reminder").isEqualTo(LAST_CALL + " LAST_CALL goes 0 {\"TOO_SOON\":3}");
            assertThat(person(people(LAST_CALL), una).path("since").asString()).isEqualTo(REMINDER);
            assertThat(settings("\"gapHours\":20,\"quietFrom\":\"16:00\",\"quietTo\":\"12:00\"").status()).isEqualTo(200);
            assertThat(outlook().get(0)).as("the plan moves to the day before").startsWith("2026-06-24T15:00:00Z REMINDER goes 3");
            assertThat(settings("\"quietFrom\":\"20:00\",\"quietTo\":\"07:00\"").status()).isEqualTo(200);
            long contact = round.row(wes).path("contactId").asLong();
            assertThat(desk.put("/api/contacts/" + contact + "/quiet-hours", "{\"quietFrom\":\"08:00\",\"quietTo\":\"12:00\"}").status()).isEqualTo(200);
            assertThat(person(people("2026-06-25T07:00:00Z"), wes).path("name").asString()).isEqualTo(wes);
            assertThat(desk.put("/api/contacts/" + contact + "/quiet-hours", "{\"quietFrom\":\"8\",\"quietTo\":\"\"}").json().path("errors")).hasSize(2);
            assertThat(desk.put("/api/contacts/" + contact + "/quiet-hours", "{\"quietFrom\":\"\",\"quietTo\":\"\"}").json().path("quietFrom").asString()).isEmpty();
            assertThat(settings("\"gapHours\":721,\"perMinute\":-1,\"quietFrom\":\"25:00\"").json().path("errors")).hasSize(3);
        } finally {
            desk.put("/api/letter-settings", ((tools.jackson.databind.node.ObjectNode) before).put("version", desk.get("/api/letter-settings").json().path("version").asInt()).toString());
        }
    }

    @Test
    void aPlanIsRunDryOverTheWholeRoundBeforeItIsOpened() {
        TestRound draft = new TestRound().onlyPeople("Xia Beck", "Yan Lode").withLetters("{\"invite\":true,\"steps\":[{\"days\":-3,\"unit\":\"WORKING\",\"at\":\"09:00\"},{\"days\":-40,\"unit\":\"CALENDAR\",\"at\":\"09:00\"}],\"repeatTimes\":2,\"repeatEvery\":5}");
        draft.begin();
        JsonNode run = desk.get("/api/rounds/" + draft.id + "/dry-run").json();
        assertThat(run.path("people").asInt()).isEqualTo(2);
        assertThat(run.path("letters").asInt()).as("invitation, reminder, two more").isEqualTo(8);
        assertThat(run.path("mostToOne").asInt()).isEqualTo(4);
        assertThat(run.path("late").asInt()).as("forty days before is past").isEqualTo(1);
        assertThat(StreamSupport.stream(run.path("days").spliterator(), false).map(day -> day.path("date").asString() + " " + day.path("kind").asString() + " " + day.path("goes").asInt()))
                .containsExactly("2026-06-01 INVITATION 2", "2026-06-25 REMINDER 2", "2026-07-02 OVERDUE 2", "2026-07-09 OVERDUE 2");
        assertThat(desk.get("/api/rounds/" + round.id + "/dry-run").status()).isEqualTo(409);
    }

    @Test
    void plansAreKeptByNameUsedAgainAndThrownAway() {
        String plan = "{\"name\":\" Weekly \",\"plan\":" + PLAN + "}";
        JsonNode kept = desk.post("/api/kept-plans", plan).json();
        assertThat(kept.path("name").asString()).isEqualTo("Weekly");
        assertThat(desk.post("/api/kept-plans", plan.replace("09:00", "08:00")).json().path("id")).as("the same name is replaced").isEqualTo(kept.path("id"));
        assertThat(desk.get("/api/kept-plans").json().get(0).path("plan").path("steps").get(1).path("lastCall").asBoolean()).isTrue();
        assertThat(desk.post("/api/kept-plans", plan.replace("09:00", "03:00")).json().path("errors").get(0).path("field").asString()).isEqualTo("letters.steps[0].at");
        assertThat(desk.post("/api/kept-plans", "{\"name\":\" \"}").json().path("errors").get(0).path("field").asString()).isEqualTo("name");
        assertThat(desk.send("DELETE", "/api/kept-plans/" + kept.path("id"), null).status()).isEqualTo(204);
        assertThat(desk.send("DELETE", "/api/kept-plans/" + kept.path("id"), null).problem()).isEqualTo("no-kept-plan");
    }

    // --- helpers

    private void at(String instant) {
        RunningApp.CLOCK.set(Instant.parse(instant));
        RunningApp.bean(ReminderRounds.class).look();
        RunningApp.bean(Postman.class).deliver();
    }

    private long basket(String name) {
        return round.row(name).path("id").asLong();
    }

    private List<String> outlook() {
        return StreamSupport.stream(desk.get("/api/outlook?days=60&round=" + round.id).json().path("days").spliterator(), false).flatMap(day -> StreamSupport.stream(day.path("letters").spliterator(), false))
                .map(one -> one.path("at").asString() + " " + one.path("kind").asString() + " goes " + one.path("goes").asInt() + " " + one.path("leftOut")).toList();
    }

    private JsonNode people(String at) {
        return desk.get("/api/outlook/people?round=" + round.id + "&at=" + at).json().path("people");
    }

    private static JsonNode person(JsonNode people, String name) {
        return StreamSupport.stream(people.spliterator(), false).filter(one -> one.path("name").asString().equals(name)).findFirst().orElseThrow();
    }

    private Http.Answer change(String at, String act, String more, String... names) {
        String baskets = names.length == 0 ? "null" : "[" + basket(names[0]) + "]";
        return desk.post("/api/outlook/changes", "{\"roundId\":" + round.id + ",\"at\":\"" + at + "\",\"baskets\":" + baskets + ",\"act\":" + (act == null ? "null" : "\"" + act + "\"") + more + "}");
    }

    private Http.Answer undo(long batch) {
        return desk.post("/api/outlook/changes/" + batch + "/undo", "");
    }

    private Http.Answer settings(String more) {
        JsonNode now = desk.get("/api/letter-settings").json();
        return desk.put("/api/letter-settings", "{\"signature\":\"\",\"replyTo\":\"\",\"calendar\":false,\"version\":" + now.path("version") + "," + more + "}");
    }
}
