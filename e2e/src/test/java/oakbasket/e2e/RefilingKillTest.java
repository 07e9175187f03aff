package oakbasket.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/**
 * Kills the real process at random points while rules are put to files that are here, and while that is taken back. After each start the batch goes on by itself; in the end every file
 * exists exactly once, with its own content, where the record and the last line of the journal say.
 */
class RefilingKillTest {

    /** A few in every run; many of 10,000 files by bench/refiling.sh. */
    private static final int KILLS = Integer.parseInt(System.getenv().getOrDefault("REFILING_KILLS", "3"));
    private static final int FILES = Integer.parseInt(System.getenv().getOrDefault("REFILING_FILES", "400"));
    private static final String RULES = """
            {"version":0,"rules":[{"conditions":[{"subject":"NAME","test":"MATCHES","value":"file[0-9]*[02468]\\\\.txt"}],"place":{"folder":"{round}/Even","name":"{person}"}},
             {"conditions":[],"place":{"folder":"{round}/Odd/{original}","name":"{item}"}}]}""";

    @Test
    void everyFileExistsExactlyOnceWhereRecordAndJournalSay() throws Exception {
        long seed = System.nanoTime();
        Random random = new Random(seed);
        Path data = PackagedApp.freshFolder();
        int killed = 0;
        try (PackagedApp app = new PackagedApp(data, "--oakbasket.demo=true")) {
            Api api = new Api(app.url());
            long round = ManyFiles.send(api, app.url(), "Moved", FILES);
            assertThat(api.send("PUT", "/api/rules/" + round, RULES.getBytes(StandardCharsets.UTF_8), "Content-Type", "application/json").statusCode()).isEqualTo(200);
            long batch = 0;
            while (killed < KILLS || batch != 0) {
                if (batch == 0) {
                    JsonNode trial = Api.json(api.post("/api/refilings/trial", "{\"roundId\":" + round + "}"));
                    batch = Api.json(api.post("/api/refilings", "{\"roundId\":" + round + ",\"last\":" + trial.path("last") + ",\"seal\":" + trial.path("seal") + "}")).path("id").asLong();
                }
                JsonNode view = api.get("/api/refilings/" + batch).path("refiling");
                if (view.path("endedAt").isNull() && killed < KILLS) {
                    Thread.sleep(random.nextInt(120));
                    app.kill();
                    killed++;
                    app.start();
                    api = new Api(app.url());
                } else if (view.path("endedAt").isNull()) {
                    Thread.sleep(100);
                } else {
                    assertThat(view.path("failed").asInt()).as("seed %d", seed).isZero();
                    check(api, data, round, "seed " + seed + ", batch " + batch);
                    boolean back = !view.path("undoes").isNull();
                    batch = back ? 0 : Api.json(api.post("/api/refilings/" + batch + "/undo", "")).path("id").asLong();
                }
            }
        }
        System.out.printf("%d kills while %d files were moved: each exists exactly once%n", killed, FILES);
        assertThat(killed).isEqualTo(KILLS);
    }

    private static void check(Api api, Path data, long round, String when) throws Exception {
        Map<String, String> lying = new HashMap<>();
        Path root = data.resolve("files");
        try (Stream<Path> all = Files.walk(root.resolve("Moved"))) {
            for (Path path : all.filter(Files::isRegularFile).toList()) {
                lying.put(root.relativize(path).toString(), Files.readString(path));
            }
        }
        assertThat(lying).as(when).hasSize(FILES);
        assertThat(new HashSet<>(lying.values())).as("%s: each content once", when).hasSize(FILES);
        Set<String> recorded = new HashSet<>();
        JsonNode panel = api.get("/api/baskets/" + api.row(round, ManyFiles.PERSON).path("id").asLong());
        for (JsonNode file : panel.path("files")) {
            String place = file.path("path").asString();
            recorded.add(place);
            assertThat(lying.get(place)).as("%s: the record of %s", when, place).isEqualTo("content of " + file.path("originalName").asString().replaceAll("\\D", ""));
        }
        assertThat(recorded).as(when).isEqualTo(lying.keySet());
        int looked = 0;
        for (JsonNode file : panel.path("files")) {
            if (looked++ % Math.max(1, FILES / 40) == 0) {
                assertThat(api.get("/api/journal?file=" + file.path("id")).path("lines").get(0).path("to").asString()).as("%s: the journal", when).isEqualTo(file.path("path").asString());
            }
        }
    }
}
