package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.stream.IntStream;
import oakbasket.core.team.Role;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Room for rounds, users and the office: refused before bytes are taken, warned about from four fifths on. */
class SpaceTest {

    private static final int MEBIBYTE = 1 << 20;

    private final Http desk = Http.desk();

    /** What other tests announced and never sent has stopped counting. */
    @BeforeEach
    void aWhileLater() {
        RunningApp.CLOCK.set(RunningApp.CLOCK.instant().plusSeconds(16 * 60));
    }

    @AfterEach
    void nothingIsSet() {
        desk.get("/api/space").json().forEach(line -> {
            if (!line.path("most").isNull()) {
                limit(line.path("of").asString(), line.path("id").asLong(), null);
            }
        });
    }

    @AfterAll
    static void setTheClockBack() {
        RunningApp.CLOCK.set(Instant.parse("2026-06-01T09:00:00Z"));
    }

    private Http.Answer limit(String of, long id, Object mebibytes) {
        return desk.put("/api/space/" + of + "/" + id, "{\"mostMebibytes\":" + mebibytes + "}");
    }

    private JsonNode line(String of, long id) {
        return desk.get("/api/space").json().valueStream().filter(one -> one.path("of").asString().equals(of) && one.path("id").asLong() == id).findFirst().orElseThrow();
    }

    private static byte[] bytes(int mebibytes) {
        byte[] content = new byte[mebibytes * MEBIBYTE];
        System.arraycopy("%PDF-1.4\n".getBytes(), 0, content, 0, 9);
        return content;
    }

    private static List<String> needs(Http desk) {
        return desk.get("/api/today").json().path("needsYou").valueStream().map(one -> one.path("what").asString() + " " + one.path("round").asString() + " " + one.path("count").asInt()).toList();
    }

    @Test
    void aFullRoundRefusesBeforeBytesAreTakenAndWarnsBefore() {
        TestRound round = new TestRound().onlyPeople("Ann Room").item("Large", true, 1, 50, 20, "PDF").open();
        assertThat(limit("ROUND", round.id, 10).status()).isEqualTo(204);
        TestRound.Sender ann = round.personal("Ann Room").begin();
        assertThat(ann.send(2, "four.pdf", bytes(4)).status()).isEqualTo(201);
        assertThat(needs(desk)).noneMatch(one -> one.startsWith("space-round " + round.title()));
        Http.Answer large = ann.create(2, "seven.pdf", 7L * MEBIBYTE);
        assertThat(large.status()).as("announced only").isEqualTo(507);
        assertThat(large.problem()).isEqualTo("space-full");
        assertThat(large.json().path("title").asString()).isEqualTo("There is no room left for this");
        Http.Answer german = ann.http.send("POST", "/api/uploads", new byte[0], "Oak-Link", ann.token, "Oak-Submission", ann.submission, "Tus-Resumable", "1.0.0", "Upload-Length", "" + 7L * MEBIBYTE, "Upload-Metadata",
                "filename YS5wZGY=,item Mg==", "Accept-Language", "de");
        assertThat(german.json().path("title").asString()).isEqualTo("Dafür ist kein Platz mehr");
        assertThat(ann.send(2, "and four.pdf", bytes(4)).status()).isEqualTo(201);
        Waiting.until(() -> line("ROUND", round.id), line -> line.path("percent").asInt() == 80);
        assertThat(line("ROUND", round.id).path("warns").asBoolean()).isTrue();
        RunningApp.CLOCK.set(RunningApp.CLOCK.instant().plusSeconds(61));
        assertThat(needs(desk)).as("from four fifths on, and that somebody was turned away").contains("space-round " + round.title() + " 80").anyMatch(one -> one.startsWith("no-room " + round.title()));
        assertThat(ann.send(2, "two.pdf", bytes(2)).status()).as("exactly what is left").isEqualTo(201);
        assertThat(ann.create(2, "one more.pdf", 1).status()).isEqualTo(507);
        assertThat(limit("ROUND", round.id, null).status()).isEqualTo(204);
        assertThat(ann.send(2, "now.pdf", bytes(1)).status()).as("more room holds at once").isEqualTo(201);
    }

