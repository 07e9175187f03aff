package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** Files that should never have come. */
class RemovedFilesTest {

    private final TestRound round = new TestRound().open();
    private final JsonNode file = sent();

    private JsonNode sent() {
        round.personal("Ada Brook").begin().send(1, "wrong.pdf", "%PDF-1.4\nwrong\n%%EOF".getBytes());
        return round.panel("Ada Brook").path("files").get(0);
    }

    private Http.Answer remove(String reason) {
        return round.desk.post("/api/removals/" + file.path("id"), "{\"reason\":\"" + reason + "\"}");
    }

    private String progress() {
        return round.panel("Ada Brook").path("row").path("progress").asString();
    }

    private List<String> story() {
        return StreamSupport.stream(round.panel("Ada Brook").path("story").spliterator(), false).map(event -> event.path("what").asString()).toList();
    }

    @Test
    void aRemovedFileCountsNowhereLeavesItsFolderAndGivesItsPlaceFree() {
        Path place = RunningApp.DATA.resolve("files").resolve(file.path("path").asString());
        assertThat(Files.exists(place)).isTrue();
        assertThat(progress()).isEqualTo("COMPLETE");
        assertThat(remove("Sent by mistake").status()).isEqualTo(204);
        assertThat(Files.exists(place)).isFalse();
        assertThat(progress()).isNotIn("COMPLETE", "PART");
        assertThat(round.desk.get("/api/rounds/" + round.id + "/files.csv").text()).doesNotContain("wrong.pdf");
        assertThat(round.desk.get("/api/files/" + file.path("id")).status()).isEqualTo(404);
        round.personal("Ada Brook").begin().send(1, "right.pdf", "%PDF-1.4\nright\n%%EOF".getBytes());
        assertThat(progress()).isEqualTo("COMPLETE");
        assertThat(story()).contains("file-removed", "sent");
    }

    @Test
    void aRemovedFileComesBackWithItsIdItsBytesAndAPlaceOfItsOwn() {
        remove("Sent by mistake");
        round.personal("Ada Brook").begin().send(1, "right.pdf", "%PDF-1.4\nright\n%%EOF".getBytes());
        assertThat(round.desk.post("/api/removals/" + file.path("id") + "/undo", "{}").status()).isEqualTo(204);
        JsonNode files = round.panel("Ada Brook").path("files");
        assertThat(files).hasSize(2);
        assertThat(files.get(0).path("path").asString()).isNotEqualTo(files.get(1).path("path").asString());
        assertThat(round.desk.get("/api/files/" + file.path("id")).text()).contains("wrong");
        assertThat(story()).containsSequence("file-removed", "sent", "file-restored");
        assertThat(round.desk.post("/api/removals/" + file.path("id") + "/undo", "{}").status()).as("a second time").isEqualTo(404);
    }

    /** Two contacts become one: what was removed goes over with what was sent, and can still be put back. */
    @Test
    void aRemovedFileGoesOverWhenContactsAreMerged() {
        TestRound merged = new TestRound().onlyPeople("Merle Kept", "Merle Gone").open();
        merged.personal("Merle Gone").begin().send(1, "wrong.pdf", TestRound.pdf("wrong"));
        long id = merged.panel("Merle Gone").path("files").get(0).path("id").asLong();
        assertThat(merged.desk.post("/api/removals/" + id, "{\"reason\":\"Sent by mistake\"}").status()).isEqualTo(204);
        JsonNode keep = contact(merged, "Merle Kept");
        JsonNode gone = contact(merged, "Merle Gone");
        Http.Answer answer = merged.desk.post("/api/contacts/merge", "{\"keep\":%s,\"gone\":%s,\"keepVersion\":%s,\"goneVersion\":%s}".formatted(keep.path("id"), gone.path("id"),
                keep.path("version"), gone.path("version")));
        assertThat(answer.status()).as(answer.text()).isEqualTo(200);
        assertThat(merged.panel("Merle Kept").path("removed")).hasSize(1);
        assertThat(merged.desk.post("/api/removals/" + id + "/undo", "{}").status()).isEqualTo(204);
        assertThat(merged.panel("Merle Kept").path("files")).hasSize(1);
    }

    private static JsonNode contact(TestRound round, String name) {
        return round.desk.get("/api/contacts/" + round.row(name).path("contactId")).json().path("contact");
    }

    @Test
    void aSecondRemovalOfTheSameFileIsToldThatItIsGone() {
        assertThat(remove("Sent by mistake").status()).isEqualTo(204);
        assertThat(remove("Sent by mistake").status()).isEqualTo(404);
        assertThat(round.panel("Ada Brook").path("removed")).hasSize(1);
    }

    @Test
    void aRemovalNeedsAReasonOfSomeWords() {
        assertThat(remove("  ").status()).isEqualTo(422);
        assertThat(remove("x".repeat(501)).status()).isEqualTo(422);
        assertThat(round.panel("Ada Brook").path("files")).hasSize(1);
    }

    /** An item with a removed file cannot leave the checklist: the file may be put back. */
    @Test
    void whatWasRemovedHoldsItsDocumentInTheChecklist() {
        remove("Sent by mistake");
        JsonNode changing = round.desk.get("/api/rounds/" + round.id + "/change").json();
        ObjectNode sheet = (ObjectNode) changing.path("sheet");
        sheet.putArray("items").add(((ObjectNode) round.sheet.path("items").get(0).deepCopy()).put("title", "Something else"));
        Http.Answer answer = round.desk.post("/api/rounds/" + round.id + "/change", "{\"version\":" + changing.path("version") + ",\"sheet\":" + sheet + "}");
        assertThat(answer.status()).as(answer.text()).isEqualTo(422);
        assertThat(answer.text()).contains("Consent");
    }
}
