package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** What coordinators do to baskets, one or many at once, and undo. */
class ActsTest {

    @Test
    void manyAreExtendedAtOnceAndUndoneAsAWhole() {
        TestRound round = new TestRound().person("Cy Moss", "cy.moss@example.org").open();
        Http.Answer done = round.desk.post("/api/rounds/" + round.id + "/acts", "{\"kind\":\"EXTEND\",\"baskets\":" + all(round) + ",\"date\":\"2026-07-10\",\"reason\":\"flood\"}");
        assertThat(done.json().path("changed").asInt()).isEqualTo(3);
        assertThat(round.row("Cy Moss").path("extended").asBoolean()).isTrue();
        assertThat(round.panel("Cy Moss").path("story").get(0).path("detail").asString()).isEqualTo("2026-07-10: flood");
        assertThat(round.panel("Cy Moss").path("story").get(0).path("by").asString()).isEqualTo("Robin Fenn");
        undo(round, done);
        assertThat(round.row("Cy Moss").path("extended").asBoolean()).isFalse();
        assertThat(round.panel("Cy Moss").path("story").get(0).path("undone").asBoolean()).isTrue();
        assertThat(round.desk.post("/api/acts/" + done.json().path("act") + "/undo", "").problem()).isEqualTo("undone-already");
    }

    @Test
    void theSecondOfTwoCoordinatorsIsToldAndNothingIsOverwritten() {
        TestRound round = new TestRound().open();
        String seen = all(round);
        Http first = Http.freshDesk();
        Http second = Http.freshDesk();
        String path = "/api/rounds/" + round.id + "/acts";
        Http.Answer mine = first.post(path, "{\"kind\":\"NOTE\",\"baskets\":[" + one(round, "Ada Brook") + "],\"text\":\"rings on Fridays\"}");
        assertThat(mine.status()).isEqualTo(200);
        Http.Answer late = second.post(path, "{\"kind\":\"EXCUSE\",\"on\":true,\"baskets\":" + seen + "}");
        assertThat(late.status()).isEqualTo(409);
        assertThat(late.problem()).isEqualTo("basket-changed-elsewhere");
        assertThat(late.json().path("detail").asString()).contains("Ada Brook").doesNotContain("Ben Reed");
        assertThat(round.row("Ben Reed").path("waived").asBoolean()).as("nothing half done").isFalse();
        second.post(path, "{\"kind\":\"PAUSE\",\"on\":true,\"baskets\":[" + one(round, "Ada Brook") + "]}");
        assertThat(first.post("/api/acts/" + mine.json().path("act") + "/undo", "").problem()).as("an undo does not undo what came after").isEqualTo("basket-changed-elsewhere");
        assertThat(round.row("Ada Brook").path("note").asString()).isEqualTo("rings on Fridays");
    }

    @Test
    void excusingEverybodyLeavesNobodyToCount() {
        TestRound round = new TestRound().open();
        Http.Answer done = round.desk.post("/api/rounds/" + round.id + "/acts", "{\"kind\":\"EXCUSE\",\"on\":true,\"baskets\":" + all(round) + "}");
        JsonNode counts = round.board().path("counts");
        assertThat(List.of(counts.path("asked").asInt(), counts.path("complete").asInt(), counts.path("percent").asInt(), counts.path("waived").asInt())).containsExactly(0, 0, 0, 2);
        undo(round, done);
        assertThat(round.board().path("counts").path("asked").asInt()).isEqualTo(2);
    }

    @Test
    void whoIsRemovedLeavesTheCountsAndTheLinkStopsUntilPutBack() {
        TestRound round = new TestRound().open();
        TestRound.Sender ada = round.personal("Ada Brook").begin();
        ada.send(1, "a.pdf", TestRound.pdf("x"));
        Http.Answer removed = round.act("REMOVE", "Ada Brook", "\"on\":true");
        assertThat(round.board().path("counts").path("asked").asInt()).isEqualTo(1);
        assertThat(round.row("Ada Brook").path("removed").asBoolean()).as("kept in the history").isTrue();
        assertThat(round.row("Ada Brook").path("files").asInt()).isEqualTo(1);
        assertThat(ada.page().problem()).isEqualTo("link-unknown");
        undo(round, removed);
        assertThat(ada.page().status()).isEqualTo(200);
        assertThat(round.board().path("counts").path("complete").asInt()).isEqualTo(1);
    }

    @Test
    void whoIsAskedLateGetsALinkAndWhoIsInAlreadyIsLeftAlone() {
        TestRound round = new TestRound().open();
        String body = "{\"people\":[{\"name\":\"Ada Brook\",\"email\":\"ada@example.org\"},{\"name\":\"Lin Late\",\"email\":\"lin.late@example.org\"}],\"groups\":[]}";
        Http.Answer added = round.desk.post("/api/rounds/" + round.id + "/people", body);
        assertThat(added.json().path("changed").asInt()).isEqualTo(1);
        assertThat(round.personal("Lin Late").page().status()).isEqualTo(200);
        undo(round, added);
        assertThat(round.row("Lin Late").path("removed").asBoolean()).isTrue();
        assertThat(round.desk.post("/api/rounds/" + round.id + "/people", body).json().path("changed").asInt()).as("put back").isEqualTo(1);
        assertThat(round.row("Lin Late").path("removed").asBoolean()).isFalse();
        assertThat(round.desk.post("/api/rounds/" + round.id + "/people", body.replace("lin.late@", "lin late")).at("people[1]")).isNotEmpty();
        round.desk.post("/api/rounds/" + round.id + "/close", "");
        assertThat(round.desk.post("/api/rounds/" + round.id + "/people", body).problem()).isEqualTo("round-not-gathering");
    }

