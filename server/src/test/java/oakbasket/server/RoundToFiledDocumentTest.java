package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.util.Arrays;
import java.util.HexFormat;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** The whole thread over HTTP: from a round to a document in its folder. */
class RoundToFiledDocumentTest {

    @Test
    void aSentFileLiesInItsFolderAndOnTheBoardAndTheReceiptSaysSo() throws Exception {
        TestRound round = new TestRound().open();
        TestRound.Sender ada = round.personal("Ada Brook");
        JsonNode page = ada.page().json();
        assertThat(page.path("person").asString()).isEqualTo("Ada Brook");
        assertThat(page.path("items").get(0).path("arrived").asInt()).isZero();

        byte[] content = TestRound.pdf("signed");
        ada.begin();
        assertThat(ada.send(1, "scan0001.pdf", content).status()).isEqualTo(201);
        JsonNode receipt = ada.finish().json();
        String sha256 = HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(content));
        assertThat(receipt.path("files").get(0).path("name").asString()).isEqualTo("scan0001.pdf");
        assertThat(receipt.path("files").get(0).path("sha256").asString()).isEqualTo(sha256);
        assertThat(receipt.path("code").asString()).matches("[0-9A-Z]{4}(-[0-9A-Z]{4}){2}");
        assertThat(ada.finish().json()).as("asked again").isEqualTo(receipt);

