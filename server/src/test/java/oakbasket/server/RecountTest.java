package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Counts a round anew from the raw files in its folders and from what was done to them, and compares with what the board says. */
class RecountTest {

    private static final int PEOPLE = 12;

    @Test
    void theNumbersOfTheBoardAreThoseOfTheFilesOnDisk() throws Exception {
        Random random = new Random(20260601);
        TestRound round = new TestRound().item("Photos", true, 2, 5, 1, "IMAGE").item("Remarks", false, 1, 3, 1);
        for (int n = 0; n < PEOPLE - 2; n++) {
            round.person("Person " + n, "person" + n + "@example.org");
        }
        round.open();
        // What this test itself did to each file of each item, in the order in which it did it; completeness is worked out from nothing else.
        Map<String, List<String>> done = new HashMap<>();
        Map<String, Integer> accepted = new HashMap<>();
        Map<String, Integer> returned = new HashMap<>();
        List<String> names = new ArrayList<>();
        round.board().path("rows").forEach(row -> names.add(row.path("name").asString()));
        for (String name : names) {
            TestRound.Sender sender = round.personal(name).begin();
            for (int n = random.nextInt(3); n > 0; n--) {
                sender.send(1, "c.pdf", TestRound.pdf(name + n));
            }
            for (int n = random.nextInt(5); n > 0; n--) {
                sender.send(2, "p.png", ("\u0089PNG\r\n\u001a\n" + name + n).getBytes(java.nio.charset.StandardCharsets.ISO_8859_1));
            }
            for (JsonNode file : round.panel(name).path("files")) {
                int choice = random.nextInt(4);
                done.computeIfAbsent(name + " " + file.path("itemId").asLong(), key -> new ArrayList<>()).add(choice == 0 ? "ACCEPTED" : choice == 1 ? "RETURNED" : "");
                if (choice < 2) {
                    String to = choice == 0 ? "ACCEPTED" : "RETURNED";
                    round.desk.post("/api/files/" + file.path("id").asLong() + "/review", "{\"from\":\"NONE\",\"to\":\"" + to + "\",\"reason\":\"because\"}");
                    (choice == 0 ? accepted : returned).merge(name, 1, Integer::sum);
                }
            }
        }

        JsonNode board = round.board();
        Path folder = RunningApp.DATA.resolve("files").resolve(round.title());
        int onDisk = 0;
        int senders = 0;
        for (String name : names) {
            int here = 0;
            if (Files.exists(folder.resolve(name))) {
                try (Stream<Path> files = Files.list(folder.resolve(name))) {
                    here = (int) files.count();
                }
            }
            onDisk += here;
            int kept = here - returned.getOrDefault(name, 0);
            senders += kept > 0 ? 1 : 0;
            JsonNode row = round.row(name);
            assertThat(row.path("files").asInt()).as("files of %s", name).isEqualTo(kept);
            assertThat(row.path("toCheck").asInt()).as("to check of %s", name).isEqualTo(kept - accepted.getOrDefault(name, 0));
            for (JsonNode file : round.panel(name).path("files")) {
                byte[] content = Files.readAllBytes(RunningApp.DATA.resolve("files").resolve(file.path("path").asString()));
                assertThat(HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(content))).isEqualTo(file.path("sha256").asString());
            }
        }
        int allReturned = returned.values().stream().mapToInt(Integer::intValue).sum();
        int allAccepted = accepted.values().stream().mapToInt(Integer::intValue).sum();
        JsonNode counts = board.path("counts");
        assertThat(onDisk).isGreaterThan(PEOPLE);
        assertThat(counts.path("files").asInt()).isEqualTo(onDisk - allReturned);
        assertThat(counts.path("senders").asInt()).isEqualTo(senders);
        assertThat(counts.path("toCheck").asInt()).isEqualTo(onDisk - allReturned - allAccepted);
        assertThat(counts.path("asked").asInt()).isEqualTo(PEOPLE);
        int complete = 0;
        for (JsonNode row : board.path("rows")) {
            String name = row.path("name").asString();
            boolean satisfied = enough(done.getOrDefault(name + " " + board.path("items").get(0).path("id").asLong(), List.of()), 1)
                    && enough(done.getOrDefault(name + " " + board.path("items").get(1).path("id").asLong(), List.of()), 2);
            complete += satisfied ? 1 : 0;
            assertThat(List.of("COMPLETE", "CHECKED").contains(row.path("progress").asString())).as("%s", row).isEqualTo(satisfied);
        }
        assertThat(complete).as("some are complete, some are not").isBetween(1, PEOPLE - 1);
        assertThat(counts.path("complete").asInt()).isEqualTo(complete);
        assertThat(counts.path("percent").asInt()).isEqualTo(100 * complete / PEOPLE);
        int byProgress = 0;
        for (JsonNode number : counts.path("byProgress")) {
            byProgress += number.asInt();
        }
        assertThat(byProgress).isEqualTo(PEOPLE);
    }

    /** Everything had come before the first review: so many are left that were not sent back, and the last thing said was not that something goes back. */
    private static boolean enough(List<String> reviews, int least) {
        List<String> said = reviews.stream().filter(review -> !review.isEmpty()).toList();
        boolean sentBack = !said.isEmpty() && said.get(said.size() - 1).equals("RETURNED");
        return !sentBack && reviews.stream().filter(review -> !review.equals("RETURNED")).count() >= least;
    }
}
