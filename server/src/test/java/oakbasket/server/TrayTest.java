package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** What waits for somebody to decide whose it is and what it is: suggested, decided, made a rule of, and taken back. */
class TrayTest {

    private final Http desk = Http.desk();
    private final TestRound round = new TestRound().onlyPeople("Tansy Mere", "Hazel Mere").item("Field map", true, 1, 90, 1).item("Notes", false, 1, 90, 1).withOpenLink("").open();
    private final Path folder = RunningApp.DATA.resolve("files").resolve(round.title());

    private void toTray(String conditions) {
        int version = desk.get("/api/rules/" + round.id).json().path("version").asInt();
        assertThat(desk.put("/api/rules/" + round.id, "{\"version\":" + version + ",\"rules\":[{\"conditions\":[" + conditions + "],\"tray\":true}]}").status()).isEqualTo(200);
    }

    private void send(String person, int item, String name) {
        TestRound.Sender sender = round.personal(person).begin();
        assertThat(sender.send(item, name, name.getBytes(StandardCharsets.UTF_8)).status()).isEqualTo(201);
        sender.finish();
    }

    private JsonNode entry(String fileName) {
        for (JsonNode entry : desk.get("/api/tray").json().path("entries")) {
            if (entry.path("roundId").asLong() == round.id && entry.path("files").get(0).path("name").asString().equals(fileName)) {
                return entry;
            }
        }
        return Http.JSON.missingNode();
    }

    private Http.Answer decide(JsonNode entry, String more) {
        return desk.post("/api/tray", "{\"files\":[" + entry.path("files").get(0).path("id") + "]" + more + "}");
    }

    private long item(int n) {
        return desk.get("/api/tray/choices/" + round.id).json().path("items").get(n).path("id").asLong();
    }

    @Test
    void aRulesFileIsSuggestedAcceptedAndGivenBack() {
        toTray("{\"subject\":\"NAME\",\"test\":\"CONTAINS\",\"value\":\"notes\"}");
        send("Tansy Mere", 2, "notes on the walk.txt");
        assertThat(RunningApp.DATA.resolve("files/Tray").resolve(round.title()).resolve("Tansy Mere/Tansy Mere - Field map.txt")).exists();
        JsonNode entry = entry("notes on the walk.txt");
        assertThat(entry.path("cause").asString()).isEqualTo("RULE");
        assertThat(entry.path("why").asString()).isEqualTo("Sent to the tray by rule 1 of this round: name contains notes");
        assertThat(entry.path("suggestion").path("person").asString()).isEqualTo("Tansy Mere");
        assertThat(entry.path("suggestion").path("item").asString()).as("its name says another item").isEqualTo("Notes");
        assertThat(entry.path("suggestion").path("itemWhy").asString()).isEqualTo("Its name says: notes");

        Http.Answer decided = decide(entry, ",\"itemId\":" + item(2));
        assertThat(decided.status()).as(decided.text()).isEqualTo(200);
        assertThat(folder.resolve("Tansy Mere/Tansy Mere - Notes.txt")).exists();
        assertThat(round.standing("Tansy Mere", 2)).isEqualTo("ARRIVED");
        assertThat(entry("notes on the walk.txt").isMissingNode()).isTrue();
        assertThat(desk.post("/api/refilings/trial", "{\"roundId\":" + round.id + "}").json().path("moves").asInt()).as("no rule sends it back").isZero();

        assertThat(desk.post("/api/tray/" + decided.json().path("id") + "/undo", "").status()).isEqualTo(204);
        assertThat(entry("notes on the walk.txt").path("files").get(0).path("item").asString()).isEqualTo("Field map");
        assertThat(round.standing("Tansy Mere", 2)).isEqualTo("WANTED");
        assertThat(desk.post("/api/tray/" + decided.json().path("id") + "/undo", "").problem()).isEqualTo("undone-already");
    }

    @Test
    void itIsGivenToSomebodyElseAndStaysTheirsWhenTheSendersAreMerged() {
        toTray("{\"subject\":\"ITEM\",\"test\":\"IS\",\"value\":\"Field map\"}");
        send("Tansy Mere", 2, "map.txt");
        long hazel = round.row("Hazel Mere").path("id").asLong();
        assertThat(decide(entry("map.txt"), ",\"basketId\":" + hazel).status()).isEqualTo(200);
        assertThat(round.row("Hazel Mere").path("files").asInt()).isEqualTo(1);
        assertThat(round.row("Tansy Mere").path("files").asInt()).isZero();
        assertThat(folder.resolve("Hazel Mere/Hazel Mere - Field map.txt")).exists();
        assertThat(decide(Http.JSON.readTree("{\"files\":[{\"id\":999999}]}"), "").problem()).isEqualTo("changed-elsewhere");
        send("Tansy Mere", 2, "other.txt");
        assertThat(decide(entry("other.txt"), ",\"basketId\":1").at("basketId")).as("somebody of another round").isNotEmpty();
        assertThat(decide(entry("other.txt"), ",\"itemId\":1").at("itemId")).isNotEmpty();
    }

