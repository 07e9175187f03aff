package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** A rehearsal refuses what a real sending refuses, in the same words, and keeps nothing. */
class RehearsalTest {

    private final TestRound round = new TestRound().withOpenLink("").open();

    private Http.Answer rehearse(String name, byte[] content) {
        return round.desk.send("POST", "/api/rounds/" + round.id + "/rehearsal/files?item=1&name=" + name, content, "Content-Type", "application/octet-stream");
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource({"picture.pdf, 'no pdf at all'", "page.html, '<script>1</script>'", "empty.pdf, ''"})
    void aFileIsRefusedAsItWouldBe(String name, String content) {
        Http.Answer rehearsed = rehearse(name, content.getBytes());
        TestRound.Sender sender = round.personal("Ada Brook").begin();
        Http.Answer real = sender.send(1, name, content.getBytes());
        assertThat(rehearsed.status()).isEqualTo(real.status()).isBetween(400, 499);
        assertThat(rehearsed.json().path("detail")).isEqualTo(real.json().path("detail"));
    }

    @Test
    void whatWouldBeTakenIsTakenAndNotKept() {
        assertThat(rehearse("good.pdf", TestRound.pdf("good")).status()).isEqualTo(204);
        assertThat(round.panel("Ada Brook").path("files")).isEmpty();
        assertThat(round.board().path("counts").path("files").asInt()).isZero();
    }

    @Test
    void whoeverSaysNothingOfThemselvesIsRefusedAtTheFields() {
        Http.Answer answer = round.desk.post("/api/rounds/" + round.id + "/rehearsal/who", "{\"name\":\"\",\"email\":\"nobody\"}");
        assertThat(answer.status()).isEqualTo(422);
        assertThat(answer.at("name")).isNotEmpty();
        assertThat(answer.at("email")).isNotEmpty();
    }

    @Test
    void aPersonOfTheRoundIsShown() {
        assertThat(round.desk.get("/api/rounds/" + round.id + "/rehearsal").json().path("person").asString()).isEqualTo("Ada Brook");
    }
}