        Path filed = RunningApp.DATA.resolve("files").resolve(round.title()).resolve("Ada Brook/Ada Brook - Consent.pdf");
        assertThat(filed).hasBinaryContent(content);
        JsonNode row = round.row("Ada Brook");
        assertThat(row.path("progress").asString()).isEqualTo("COMPLETE");
        assertThat(round.standing("Ada Brook", 0)).isEqualTo("ARRIVED");
        assertThat(round.board().path("counts").path("percent").asInt()).isEqualTo(50);
        JsonNode file = round.panel("Ada Brook").path("files").get(0);
        assertThat(file.path("originalName").asString()).isEqualTo("scan0001.pdf");
        assertThat(file.path("sha256").asString()).isEqualTo(sha256);
        assertThat(ada.page().json().path("items").get(0).path("arrived").asInt()).isEqualTo(1);
        assertThat(Files.getAttribute(filed, "unix:nlink")).as("the name it had while arriving is gone").isEqualTo(1);
    }

    @Test
    void aClashNeverOverwritesAndTheSameFileTwiceIsKeptTwiceAndSaid() {
        TestRound round = new TestRound().open();
        TestRound.Sender ada = round.personal("Ada Brook").begin();
        ada.send(1, "a.pdf", TestRound.pdf("same"));
        ada.send(1, "a.pdf", TestRound.pdf("same"));
        JsonNode receipt = ada.finish().json();
        Path folder = RunningApp.DATA.resolve("files").resolve(round.title()).resolve("Ada Brook");
        assertThat(folder.resolve("Ada Brook - Consent.pdf")).hasBinaryContent(TestRound.pdf("same"));
        assertThat(folder.resolve("Ada Brook - Consent (2).pdf")).hasBinaryContent(TestRound.pdf("same"));
        assertThat(receipt.path("files").get(0).path("sentBefore").asBoolean()).isFalse();
        assertThat(receipt.path("files").get(1).path("sentBefore").asBoolean()).isTrue();
        assertThat(round.panel("Ada Brook").path("files").get(1).path("sameAs").isNull()).isFalse();
    }

    @Test
    void aFileSomebodyElsePutThereIsNotOverwrittenEither() throws Exception {
        TestRound round = new TestRound().open();
        Path folder = Files.createDirectories(RunningApp.DATA.resolve("files").resolve(round.title()).resolve("Ada Brook"));
        Files.writeString(folder.resolve("Ada Brook - Consent.pdf"), "put here by hand");
        round.personal("Ada Brook").begin().send(1, "a.pdf", TestRound.pdf("x"));
        assertThat(folder.resolve("Ada Brook - Consent.pdf")).hasContent("put here by hand");
        assertThat(folder.resolve("Ada Brook - Consent (2).pdf")).exists();
    }

    /** A fact of the trade (common practice, no source): a link that was stopped refuses although it was sent out before. */
    @Test
    void closingRefusesAtOnceButABegunUploadFinishesAndReopeningAdmitsAgain() {
        TestRound round = new TestRound().open();
        TestRound.Sender ada = round.personal("Ada Brook").begin();
        byte[] content = TestRound.pdf("begun before closing");
        String begun = ada.create(1, "a.pdf", content.length).header("Location");
        ada.patch(begun, 0, Arrays.copyOf(content, 5));
        assertThat(round.desk.post("/api/rounds/" + round.id + "/close", "").status()).isEqualTo(204);

        assertThat(ada.page().status()).isEqualTo(410);
        assertThat(ada.page().problem()).isEqualTo("link-closed");
        assertThat(ada.create(1, "b.pdf", 10).problem()).isEqualTo("link-closed");
        assertThat(ada.patch(begun, 5, Arrays.copyOfRange(content, 5, content.length)).status()).isEqualTo(204);
        assertThat(ada.finish().json().path("files")).hasSize(1);
        assertThat(round.row("Ada Brook").path("files").asInt()).isEqualTo(1);
        assertThat(round.desk.post("/api/rounds/" + round.id + "/close", "").problem()).isEqualTo("round-change");

        assertThat(round.desk.post("/api/rounds/" + round.id + "/reopen", "").status()).isEqualTo(204);
        assertThat(ada.page().status()).isEqualTo(200);
    }

    @Test
    void aReturnedFileIsOwedAgainWithItsReasonAndAReviewOverARaceIsRefused() {
        TestRound round = new TestRound().open();
        round.personal("Ada Brook").begin().send(1, "a.pdf", TestRound.pdf("unsigned"));
        long file = round.panel("Ada Brook").path("files").get(0).path("id").asLong();
        assertThat(round.desk.post("/api/files/" + file + "/review", "{\"from\":\"NONE\",\"to\":\"RETURNED\",\"reason\":\" \"}").at("reason")).contains("why");
        assertThat(round.desk.post("/api/files/" + file + "/review", "{\"from\":\"NONE\",\"to\":\"RETURNED\",\"reason\":\"Not signed\"}").status()).isEqualTo(204);
        assertThat(round.desk.post("/api/files/" + file + "/review", "{\"from\":\"NONE\",\"to\":\"ACCEPTED\"}").problem()).isEqualTo("changed-elsewhere");
        assertThat(round.standing("Ada Brook", 0)).isEqualTo("RETURNED");
        JsonNode item = round.personal("Ada Brook").page().json().path("items").get(0);
        assertThat(item.path("returnedBecause").asString()).isEqualTo("Not signed");
        assertThat(item.path("arrived").asInt()).isZero();
    }

    @Test
    void anOpenLinkMatchesByAddressAndMakesWalkInsOfOthers() {
        TestRound round = new TestRound().withOpenLink("kingfisher").open();
        TestRound.Sender sender = round.openLink();
        assertThat(sender.page().problem()).isEqualTo("link-passcode-needed");
        Http.Answer wrong = sender.http.post("/api/basket/passcode", "{\"passcode\":\"heron\"}", "Oak-Link", sender.token);
        assertThat(wrong.at("passcode")).contains("not the passcode");
        sender.ticket = sender.http.post("/api/basket/passcode", "{\"passcode\":\"kingfisher\"}", "Oak-Link", sender.token).json().path("ticket").asString();
        assertThat(sender.page().json().path("person").isNull()).isTrue();

        Http.Answer missing = sender.begin("", "nobody");
        assertThat(missing.status()).isEqualTo(422);
        assertThat(missing.at("name")).isNotEmpty();
        assertThat(missing.at("email")).contains("name@example.org");
        sender.begin("Ada B.", "ADA@example.org");
        sender.send(1, "a.pdf", TestRound.pdf("ada"));
        sender.begin("Marta Kingcup", "marta@example.net");
        sender.send(1, "m.pdf", TestRound.pdf("marta"));

        assertThat(round.row("Ada Brook").path("files").asInt()).as("claimed files count for nothing").isZero();
        assertThat(round.row("Ada Brook").path("claimed").asInt()).isEqualTo(1);
        assertThat(round.panel("Ada Brook").path("files").get(0).path("declaredAs").asString()).isEqualTo("Ada B. <ADA@example.org>");
        assertThat(round.row("Marta Kingcup").path("walkIn").asBoolean()).isTrue();
        assertThat(round.board().path("counts").path("asked").asInt()).isEqualTo(2);
        assertThat(round.board().path("counts").path("walkIns").asInt()).isEqualTo(1);
    }

    @Test
    void takingTheLinkCountsAsAskingAndSeeingThePageAsOpened() {
        TestRound round = new TestRound().open();
        long basket = round.row("Ben Reed").path("id").asLong();
        assertThat(round.row("Ben Reed").path("progress").asString()).isEqualTo("NOT_ASKED");
        round.desk.post("/api/baskets/" + basket + "/handed-over", "");
        assertThat(round.row("Ben Reed").path("progress").asString()).isEqualTo("ASKED");
        assertThat(round.desk.get("/api/rounds/" + round.id + "/rehearsal").json().path("items")).hasSize(1);
        assertThat(round.row("Ben Reed").path("progress").asString()).as("a rehearsal counts for nothing").isEqualTo("ASKED");
        round.personal("Ben Reed").page();
        assertThat(round.row("Ben Reed").path("progress").asString()).as("asking for the data is not looking").isEqualTo("ASKED");
        round.personal("Ben Reed").seen();
        assertThat(round.row("Ben Reed").path("progress").asString()).isEqualTo("OPENED");
    }

    @Test
    void aDraftCanBeRehearsedOnceNothingStandsAgainstIt() {
        TestRound round = new TestRound();
        round.begin();
        assertThat(round.desk.get("/api/rounds/" + round.id + "/rehearsal").json().path("person").asString()).isEqualTo("Ada Brook");
        round.sheet.put("title", "");
        round.begin();
        assertThat(round.desk.get("/api/rounds/" + round.id + "/rehearsal").at("title")).contains("title");
    }

    @Test
    void anExtensionMovesOnePersonsDeadlineAndNeedsAReasonAndADayToCome() {
        TestRound round = new TestRound().open();
        assertThat(round.act("EXTEND", "Ada Brook", "\"date\":\"2026-05-31\",\"reason\":\"ill\"").at("date")).contains("later day");
        assertThat(round.act("EXTEND", "Ada Brook", "\"date\":\"2026-07-10\",\"reason\":\" \"").at("reason")).contains("why");
        assertThat(round.act("EXTEND", "Ada Brook", "\"date\":\"2026-07-10\",\"reason\":\"ill\"").status()).isEqualTo(200);
        assertThat(round.row("Ada Brook").path("deadline").asString()).startsWith("2026-07-10T22:59:59");
        assertThat(round.row("Ben Reed").path("extended").asBoolean()).isFalse();
        assertThat(round.personal("Ada Brook").page().json().path("deadline").asString()).startsWith("2026-07-10T22:59:59");
        round.act("EXTEND", "Ada Brook", "\"date\":null");
        assertThat(round.row("Ada Brook").path("deadline").asString()).isEqualTo("2026-06-30T16:00:00Z");
    }

    @Test
    void aPersonExcusedFromEverythingLeavesTheDenominatorUntilAskedAgain() {
        TestRound round = new TestRound().open();
        round.act("EXCUSE", "Ada Brook", "\"on\":true");
        assertThat(round.board().path("counts").path("asked").asInt()).isEqualTo(1);
        assertThat(round.personal("Ada Brook").page().json().path("items").get(0).path("excused").asBoolean()).isTrue();
        round.act("EXCUSE", "Ada Brook", "\"on\":false");
        assertThat(round.board().path("counts").path("asked").asInt()).isEqualTo(2);
    }

    @Test
    void excusingAnItemCanBeTakenBack() {
        TestRound round = new TestRound().open();
        long item = round.board().path("items").get(0).path("id").asLong();
        round.act("EXCUSE_ITEM", "Ada Brook", "\"on\":true,\"itemId\":" + item);
        assertThat(round.row("Ada Brook").path("progress").asString()).isEqualTo("CHECKED");
        round.act("EXCUSE_ITEM", "Ada Brook", "\"on\":false,\"itemId\":" + item);
        assertThat(round.row("Ada Brook").path("progress").asString()).isEqualTo("NOT_ASKED");
        assertThat(round.act("EXCUSE_ITEM", "Ada Brook", "\"on\":true,\"itemId\":999999").problem()).isEqualTo("no-item");
    }

    /** Sources: Microsoft's published naming rules; UAX #9 and #15. The original name is kept in the record. */
    @ParameterizedTest(name = "{0} is filed as {1}")
    @CsvSource({"'CON.pdf', '_CON.pdf'", "'aux.tar.pdf', '_aux.tar.pdf'", "'..\\..\\x.pdf', '_.._x.pdf'", "'../../../x.pdf', '_.._.._x.pdf'",
        "'photo\u202Efdp.pdf', 'photofdp.pdf'", "'e\u0301.pdf', '\u00E9.pdf'", "'a\u0000b\nc.pdf', 'ab c.pdf'"})
    void hostileNamesAreFiledSafely(String original, String filed) {
        TestRound round = new TestRound();
        round.sheet.put("namePattern", "{original}{ext}");
        round.open();
        assertThat(round.personal("Ada Brook").begin().send(1, original, TestRound.pdf("x")).status()).isEqualTo(201);
        JsonNode file = round.panel("Ada Brook").path("files").get(0);
        assertThat(file.path("name").asString()).isEqualTo(filed);
        assertThat(file.path("originalName").asString()).isEqualTo(original);
        assertThat(RunningApp.DATA.resolve("files").resolve(round.title()).resolve("Ada Brook").resolve(filed)).exists();
    }

    @Test
    void aDraftIsSavedAsTypedAndAnOlderVersionNeverOverwritesANewerOne() {
        TestRound round = new TestRound();
        round.sheet.put("deadlineDate", "someday").put("peopleText", "half a li");
        JsonNode draft = round.begin().json();
        assertThat(draft.path("sheet").path("deadlineDate").asString()).isEqualTo("someday");
        assertThat(round.desk.get("/api/rounds/" + round.id + "/sheet").json().path("sheet").path("peopleText").asString()).isEqualTo("half a li");
        String save = "{\"version\":1,\"sheet\":" + round.sheet.put("title", "Second") + "}";
        assertThat(round.desk.put("/api/rounds/" + round.id + "/sheet", save).status()).isEqualTo(200);
        Http.Answer older = round.desk.put("/api/rounds/" + round.id + "/sheet", save.replace("Second", "Third"));
        assertThat(older.problem()).isEqualTo("changed-elsewhere");
        assertThat(round.desk.get("/api/rounds/" + round.id + "/sheet").json().path("head").path("title").asString()).isEqualTo("Second");
        assertThat(round.desk.send("DELETE", "/api/rounds/" + round.id, null).status()).isEqualTo(204);
        assertThat(round.desk.get("/api/rounds/" + round.id + "/sheet").problem()).isEqualTo("no-round");
    }
}
