package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** The board is answered from memory; whatever happens, it says what the database says. */
class BoardMemoryTest {

    private static final int STEPS = 120;

    @AfterEach
    void setTheClockBack() {
        RunningApp.CLOCK.set(Instant.parse("2026-06-01T09:00:00Z"));
    }

    /** Random deeds of coordinators and senders; after each, every row of the board is compared with the row judged from the database alone. */
    @Test
    void afterWhateverHappensTheBoardFromMemoryIsThatOfTheDatabase() {
        Random random = new Random(20260601);
        TestRound round = new TestRound().item("Map", true, 2, 4, 1).withOpenLink("").open();
        String mark = round.title().replace(" ", "").toLowerCase();
        for (int i = 0; i < 6; i++) {
            round.desk.post("/api/rounds/" + round.id + "/people", "{\"people\":[{\"name\":\"Late " + i + "\",\"email\":\"late" + i + "." + mark + "@example.org\"}],\"groups\":[]}");
        }
        List<Long> acts = new ArrayList<>();
        int compared = 0;
        for (int step = 0; step < STEPS; step++) {
            List<JsonNode> rows = rows(round);
            JsonNode row = rows.get(random.nextInt(rows.size()));
            deed(round, row, random, acts, mark);
            for (JsonNode shown : rows(round)) {
                JsonNode judged = round.desk.get("/api/baskets/" + shown.path("id") + "/row").json();
                assertThat(shown.toString()).as("after step %d", step).isEqualTo(judged.toString());
                compared++;
            }
        }
        assertThat(compared).isGreaterThan(STEPS * 6);
        assertThat(acts).as("something was done").hasSizeGreaterThan(10);
    }

    private static void deed(TestRound round, JsonNode row, Random random, List<Long> acts, String mark) {
        String name = row.path("name").asString();
        String base = "/api/rounds/" + round.id;
        String basket = "\"baskets\":[{\"id\":" + row.path("id") + ",\"version\":" + row.path("version") + "}]";
        switch (random.nextInt(12)) {
            case 0, 1, 2 -> {
                Http.Answer link = round.desk.get("/api/baskets/" + row.path("id") + "/link");
                if (link.status() == 200) {
                    round.personal(name).begin().send(1 + random.nextInt(2), "f" + random.nextInt() + ".pdf", TestRound.pdf("x" + random.nextInt()));
                }
            }
            case 3 -> note(acts, round.desk.post(base + "/acts", "{\"kind\":\"EXCUSE\",\"on\":" + random.nextBoolean() + "," + basket + "}"));
            case 4 -> note(acts, round.desk.post(base + "/acts", "{\"kind\":\"EXTEND\",\"date\":\"2026-07-1" + random.nextInt(9) + "\",\"reason\":\"r\"," + basket + "}"));
            case 5 -> note(acts, round.desk.post(base + "/acts", "{\"kind\":\"REMOVE\",\"on\":" + random.nextBoolean() + "," + basket + "}"));
            case 6 -> note(acts, round.desk.post(base + "/acts", "{\"kind\":\"EXCUSE_ITEM\",\"on\":true,\"itemId\":" + round.board().path("items").get(1).path("id") + "," + basket + "}"));
            case 7 -> {
                if (!acts.isEmpty()) {
                    round.desk.post("/api/acts/" + acts.get(acts.size() - 1) + "/undo", "");
                }
            }
            case 8 -> round.desk.get("/api/baskets/" + row.path("id")).json().path("files").forEach(file -> round.desk.post("/api/files/" + file.path("id") + "/review",
                    "{\"from\":\"" + file.path("review").asString() + "\",\"to\":\"" + (random.nextBoolean() ? "ACCEPTED" : "RETURNED") + "\",\"reason\":\"because\"}"));
            case 9 -> {
                TestRound.Sender stranger = round.openLink();
                stranger.begin("Walker " + random.nextInt(3), "walker" + random.nextInt(3) + "." + mark + "@example.net");
                stranger.send(1, "w.pdf", TestRound.pdf("w" + random.nextInt()));
            }
            case 10 -> {
                JsonNode contact = round.desk.get("/api/contacts/" + row.path("contactId")).json().path("contact");
                round.desk.put("/api/contacts/" + row.path("contactId"), "{\"version\":" + contact.path("version") + ",\"name\":\"" + name + "\",\"email\":\"" + contact.path("email").asString()
                        + "\",\"organisation\":\"Org " + random.nextInt(9) + "\",\"groups\":[\"G" + random.nextInt(3) + "\"]}");
            }
            default -> {
                JsonNode changing = round.desk.get(base + "/change").json();
                ((tools.jackson.databind.node.ObjectNode) changing.path("sheet").path("items").get(1)).put("minFiles", 1 + random.nextInt(2));
                round.desk.post(base + "/change", changing.toString());
            }
        }
    }

    private static void note(List<Long> acts, Http.Answer done) {
        if (done.status() == 200 && done.json().path("changed").asInt() > 0) {
            acts.add(done.json().path("act").asLong());
        }
    }

    private static List<JsonNode> rows(TestRound round) {
        List<JsonNode> rows = new ArrayList<>();
        // Lateness in minutes moves with the clock, so both are asked at one moment.
        RunningApp.CLOCK.set(Instant.parse("2026-06-01T09:00:00Z").plusSeconds(rows.hashCode()));
        round.board().path("rows").forEach(rows::add);
        return rows;
    }

    /** Eight coordinators press at the same moment, again and again: of each moment exactly one wins, and the others are told. */
    @Test
    void ofManyCoordinatorsAtOnceExactlyOneWins() throws Exception {
        TestRound round = new TestRound().open();
        int coordinators = 8;
        ExecutorService all = Executors.newFixedThreadPool(coordinators);
        try {
            for (int moment = 0; moment < 12; moment++) {
                JsonNode row = round.row("Ada Brook");
                CountDownLatch together = new CountDownLatch(1);
                List<Future<Integer>> answers = new ArrayList<>();
                for (int n = 0; n < coordinators; n++) {
                    String body = "{\"kind\":\"NOTE\",\"text\":\"moment " + moment + " of " + n + "\",\"baskets\":[{\"id\":" + row.path("id") + ",\"version\":" + row.path("version") + "}]}";
                    answers.add(all.submit(() -> {
                        together.await();
                        return round.desk.post("/api/rounds/" + round.id + "/acts", body).status();
                    }));
                }
                together.countDown();
                List<Integer> statuses = new ArrayList<>();
                for (Future<Integer> answer : answers) {
                    statuses.add(answer.get());
                }
                assertThat(statuses).containsOnly(200, 409);
                assertThat(statuses.stream().filter(status -> status == 200)).hasSize(1);
                assertThat(round.row("Ada Brook").path("version").asInt()).isEqualTo(row.path("version").asInt() + 1);
            }
        } finally {
            all.shutdown();
        }
    }
}
