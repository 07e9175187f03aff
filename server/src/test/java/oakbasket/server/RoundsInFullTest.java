package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** Items for some groups, blank forms, three clocks, changes of a gathering round, templates, copies, series. */
class RoundsInFullTest {

    private final Http desk = Http.desk();

    @AfterEach
    void setTheClockBack() {
        RunningApp.CLOCK.set(Instant.parse("2026-06-01T09:00:00Z"));
    }

    @Test
    void anItemIsOwedByItsGroupsAloneAsTheyWereWhenTheRoundOpened() {
        TestRound round = new TestRound();
        contact("Heath Marsh", "heath@example.org", "Tenants");
        contact("Sorrel Pike", "sorrel@example.org", "Owners");
        ((ObjectNode) round.item("Tenancy", true, 1, 1, 1, "PDF").sheet.withArray("items").get(1)).putArray("groups").add("Tenants");
        round.sheet.putArray("people");
        round.sheet.putArray("groups").add("Tenants").add("Owners");
        round.open();
        assertThat(round.standing("Heath Marsh", 1)).isEqualTo("WANTED");
        assertThat(round.standing("Sorrel Pike", 1)).isEqualTo("NOT_OWED");
        assertThat(round.personal("Sorrel Pike").page().json().path("items")).hasSize(1);
        round.personal("Sorrel Pike").begin().send(1, "a.pdf", TestRound.pdf("x"));
        assertThat(round.row("Sorrel Pike").path("progress").asString()).isEqualTo("COMPLETE");
        contact("Sorrel Pike", "sorrel@example.org", "Tenants");
        assertThat(round.standing("Sorrel Pike", 1)).as("what was asked does not change behind anybody's back").isEqualTo("NOT_OWED");
    }

    /** Somebody named in the sheet and in a group counts once, and saying so makes nobody. */
    @Test
    void whatOpeningWillDoIsSaidBeforeAndDoesNothing() {
        contact("Mab Alder", "mab.alder@example.org", "Opening walkers");
        contact("Tam Alder", "tam.alder@example.org", "Opening walkers");
        TestRound round = new TestRound();
        round.sheet.putArray("people");
        round.person("Mab Alder", "MAB.Alder@example.org").person("Nobody Knows", "nobody.knows." + System.nanoTime() + "@example.org");
        round.sheet.putArray("groups").add("Opening walkers");
        round.withLetters("{\"invite\":true,\"tellReturned\":true,\"steps\":[{\"days\":-1,\"unit\":\"WORKING\",\"at\":\"09:00\"}],\"repeatEvery\":5,\"repeatTimes\":0,\"shift\":\"EARLIER\"}");
        round.withOpenLink("").begin();
        int contacts = desk.get("/api/contacts").json().path("total").asInt();
        JsonNode told = desk.get("/api/rounds/" + round.id + "/opening").json();
        assertThat(told.path("people").asInt()).isEqualTo(3);
        assertThat(told.path("letters").asInt()).isEqualTo(3);
        assertThat(told.path("reminders").asInt()).isEqualTo(1);
        assertThat(told.path("openLink").asBoolean()).isTrue();
        assertThat(desk.get("/api/contacts").json().path("total").asInt()).isEqualTo(contacts);
        assertThat(desk.get("/api/rounds/" + round.id + "/board").status()).as("still a draft").isEqualTo(404);
        round.sheet.put("title", "");
        round.begin();
        assertThat(desk.get("/api/rounds/" + round.id + "/opening").problem()).isEqualTo("fields");
        assertThat(desk.get("/api/rounds/" + new TestRound().open().id + "/opening").status()).as("open already").isEqualTo(409);
    }