    @Test
    void whoIsPausedIsCountedApartAndNotChasedAndCanStillSend() {
        TestRound round = new TestRound().open();
        round.act("PAUSE", "Ada Brook", "\"on\":true");
        assertThat(round.board().path("counts").path("paused").asInt()).isEqualTo(1);
        RunningApp.CLOCK.set(Instant.parse("2026-07-03T09:00:00Z"));
        try {
            assertThat(round.board().path("counts").path("byTimeliness").path("OVERDUE").asInt()).as("Ben alone").isEqualTo(1);
            assertThat(ReadTile.of(round.row("Ada Brook"), 0).overdue()).isFalse();
            assertThat(ReadTile.of(round.row("Ben Reed"), 0).overdue()).isTrue();
            assertThat(round.desk.get("/api/rounds/" + round.id + "/table.csv").text().lines().filter(line -> line.contains("overdue"))).singleElement().asString().contains("Ben Reed");
            assertThat(round.desk.get("/api/today").json().path("needsYou").toString()).contains("\"people\":[\"Ben Reed\"]");
        } finally {
            RunningApp.CLOCK.set(Instant.parse("2026-06-01T09:00:00Z"));
        }
        assertThat(round.personal("Ada Brook").begin().send(1, "a.pdf", TestRound.pdf("x")).status()).isEqualTo(201);
        assertThat(round.board().path("counts").path("paused").asInt()).as("nothing is owed any more").isZero();
    }

    @Test
    void everythingOfABasketIsAcceptedAtOnceAndTheFirstCopyIsNamed() {
        TestRound round = new TestRound().item("Map", true, 1, 3, 1, "PDF").open();
        TestRound.Sender ada = round.personal("Ada Brook").begin();
        String content = "the same map of " + round.title();
        ada.send(1, "a.pdf", TestRound.pdf(content));
        ada.send(2, "b.pdf", TestRound.pdf("another of " + round.title()));
        round.personal("Ben Reed").begin().send(2, "c.pdf", TestRound.pdf(content));
        JsonNode waiting = round.desk.get("/api/rounds/" + round.id + "/to-check").json().path("files");
        assertThat(waiting).hasSize(3);
        JsonNode copy = waiting.get(2);
        assertThat(copy.path("person").asString() + " " + copy.path("item").asString()).isEqualTo("Ben Reed Map");
        assertThat(copy.path("file").path("sameAs").path("person").asString()).isEqualTo("Ada Brook");
        assertThat(waiting.get(0).path("file").path("sameAs").isNull()).isTrue();
        JsonNode accepted = round.desk.post("/api/baskets/" + round.row("Ada Brook").path("id") + "/accept-all", "").json();
        assertThat(accepted.path("files")).hasSize(2);
        assertThat(round.row("Ada Brook").path("progress").asString()).isEqualTo("CHECKED");
        assertThat(round.desk.post("/api/files/unaccept", accepted.toString()).status()).isEqualTo(204);
        assertThat(round.row("Ada Brook").path("progress").asString()).isEqualTo("COMPLETE");
    }

    @Test
    void actsThatCannotBeAreRefused() {
        TestRound round = new TestRound().open();
        TestRound other = new TestRound().open();
        String path = "/api/rounds/" + round.id + "/acts";
        assertThat(round.desk.post(path, "{\"kind\":\"EXCUSE\",\"on\":true,\"baskets\":[]}").at("baskets")).isNotEmpty();
        assertThat(round.desk.post(path, "{\"kind\":\"EXCUSE\",\"on\":true,\"baskets\":" + all(other) + "}").problem()).isEqualTo("no-basket");
        assertThat(round.desk.post(path, "{\"kind\":\"SING\",\"baskets\":" + all(round) + "}").status()).isEqualTo(400);
        assertThat(round.act("NOTE", "Ada Brook", "\"text\":\"" + "x".repeat(501) + "\"").at("text")).contains("500");
        assertThat(round.desk.post("/api/acts/999999/undo", "").problem()).isEqualTo("no-act");
    }

    @Test
    void searchFindsPeopleRoundsFilesAndReceiptCodes() {
        TestRound round = new TestRound();
        round.sheet.put("title", "Heronry count " + round.title());
        round.person("Quill Heronshaw", "quill@example.org").open();
        TestRound.Sender quill = round.personal("Quill Heronshaw").begin();
        quill.send(1, "bittern.pdf", TestRound.pdf("x"));
        String code = quill.finish().json().path("code").asString();
        assertThat(kinds(round, "Heronshaw")).contains("person", "file");
        assertThat(kinds(round, "heronry")).contains("round");
        assertThat(kinds(round, "BITTERN")).containsExactly("file");
        assertThat(kinds(round, code.toLowerCase())).contains("receipt");
        assertThat(kinds(round, "%")).isEmpty();
        assertThat(kinds(round, "%%%")).isEmpty();
    }

    private static List<String> kinds(TestRound round, String words) {
        List<String> kinds = new ArrayList<>();
        round.desk.get("/api/search?find=" + java.net.URLEncoder.encode(words, java.nio.charset.StandardCharsets.UTF_8)).json().forEach(hit -> kinds.add(hit.path("kind").asString()));
        return kinds;
    }

    private static void undo(TestRound round, Http.Answer done) {
        assertThat(round.desk.post("/api/acts/" + done.json().path("act") + "/undo", "").status()).isEqualTo(200);
    }

    private static String one(TestRound round, String name) {
        JsonNode row = round.row(name);
        return "{\"id\":" + row.path("id") + ",\"version\":" + row.path("version") + "}";
    }

    private static String all(TestRound round) {
        List<String> all = new ArrayList<>();
        round.board().path("rows").forEach(row -> all.add("{\"id\":" + row.path("id") + ",\"version\":" + row.path("version") + "}"));
        return all.toString();
    }
}