    @Test
    void alwaysDoThisMakesARuleThatGoesWithTheUndo() {
        toTray("{\"subject\":\"ITEM\",\"test\":\"IS\",\"value\":\"Field map\"}");
        send("Tansy Mere", 2, "one.txt");
        assertThat(decide(entry("one.txt"), ",\"always\":true,\"senders\":[999999]").problem()).isEqualTo("changed-elsewhere");
        assertThat(desk.get("/api/rules/" + round.id).json().path("rules")).as("what does not come about leaves no rule").hasSize(1);
        assertThat(entry("one.txt").isMissingNode()).isFalse();
        Http.Answer decided = decide(entry("one.txt"), ",\"always\":true");
        assertThat(decided.status()).as(decided.text()).isEqualTo(200);
        JsonNode rules = desk.get("/api/rules/" + round.id).json().path("rules");
        assertThat(rules).hasSize(2);
        assertThat(rules.get(0).path("conditions").toString()).contains("Tansy Mere", "Field map");
        send("Tansy Mere", 2, "two.txt");
        assertThat(entry("two.txt").isMissingNode()).as("past the tray").isTrue();
        send("Hazel Mere", 2, "three.txt");
        assertThat(entry("three.txt").isMissingNode()).isFalse();
        desk.post("/api/tray/" + decided.json().path("id") + "/undo", "");
        assertThat(desk.get("/api/rules/" + round.id).json().path("rules")).hasSize(1);
    }

    @Test
    void twoPeopleDecidingAtOnceDecideOnce() throws Exception {
        toTray("{\"subject\":\"ITEM\",\"test\":\"IS\",\"value\":\"Field map\"}");
        send("Tansy Mere", 2, "one.txt");
        JsonNode entry = entry("one.txt");
        long hazel = round.row("Hazel Mere").path("id").asLong();
        ExecutorService pool = Executors.newFixedThreadPool(2);
        List<Callable<Integer>> both = List.of(() -> decide(entry, ",\"basketId\":" + hazel).status(), () -> decide(entry, ",\"itemId\":" + item(2)).status());
        List<Integer> statuses = pool.invokeAll(both).stream().map(one -> {
            try {
                return one.get();
            } catch (Exception problem) {
                throw new AssertionError(problem);
            }
        }).sorted().toList();
        pool.shutdown();
        assertThat(statuses).isEqualTo(List.of(200, 409));
        long lying;
        try (var all = Files.walk(folder)) {
            lying = all.filter(Files::isRegularFile).count();
        }
        assertThat(lying).as("one file in one place").isEqualTo(1);
    }

    @Test
    void whoOnlySaysWhoTheyAreWaitsAndIsLikenedToThoseAsked() {
        TestRound.Sender stranger = round.openLink();
        assertThat(stranger.begin("Tansy Meer", "tansy.private@example.org").status()).isEqualTo(201);
        stranger.send(2, "my map.txt", "x".getBytes(StandardCharsets.UTF_8));
        stranger.finish();
        JsonNode entry = entry("my map.txt");
        assertThat(entry.path("cause").asString()).isEqualTo("SELF_DECLARED");
        assertThat(entry.path("suggestion").path("person").asString()).isEqualTo("Tansy Mere");
        assertThat(entry.path("suggestion").path("personWhy").asString()).contains("Tansy Meer");
        Http.Answer decided = decide(entry, ",\"senders\":[" + entry.path("submissionId") + "],\"basketId\":" + entry.path("suggestion").path("basketId"));
        assertThat(decided.status()).as(decided.text()).isEqualTo(200);
        assertThat(entry("my map.txt").isMissingNode()).isTrue();
        assertThat(round.row("Tansy Mere").path("files").asInt()).isEqualTo(1);
        desk.post("/api/tray/" + decided.json().path("id") + "/undo", "");
        assertThat(entry("my map.txt").isMissingNode()).isFalse();
        assertThat(round.row("Tansy Mere").path("files").asInt()).isZero();
    }
}
