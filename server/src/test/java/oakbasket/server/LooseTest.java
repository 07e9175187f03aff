package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Papers that came without a link: put in at the desk or found in a folder, filed for somebody as if they had been sent, and taken back. */
class LooseTest {

    private static char made = 'a';

    /** Nobody of another round is called so. */
    private final String person = "Quillon Sedge" + made++;
    private final Http desk = Http.desk();
    private final TestRound round = new TestRound().onlyPeople("Tansy Mere", "Hazel Mere", person).item("Field map", true, 1, 90, 1).item("Notes", false, 1, 90, 1).open();
    private final Path folder = RunningApp.DATA.resolve("files").resolve(round.title());

    private Http.Answer put(String name, String content) {
        return desk.send("POST", "/api/loose?name=" + URLEncoder.encode(name, StandardCharsets.UTF_8), content.getBytes(StandardCharsets.UTF_8), "Content-Type", "application/octet-stream");
    }

    private JsonNode entry(String fileName) {
        for (JsonNode entry : desk.get("/api/tray").json().path("entries")) {
            if (entry.path("cause").asString().equals("OTHER_WAY") && entry.path("files").get(0).path("name").asString().equals(fileName)) {
                return entry;
            }
        }
        return Http.JSON.missingNode();
    }

    private long item(int n) {
        return desk.get("/api/tray/choices/" + round.id).json().path("items").get(n).path("id").asLong();
    }

    private Http.Answer file(long id, String person, int item) {
        return desk.post("/api/loose/file", "{\"ids\":[" + id + "],\"basketId\":" + round.row(person).path("id") + ",\"itemId\":" + item(item) + "}");
    }

    private int uses(String person) {
        for (JsonNode link : desk.get("/api/links?round=" + round.id).json().path("links")) {
            if (link.path("basketId").asLong() == round.row(person).path("id").asLong()) {
                return link.path("uses").asInt();
            }
        }
        throw new AssertionError("no link");
    }

    private static long lying(Path folder) throws Exception {
        try (Stream<Path> all = Files.exists(folder) ? Files.walk(folder) : Stream.empty()) {
            return all.filter(Files::isRegularFile).count();
        }
    }

    @Test
    void aPaperIsPutInSupposedFiledAndGivenBack() throws Exception {
        String name = "Mere, Hazel – field map " + round.id + ".txt";
        Http.Answer put = put(name, "by post");
        assertThat(put.status()).as(put.text()).isEqualTo(201);
        long id = put.json().path("id").asLong();
        JsonNode entry = entry(name);
        assertThat(entry.path("why").asString()).startsWith("Put in at the desk by ");
        assertThat(desk.get("/api/loose/" + id + "/content").text()).isEqualTo("by post");
        assertThat(desk.get("/api/glances/loose/" + id).json().path("text").asString()).isEqualTo("by post");

        assertThat(file(id, "Hazel Mere", 1).status()).isEqualTo(204);
        assertThat(entry(name).isMissingNode()).isTrue();
        assertThat(folder.resolve("Hazel Mere/Hazel Mere - Field map.txt")).hasContent("by post");
        assertThat(round.standing("Hazel Mere", 1)).isEqualTo("ARRIVED");
        JsonNode panel = round.panel("Hazel Mere").path("files").get(0);
        assertThat(panel.path("identity").asString()).isEqualTo("PUT_IN");
        assertThat(uses("Hazel Mere")).as("no use of the link").isZero();
        assertThat(desk.get("/api/loose/" + id + "/content").status()).isEqualTo(404);
        assertThat(file(id, "Hazel Mere", 1).status()).as("once").isIn(404, 409);

        assertThat(desk.post("/api/loose/undo", "{\"ids\":[" + id + "]}").status()).isEqualTo(204);
        assertThat(entry(name).path("files").get(0).path("id").asLong()).isEqualTo(id);
        assertThat(round.standing("Hazel Mere", 1)).isEqualTo("WANTED");
        assertThat(lying(folder)).isZero();
        assertThat(desk.get("/api/loose/" + id + "/content").text()).isEqualTo("by post");
        assertThat(desk.post("/api/loose/undo", "{\"ids\":[" + id + "]}").problem()).isEqualTo("undone-already");

        assertThat(file(id, "Tansy Mere", 2).status()).isEqualTo(204);
        assertThat(folder.resolve("Tansy Mere/Tansy Mere - Notes.txt")).hasContent("by post");
        long received = round.panel("Tansy Mere").path("files").get(0).path("id").asLong();
        desk.post("/api/files/" + received + "/review", "{\"from\":\"NONE\",\"to\":\"ACCEPTED\"}");
        assertThat(desk.post("/api/loose/undo", "{\"ids\":[" + id + "]}").problem()).isEqualTo("loose-checked");
    }

    @Test
    void aRuleThatSendsToTheTrayDoesNotSendItBack() {
        int version = desk.get("/api/rules/" + round.id).json().path("version").asInt();
        assertThat(desk.put("/api/rules/" + round.id, "{\"version\":" + version + ",\"rules\":[{\"conditions\":[{\"subject\":\"SOURCE\",\"test\":\"IS\",\"value\":\"DESK\"}],\"mark\":\"by post\",\"also\":true},"
                + "{\"conditions\":[{\"subject\":\"ITEM\",\"test\":\"IS\",\"value\":\"Field map\"}],\"tray\":true}]}").status()).isEqualTo(200);
        long id = put("x" + round.id + ".txt", "x").json().path("id").asLong();
        assertThat(file(id, "Tansy Mere", 1).status()).isEqualTo(204);
        assertThat(folder.resolve("Tansy Mere/Tansy Mere - Field map.txt")).exists();
        long received = round.panel("Tansy Mere").path("files").get(0).path("id").asLong();
        assertThat(desk.get("/api/folders/files/" + received).json().path("marks").get(0).asString()).isEqualTo("by post");
    }