    @Test
    void aBlankFormIsTakenAlongThroughTheLinkAlone() {
        Http.Answer kept = desk.send("POST", "/api/forms?name=../../consent%20form.pdf", TestRound.pdf("blank"));
        assertThat(kept.json().path("name").asString()).doesNotContain("/");
        TestRound round = new TestRound();
        ((ObjectNode) round.sheet.withArray("items").get(0)).put("formId", kept.json().path("id").asLong());
        round.open();
        TestRound.Sender ada = round.personal("Ada Brook");
        assertThat(ada.page().json().path("items").get(0).path("form").asString()).isEqualTo(kept.json().path("name").asString());
        Http.Answer form = ada.http.get("/api/basket/forms/1", "Oak-Link", ada.token);
        assertThat(form.response().body()).isEqualTo(TestRound.pdf("blank"));
        assertThat(form.header("Content-Disposition")).startsWith("attachment");
        assertThat(new Http().get("/api/basket/forms/1", "Oak-Link", "guessed").problem()).isEqualTo("link-unknown");
        assertThat(ada.http.get("/api/basket/forms/2", "Oak-Link", ada.token).problem()).isEqualTo("no-form");
        assertThat(desk.send("POST", "/api/forms?name=x.pdf", new byte[0]).problem()).isEqualTo("form-empty");
        assertThat(desk.send("POST", "/api/forms?name=run.exe", "MZ".getBytes()).problem()).isEqualTo("kind-program");
    }

    @ParameterizedTest(name = "links shut {0}, kept until {1}: {2}")
    @CsvSource({"2026-06-29, '', closingDate", "2026-07-05, 2026-07-05, keepUntil", "someday, '', closingDate", "'', someday, keepUntil", "2026-07-05, 2026-08-01, -"})
    void theThreeClocksAreKeptApart(String closing, String keep, String field) {
        TestRound round = new TestRound();
        round.sheet.put("closingDate", closing).put("closingTime", "18:00").put("keepUntil", keep);
        Http.Answer opened = round.tryOpen();
        if (!field.equals("-")) {
            assertThat(opened.at(field)).isNotEmpty();
            return;
        }
        RunningApp.CLOCK.set(Instant.parse("2026-07-05T16:59:00Z"));
        TestRound.Sender ada = round.personal("Ada Brook").begin();
        assertThat(ada.send(1, "late.pdf", TestRound.pdf("x")).status()).as("late, but the links are open").isEqualTo(201);
        RunningApp.CLOCK.set(Instant.parse("2026-07-05T17:00:01Z"));
        assertThat(ada.page().problem()).isEqualTo("link-closed");
        assertThat(round.row("Ada Brook").path("timeliness").asString()).isEqualTo("LATE");
        RunningApp.CLOCK.set(Instant.parse("2026-08-02T12:00:00Z"));
        assertThat(desk.get("/api/today").json().path("needsYou").toString()).contains("retention").contains(round.title());
    }

    @Test
    void aChangeOfAGatheringRoundIsToldFirstAndThenApplied() {
        TestRound round = new TestRound().item("Photos", false, 1, 5, 1, "PDF").open();
        TestRound.Sender ada = round.personal("Ada Brook").begin();
        ada.send(1, "a.pdf", TestRound.pdf("x"));
        JsonNode changing = desk.get("/api/rounds/" + round.id + "/change").json();
        ObjectNode sheet = (ObjectNode) changing.path("sheet");
        ((ObjectNode) sheet.withArray("items").get(1)).put("required", true);
        sheet.put("deadlineDate", "2026-07-03");
        Http.Answer preview = change(round, changing, sheet, "/preview");
        assertThat(preview.json().path("kinds").toString()).contains("\"BECOMES_INCOMPLETE\":1").contains("\"DEADLINE_LATER\":2");
        assertThat(preview.json().path("affected").get(0).path("name").asString()).isEqualTo("Ada Brook");
        assertThat(round.row("Ada Brook").path("progress").asString()).as("only told").isEqualTo("COMPLETE");
        assertThat(change(round, changing, sheet, "").status()).isEqualTo(204);
        assertThat(round.row("Ada Brook").path("progress").asString()).isEqualTo("PART");
        assertThat(round.board().path("deadline").asString()).isEqualTo("2026-07-03T16:00:00Z");
        assertThat(change(round, changing, sheet, "").problem()).as("from an older version").isEqualTo("changed-elsewhere");

        JsonNode second = desk.get("/api/rounds/" + round.id + "/change").json();
        ObjectNode fewer = (ObjectNode) second.path("sheet");
        JsonNode consent = fewer.withArray("items").remove(0);
        assertThat(change(round, second, fewer, "/preview").at("items")).contains("1 file came for it");
        fewer.withArray("items").insert(0, consent);
        fewer.withArray("items").remove(1);
        fewer.withArray("items").insert(0, Http.JSON.createObjectNode().put("title", "Map").put("required", false));
        assertThat(change(round, second, fewer, "").status()).isEqualTo(204);
        assertThat(round.board().path("items").get(0).path("title").asString()).isEqualTo("Map");
        assertThat(round.row("Ada Brook").path("progress").asString()).isEqualTo("COMPLETE");
        assertThat(ada.send(1, "b.pdf", TestRound.pdf("y")).status()).as("an item keeps its number for whoever has the page open").isEqualTo(201);
        assertThat(round.row("Ada Brook").path("files").asInt()).isEqualTo(2);
        assertThat(change(round, second, (ObjectNode) fewer.deepCopy().put("title", " "), "/preview").at("title")).isNotEmpty();
    }