    /** Many at once are no more than one after another: of ten that would each fit alone, as many are begun as fit together. */
    @Test
    void manyAtOnceGetNoMoreThanThereIs() throws Exception {
        TestRound round = new TestRound().onlyPeople("Bea Room").item("Large", true, 1, 50, 20, "PDF").open();
        limit("ROUND", round.id, 10);
        TestRound.Sender bea = round.personal("Bea Room").begin();
        List<Integer> answers = new CopyOnWriteArrayList<>();
        List<Thread> threads = IntStream.range(0, 10).mapToObj(n -> new Thread(() -> answers.add(bea.create(2, "three " + n + ".pdf", 3L * MEBIBYTE).status()))).toList();
        threads.forEach(Thread::start);
        for (Thread thread : threads) {
            thread.join();
        }
        assertThat(answers.stream().filter(status -> status == 201)).hasSize(3);
        assertThat(answers.stream().filter(status -> status == 507)).hasSize(7);
        RunningApp.CLOCK.set(RunningApp.CLOCK.instant().plusSeconds(16 * 60));
        assertThat(bea.create(2, "later.pdf", 9L * MEBIBYTE).status()).as("what is announced and never comes keeps nobody out").isEqualTo(201);
    }

    @Test
    void aUsersRoomHoldsForTheirRoundsAndForWhatTheyHandOut() {
        TestTeam jo = TestTeam.of(Role.COORDINATOR);
        limit("USER", jo.id(), 5);
        TestParcel parcel = new TestParcel(jo.desk).person("Cy Room").file("three.bin", new byte[3 * MEBIBYTE]);
        assertThat(parcel.announce("three more.bin", 3L * MEBIBYTE).problem()).isEqualTo("space-full");
        assertThat(parcel.announce("two.bin", 2L * MEBIBYTE).status()).isEqualTo(201);
        assertThat(parcel.announce("a byte.bin", 1).status()).as("what was announced a moment ago counts").isEqualTo(507);
        assertThat(line("USER", jo.id()).path("percent").asInt()).isEqualTo(100);
        RunningApp.CLOCK.set(RunningApp.CLOCK.instant().plusSeconds(61));
        assertThat(needs(jo.desk)).contains("space-user  100");
        assertThat(needs(desk)).as("whose own room is not full").noneMatch(one -> one.startsWith("space-user"));
        jo.desk.send("DELETE", "/api/parcels/" + parcel.id, null);
        RunningApp.CLOCK.set(RunningApp.CLOCK.instant().plusSeconds(3));
        assertThat(new TestParcel(jo.desk).announce("again.bin", 5L * MEBIBYTE).status()).as("what was thrown away gives its room back").isEqualTo(201);
    }

    @Test
    void theOfficesRoomHoldsForEverything() {
        long used = line("OFFICE", 0).path("used").asLong() / MEBIBYTE + 1;
        limit("OFFICE", 0, used + 2);
        TestRound round = new TestRound().onlyPeople("Di Room").item("Large", true, 1, 50, 20, "PDF").open();
        TestRound.Sender di = round.personal("Di Room").begin();
        assertThat(di.create(2, "large.pdf", 4L * MEBIBYTE).problem()).isEqualTo("space-full");
        assertThat(desk.send("POST", "/api/loose?name=paper.pdf", bytes(4), "Content-Type", "application/octet-stream").problem()).as("a paper into the tray").isEqualTo("space-full");
        assertThat(di.send(2, "small.pdf", bytes(1)).status()).isEqualTo(201);
    }

    @Test
    void whatCannotBeSetIsSaid() {
        assertThat(limit("OFFICE", 0, -1).json().path("errors").get(0).path("field").asString()).isEqualTo("mostMebibytes");
        assertThat(limit("OFFICE", 0, 1L << 31).status()).isEqualTo(422);
        assertThat(limit("OFFICE", 1, 5).status()).isEqualTo(404);
        assertThat(limit("ROUND", 987_654, 5).status()).isEqualTo(404);
        assertThat(limit("USER", 987_654, 5).status()).isEqualTo(404);
        assertThat(limit("NOBODY", 0, 5).status()).isBetween(400, 404);
        assertThat(TestTeam.of(Role.COORDINATOR).desk.get("/api/space").status()).as("titles of rounds stand there").isEqualTo(403);
    }
}
