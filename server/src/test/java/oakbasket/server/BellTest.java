package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.stream.StreamSupport;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** The bell: what came since somebody last looked, for each account by itself, and nothing when there is nothing. */
class BellTest {

    private final Http desk = Http.desk();

    @BeforeEach
    void look() {
        JsonNode rings = rings();
        seen(rings);
        assertThat(rings().path("files").asInt()).isZero();
        assertThat(rings().path("sendings")).isEmpty();
    }

    @Test
    void whatComesIsTheNewestFirstBySendingAndGoneOnceItWasSeen() {
        TestRound round = new TestRound().onlyPeople("Gil Rook", "Hob Moor").item("Map", true, 1, 5, 1, "PDF").open();
        TestRound.Sender gil = round.personal("Gil Rook").begin();
        gil.send(1, "c.pdf", TestRound.pdf("g1"));
        gil.send(2, "m.pdf", TestRound.pdf("g2"));
        JsonNode before = rings();
        round.personal("Hob Moor").begin().send(1, "c.pdf", TestRound.pdf("h"));
        JsonNode rings = rings();
        assertThat(rings.path("files").asInt()).isEqualTo(3);
        assertThat(StreamSupport.stream(rings.path("sendings").spliterator(), false).map(one -> one.path("person").asString() + " " + one.path("files").asInt() + " " + one.path("identity").asString()))
                .containsExactly("Hob Moor 1 IDENTIFIED", "Gil Rook 2 IDENTIFIED");
        assertThat(rings.path("sendings").get(0).path("round").asString()).isEqualTo(round.title());
        seen(before);
        assertThat(rings().path("files").asInt()).as("what came after one looked is still new").isEqualTo(1);
        seen(rings);
        assertThat(rings().path("files").asInt()).isZero();
    }

    @Test
    void mutedRoundsAndWhatWasPutInAtTheDeskDoNotRing() {
        TestRound round = new TestRound().onlyPeople("Ivo Fell").open();
        try {
            assertThat(desk.put("/api/digest", "{\"plan\":\"NEVER\",\"muted\":[" + round.id + "]}").status()).isEqualTo(200);
            round.personal("Ivo Fell").begin().send(1, "c.pdf", TestRound.pdf("i"));
            assertThat(rings().path("files").asInt()).isZero();
        } finally {
            desk.put("/api/digest", "{\"plan\":\"NEVER\",\"muted\":[]}");
        }
        long basket = round.row("Ivo Fell").path("id").asLong();
        long item = desk.get("/api/rounds/" + round.id + "/board").json().path("items").get(0).path("id").asLong();
        long paper = desk.send("POST", "/api/loose?name=by%20post.pdf", TestRound.pdf("by post"), "Content-Type", "application/octet-stream").json().path("id").asLong();
        seen(rings());
        assertThat(desk.post("/api/loose/file", "{\"ids\":[" + paper + "],\"basketId\":" + basket + ",\"itemId\":" + item + "}").status()).isEqualTo(204);
        assertThat(rings().path("files").asInt()).as("whoever put it in knows").isZero();
    }

    @Test
    void nobodySeesWhatIsStillToCome() {
        assertThat(desk.post("/api/bell/seen", "{\"upToFile\":999999999,\"upToMail\":999999999}").status()).isEqualTo(204);
        TestRound round = new TestRound().onlyPeople("Jon Beck").open();
        round.personal("Jon Beck").begin().send(1, "c.pdf", TestRound.pdf("j"));
        assertThat(rings().path("files").asInt()).isEqualTo(1);
    }

    private JsonNode rings() {
        return desk.get("/api/bell").json();
    }

    private void seen(JsonNode rings) {
        assertThat(desk.post("/api/bell/seen", "{\"upToFile\":" + rings.path("upToFile") + ",\"upToMail\":" + rings.path("upToMail") + "}").status()).isEqualTo(204);
    }
}
