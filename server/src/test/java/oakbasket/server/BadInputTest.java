package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.jdbc.core.simple.JdbcClient;
import tools.jackson.databind.node.ObjectNode;

/** Bad input: a clear message at the place, the right status (RFC 9457), nothing half-stored. */
class BadInputTest {

    @ParameterizedTest(name = "{0} = {1}: {2}")
    @CsvSource(delimiter = '|', value = {
        "title | '' | Give the round a title", "title | '   ' | Give the round a title",
        "deadlineDate | 2026-05-31 | in the past", "deadlineDate | '' | by when", "deadlineDate | 2026-02-30 | Not a date",
        "deadlineTime | 25:00 | Not a time", "zone | Mars/Olympus | Not a time zone", "zone | GMT+25 | Not a time zone",
        "folderPattern | {rond} | There is no field {rond}", "folderPattern | ../{person} | lead out", "folderPattern | /etc | not with /",
        "namePattern | {person}/{item} | cannot hold /", "namePattern | same | same name", "peopleText | Ben at home | not added yet",
        "graceHours | -1 | From 0"})
    void aSheetThatCannotBeOpenedSaysWhereAndWhy(String field, String value, String message) {
        TestRound round = new TestRound();
        if (field.endsWith("Hours")) {
            round.sheet.put(field, Integer.parseInt(value));
        } else {
            round.sheet.put(field, value);
        }
        Http.Answer refused = round.tryOpen();
        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.at(field)).contains(message);
        assertThat(round.desk.get("/api/rounds/" + round.id + "/board").problem()).as("still a draft").isEqualTo("no-round");
    }

    @ParameterizedTest(name = "an item with {0} = {1}: {2}")
    @CsvSource({"title, '', Name the document", "minFiles, 0, At least 1", "maxFiles, 0, Not fewer", "maxMebibytes, 0, From 1 MiB", "maxMebibytes, 2000000, From 1 MiB"})
    void anItemThatCannotBeSaysWhereAndWhy(String field, String value, String message) {
        TestRound round = new TestRound();
        ObjectNode item = (ObjectNode) round.sheet.path("items").get(0);
        if (field.equals("title")) {
            item.put(field, value);
        } else {
            item.put(field, Integer.parseInt(value));
        }
        assertThat(round.tryOpen().at("items[0]." + field)).contains(message);
    }

    @ParameterizedTest(name = "address {index}: {1}")
    @CsvSource({"nobody@localhost, full domain", "'a@example.org\r\nBcc: b@example.org', one line", "'', missing"})
    void anAddressThatCannotBeWrittenToIsRefused(String email, String message) {
        assertThat(new TestRound().person("Cy", email).tryOpen().at("people[2]")).contains(message);
    }

    @Test
    void anAddressOf255OctetsIsRefused() {
        String email = "a".repeat(60) + "@" + "d".repeat(60) + "." + "e".repeat(60) + "." + "f".repeat(60) + "." + "g".repeat(7) + ".org";
        assertThat(email).hasSize(255);
        assertThat(new TestRound().person("Cy", email).tryOpen().at("people[2]")).contains("255 octets; mail allows 254");
    }

    @ParameterizedTest(name = "folders {0}, names {1}: {2}{3}")
    @CsvSource({"{round}/{person}, {item}{ext}, Planting/Ada Brook/Consent.pdf, ''", "{round}/{group}, {person} {number}, Planting/Landowners/Ada Brook 1.pdf, ''",
        "../{person}, {item}, '', lead out", "{round}, {what}, '', There is no field {what}", "'', {item}, '', Type a pattern"})
    void thePatternsShowAnExampleOrSayWhatIsWrong(String folders, String names, String path, String problem) {
        String typed = Http.JSON.createObjectNode().put("folderPattern", folders).put("namePattern", names).put("title", "Planting").put("item", "Consent")
                .put("person", "Ada Brook").put("zone", "nowhere").toString();
        Http.Answer example = Http.desk().post("/api/patterns/example", typed);
        assertThat(example.json().path("path").asString()).isEqualTo(path);
        String told = String.join(" ", example.json().path("errors").findValuesAsString("detail"));
        assertThat(told).contains(problem);
        assertThat(told.isEmpty()).isEqualTo(problem.isEmpty());
    }

    @Test
    void whatIsOddIsSaidButDoesNotStopARound() {
        TestRound round = new TestRound().item("consent", false, 1, 1, 1);
        round.sheet.put("deadlineDate", "2026-06-28");
        ((ObjectNode) round.sheet.path("items").get(0)).put("required", false);
        String odd = round.begin().json().path("oddities").toString();
        assertThat(odd).contains("weekend", "Two items are called", "No item is required");
        assertThat(round.tryOpen().status()).isEqualTo(204);
    }

    @Test
    void repeatedPeopleAreOneAndBadLinesComeBackWithTheirReasons() {
        Http.Answer read = Http.desk().post("/api/people/read", "{\"text\":\"Ada <ada@example.org>\\nada@EXAMPLE.org\\nnonsense\"}");
        assertThat(read.json().path("people")).hasSize(1);
        assertThat(read.json().path("merged").asInt()).isEqualTo(1);
        assertThat(read.json().path("refused").get(0).path("line").asInt()).isEqualTo(3);
    }

    @ParameterizedTest(name = "{0} of {1} bytes: {2} {3}")
    @CsvSource({
        "a.pdf,     0,       422, file-empty",
        "a.pdf,     1048577, 413, upload-too-large",
        "a.jpg,     10,      422, kind-not-wanted",
        "a.exe,     10,      422, kind-program",
        "'',        10,      422, file-name"})
    void aFileThatCannotBeTakenIsRefusedBeforeItsBytes(String name, long length, int status, String problem) throws IOException {
        TestRound.Sender ada = new TestRound().open().personal("Ada Brook").begin();
        long uploads = uploads();
        Http.Answer refused = ada.create(1, name, length);
        assertThat(refused.status()).isEqualTo(status);
        assertThat(refused.header("Location")).as("there is nowhere to send bytes to").isEmpty();
        assertThat(uploads()).isEqualTo(uploads);
        assertThat(refused.problem()).isEqualTo(problem);
        assertThat(ada.finish().problem()).isEqualTo("nothing-sent");
    }

    private static long uploads() throws IOException {
        try (Stream<Path> incoming = Files.list(RunningApp.DATA.resolve("incoming"))) {
            return incoming.count() + RunningApp.bean(JdbcClient.class).sql("SELECT COUNT(*) FROM upload").query(Long.class).single();
        }
    }

    @ParameterizedTest(name = "renamed {0}: {1}")
    @CsvSource({"program, kind-program", "png, kind-disguised", "zip, kind-disguised", "script, kind-program"})
    void aFileRenamedToHideItsKindIsFoundOutAndNothingIsStored(String kind, String problem) {
        byte[] content = switch (kind) {
            case "program" -> bytes("MZ\u0090\0\3\0\0\0\4\0\0\0", 600);
            case "png" -> bytes("\u0089PNG\r\n\u001a\n\0\0\0\rIHDR", 200);
            case "zip" -> bytes("PK\3\4\24\0\0\0", 100);
            default -> "#!/bin/sh\nrm -rf /\n".getBytes();
        };
        TestRound round = new TestRound().open();
        Http.Answer refused = round.personal("Ada Brook").begin().send(1, "consent.pdf", content);
        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.problem()).isEqualTo(problem);
        assertThat(refused.json().path("detail").asString()).contains("consent.pdf");
        assertThat(round.row("Ada Brook").path("files").asInt()).isZero();
        assertThat(RunningApp.DATA.resolve("files").resolve(round.title())).doesNotExist();
    }

    @Test
    void ofThreeHundredFilesAtOnceThoseThatFitArriveAndTheOthersAreToldWhy() {
        TestRound round = new TestRound();
        ((ObjectNode) round.sheet.path("items").get(0)).put("maxFiles", 200);
        round.open();
        TestRound.Sender ada = round.personal("Ada Brook").begin();
        var refused = java.util.stream.IntStream.range(0, 300).parallel().mapToObj(n -> ada.send(1, n + ".pdf", TestRound.pdf("" + n)))
                .filter(answer -> answer.status() != 201).toList();
        assertThat(refused).hasSize(100).allSatisfy(answer -> assertThat(answer.problem()).isEqualTo("too-many-files"));
        assertThat(ada.finish().json().path("files")).hasSize(200);
        assertThat(round.row("Ada Brook").path("files").asInt()).isEqualTo(200);
    }

    @ParameterizedTest(name = "{0} {1}: {2} {3}")
    @CsvSource({
        "POST, /api/rounds, 400, unreadable", "POST, /api/people/read, 400, unreadable", "PUT, /api/rounds/1/sheet, 400, unreadable",
        "GET, /api/rounds/abc/board, 400, unreadable", "GET, /api/rounds/999999/board, 404, no-round", "GET, /api/baskets/999999, 404, no-basket",
        "GET, /api/files/999999, 404, no-file", "GET, /api/files.zip, 404, no-files-chosen", "PATCH, /api/rounds, 405, method", "GET, /api/nothing, 404, not-found", "GET, /api//rounds, 400, request"})
    void everyRefusalIsAProblemDetail(String method, String path, int status, String problem) {
        Http.Answer answer = Http.desk().send(method, path, method.equals("GET") ? null : "this is not JSON".getBytes(), "Content-Type", "application/json");
        assertThat(answer.status()).isEqualTo(status);
        assertThat(answer.problem()).isEqualTo(problem);
        assertThat(answer.json().path("status").asInt()).isEqualTo(status);
        assertThat(answer.json().path("detail").asString()).isNotBlank();
    }

    private static byte[] bytes(String start, int length) {
        return java.util.Arrays.copyOf(start.getBytes(java.nio.charset.StandardCharsets.ISO_8859_1), length);
    }
}