    @Test
    void templatesAndCopiesCarryEverythingButDatesAndPasscode() {
        TestRound round = new TestRound().withOpenLink("kingfisher").open();
        round.desk.post("/api/rounds/" + round.id + "/people", "{\"people\":[{\"name\":\"Lin Late\",\"email\":\"lin.late@example.org\"}],\"groups\":[]}");
        round.act("REMOVE", "Ben Reed", "\"on\":true");
        JsonNode copy = desk.post("/api/rounds/" + round.id + "/copy", "").json().path("sheet");
        assertThat(copy.path("title").asString()).isEqualTo(round.title());
        assertThat(copy.path("deadlineDate").asString() + copy.path("passcode").asString()).isEmpty();
        assertThat(copy.path("people").toString()).as("the people as they are now").contains("Ada Brook", "Lin Late").doesNotContain("Ben Reed");

        String name = "Kept " + round.title();
        String keep = "{\"kind\":\"CHECKLIST\",\"name\":\"" + name + "\",\"sheet\":" + round.sheet + "}";
        JsonNode kept = desk.post("/api/templates", keep).json();
        assertThat(kept.path("sheet").path("items").get(0).path("title").asString()).isEqualTo("Consent");
        assertThat(kept.path("sheet").path("people")).isEmpty();
        assertThat(desk.post("/api/templates", keep).problem()).isEqualTo("template-name-taken");
        assertThat(desk.post("/api/templates", keep.replace("{\"kind\"", "{\"replace\":true,\"kind\"")).status()).isEqualTo(201);
        assertThat(desk.send("DELETE", "/api/templates/" + kept.path("id"), null).status()).isEqualTo(204);
        assertThat(desk.send("DELETE", "/api/templates/" + kept.path("id"), null).problem()).isEqualTo("no-template");
    }