    @Test
    void whatIsFoundInAFolderComesToTheTrayWithItsFolderAsAHintAndGoesBackThere() throws Exception {
        Path found = folder.resolve(person + "/scan " + round.id + ".txt");
        Files.createDirectories(found.getParent());
        Files.writeString(found, "scanned " + round.id);
        assertThat(takeIn(found).status()).isEqualTo(204);
        assertThat(found).doesNotExist();
        JsonNode entry = entry(found.getFileName().toString());
        assertThat(entry.path("why").asString()).contains(round.title() + "/" + person + "/scan");
        assertThat(entry.path("suggestion").path("personWhy").asString()).contains(person.toLowerCase(Locale.ROOT));
        long id = entry.path("files").get(0).path("id").asLong();
        assertThat(desk.post("/api/loose/" + id + "/out", "").status()).isEqualTo(204);
        assertThat(found).hasContent("scanned " + round.id);
        assertThat(entry(found.getFileName().toString()).isMissingNode()).isTrue();

        assertThat(takeIn(found).status()).isEqualTo(204);
        Files.writeString(found, "another");
        long again = entry(found.getFileName().toString()).path("files").get(0).path("id").asLong();
        assertThat(desk.post("/api/loose/" + again + "/out", "").problem()).isEqualTo("place-taken");
        assertThat(found).hasContent("another");
        assertThat(entry(found.getFileName().toString()).isMissingNode()).as("it waits as before").isFalse();
    }

    private Http.Answer takeIn(Path found) throws Exception {
        // What was changed just now is not told.
        Files.setLastModifiedTime(found, FileTime.from(Instant.now().minusSeconds(60)));
        for (JsonNode one : desk.post("/api/findings/look", "").json().path("findings")) {
            if (one.path("kind").asString().equals("NEW") && one.path("place").asString().endsWith(found.getFileName().toString())) {
                return desk.post("/api/findings/" + one.path("id"), "{\"choice\":\"TAKE_IN\"}");
            }
        }
        throw new AssertionError("not found");
    }

    @Test
    void whatIsTakenOutOfTheTrayCanBePutBack() {
        String name = "wrong " + round.id + ".txt";
        long id = put(name, "x").json().path("id").asLong();
        assertThat(desk.post("/api/loose/" + id + "/out", "").status()).isEqualTo(204);
        assertThat(entry(name).isMissingNode()).isTrue();
        assertThat(file(id, "Tansy Mere", 1).status()).as("it is not in the tray").isIn(404, 409);
        assertThat(desk.post("/api/loose/" + id + "/back", "").status()).isEqualTo(204);
        assertThat(entry(name).isMissingNode()).isFalse();
    }

    @Test
    void whatCannotBeTakenIsSaidAndNothingOfItStays() throws Exception {
        long before = lying(RunningApp.DATA.resolve("tray"));
        assertThat(put("empty.txt", "").problem()).isEqualTo("file-empty");
        assertThat(put(" ", "x").problem()).isEqualTo("file-name");
        assertThat(put("n".repeat(256), "x").problem()).isEqualTo("file-name");
        assertThat(put("virus.txt", new String(Zips.EICAR, StandardCharsets.US_ASCII)).problem()).isEqualTo("loose-malware");
        assertThat(new Http().send("POST", "/api/loose?name=x", "x".getBytes(StandardCharsets.UTF_8)).status()).isIn(401, 403);
        assertThat(lying(RunningApp.DATA.resolve("tray"))).isEqualTo(before);

        long id = put("y" + round.id + ".txt", "y").json().path("id").asLong();
        long tansy = round.row("Tansy Mere").path("id").asLong();
        assertThat(desk.post("/api/loose/file", "{\"ids\":[" + id + "],\"basketId\":" + tansy + ",\"itemId\":1}").at("itemId")).isNotEmpty();
        assertThat(desk.post("/api/loose/file", "{\"ids\":[" + id + "],\"basketId\":999999,\"itemId\":" + item(1) + "}").at("basketId")).isNotEmpty();
        assertThat(desk.post("/api/loose/file", "{\"ids\":[],\"basketId\":1,\"itemId\":1}").status()).isEqualTo(400);
        desk.post("/api/rounds/" + round.id + "/close", "");
        assertThat(file(id, "Tansy Mere", 1).at("roundId")).isNotEmpty();
        assertThat(entry("y" + round.id + ".txt").isMissingNode()).as("it still waits").isFalse();
    }

    @Test
    void twoPeopleFilingOnePaperFileItOnce() throws Exception {
        long id = put("both " + round.id + ".txt", "x").json().path("id").asLong();
        ExecutorService pool = Executors.newFixedThreadPool(2);
        List<Callable<Integer>> both = List.of(() -> file(id, "Tansy Mere", 1).status(), () -> file(id, "Hazel Mere", 2).status());
        int filed = 0;
        for (var one : pool.invokeAll(both)) {
            filed += one.get() == 204 ? 1 : 0;
        }
        pool.shutdown();
        assertThat(filed).isEqualTo(1);
        assertThat(lying(folder)).isEqualTo(1);
    }
}