    @Test
    void aSeriesMakesEachRoundWithItsDatesAndTheGroupAsItIsThen() {
        contact("June Fly", "june.fly@example.org", "Monthly surveyors");
        TestRound round = new TestRound();
        round.sheet.put("title", "Sheets of " + round.title()).put("deadlineTime", "").putArray("people");
        round.sheet.putArray("groups").add("Monthly surveyors");
        round.begin();
        String terms = "{\"rule\":\"FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1\",\"startsOn\":\"2026-06-01\",\"opensDaysBefore\":10,\"shift\":\"EARLIER\",\"opensItself\":true}";
        assertThat(desk.post("/api/series/preview", "{\"terms\":" + terms + "}").json().path("words").asString()).isEqualTo("the last working day of each month");
        JsonNode series = desk.post("/api/series", "{\"roundId\":" + round.id + ",\"terms\":" + terms + "}").json();
        assertThat(series.path("coming").get(0).path("deadline").asString()).isEqualTo("2026-06-30");
        assertThat(made(round)).as("its day has not come").isEmpty();

        RunningApp.CLOCK.set(Instant.parse("2026-06-20T08:00:00Z"));
        long june = Waiting.until(() -> made(round), list -> list.size() == 1).get(0).path("id").asLong();
        JsonNode board = Waiting.until(() -> desk.get("/api/rounds/" + june + "/board").json(), one -> one.path("state").asString("").equals("GATHERING"));
        assertThat(board.path("title").asString()).isEqualTo("Sheets of " + round.title().replace("Sheets of ", "") + ", June 2026");
        assertThat(board.path("deadline").asString()).startsWith("2026-06-30T22:59:59");
        assertThat(board.path("rows")).hasSize(1);

        contact("July Fly", "july.fly@example.org", "Monthly surveyors");
        RunningApp.CLOCK.set(Instant.parse("2026-07-22T08:00:00Z"));
        long july = Waiting.until(() -> made(round), list -> list.size() == 2).stream().mapToLong(one -> one.path("id").asLong()).filter(id -> id != june).findFirst().orElseThrow();
        Waiting.until(() -> desk.get("/api/rounds/" + july + "/board").json(), one -> one.path("rows").size() == 2);
        assertThat(desk.get("/api/rounds/" + june + "/board").json().path("rows")).hasSize(1);

        String id = series.path("id").asString();
        assertThat(desk.post("/api/series/" + id + "/pause", "{\"paused\":true}").json().path("paused").asBoolean()).isTrue();
        assertThat(desk.put("/api/series/" + id, "{\"version\":99,\"terms\":" + terms + "}").problem()).isEqualTo("changed-elsewhere");
        assertThat(desk.send("DELETE", "/api/series/" + id, null).status()).isEqualTo(204);
        assertThat(made(round)).as("the rounds it made stay").hasSize(0);
        assertThat(desk.get("/api/rounds/" + june + "/board").status()).isEqualTo(200);
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource(delimiter = '|', value = {"FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30 | 2026-06-01 | 5 | rule", "rubbish | 2026-06-01 | 5 | rule", "FREQ=DAILY;COUNT=2 | 2026-01-01 | 5 | rule",
        "FREQ=DAILY | 2006-06-01 | 5 | startsOn", "FREQ=DAILY | 2026-06-01 | 500 | opensDaysBefore"})
    void aSeriesThatCannotBeIsRefusedAtItsField(String rule, String start, int days, String field) {
        String terms = "{\"rule\":\"" + rule + "\",\"startsOn\":\"" + start + "\",\"opensDaysBefore\":" + days + "}";
        assertThat(desk.post("/api/series/preview", "{\"terms\":" + terms + "}").at(field)).isNotEmpty();
    }

    private List<JsonNode> made(TestRound round) {
        List<JsonNode> made = new ArrayList<>();
        desk.get("/api/rounds").json().forEach(one -> {
            if (!one.path("seriesId").isNull() && one.path("title").asString().contains(round.title())) {
                made.add(one);
            }
        });
        return made;
    }

    private Http.Answer change(TestRound round, JsonNode changing, ObjectNode sheet, String what) {
        return desk.post("/api/rounds/" + round.id + "/change" + what, "{\"version\":" + changing.path("version") + ",\"sheet\":" + sheet + "}");
    }

    private void contact(String name, String email, String group) {
        desk.post("/api/contacts", "{\"name\":\"" + name + "\",\"email\":\"" + email + "\"}");
        JsonNode contact = desk.get("/api/contacts?find=" + email).json().path("contacts").get(0);
        desk.put("/api/contacts/" + contact.path("id"), "{\"version\":" + contact.path("version") + ",\"name\":\"" + name + "\",\"email\":\"" + email + "\",\"groups\":[\"" + group + "\"]}");
    }
}
