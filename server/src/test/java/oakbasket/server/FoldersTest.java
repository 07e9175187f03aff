package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** Folders as they lie on the disk: listed, searched, changed by hand from the desk, and looked at for what was changed past it; the bin and the date until when papers are kept. */
class FoldersTest {

    private final Instant before = RunningApp.CLOCK.instant();
    private final Http desk = Http.desk();
    private final TestRound round = new TestRound().item("Notes", false, 1, 90, 1);
    private final Path folder = RunningApp.DATA.resolve("files").resolve(round.title());

    private TestRound opened() {
        return round.open();
    }

    @AfterEach
    void theClockGoesOn() {
        RunningApp.CLOCK.set(before);
    }

    private long send(String person, String name, String content) {
        TestRound.Sender sender = round.personal(person).begin();
        assertThat(sender.send(2, name, content.getBytes(StandardCharsets.UTF_8)).status()).isEqualTo(201);
        sender.finish();
        return idOf(person, name);
    }

    private long idOf(String person, String name) {
        for (JsonNode file : round.panel(person).path("files")) {
            if (file.path("originalName").asString().equals(name)) {
                return file.path("id").asLong();
            }
        }
        throw new AssertionError(name);
    }

    private List<String> names(String query) {
        List<String> names = new ArrayList<>();
        desk.get("/api/folders?path=" + round.title().replace(" ", "%20") + query).json().path("rows").forEach(row -> names.add(row.path("name").asString()));
        return names;
    }

    private String json(String key, String value, String more) {
        return "{\"" + key + "\":" + Http.JSON.valueToTree(value) + more + "}";
    }

    @Test
    void aFolderIsListedSortedAndSearched() throws Exception {
        opened();
        send("Ada Brook", "b.txt", "22");
        send("Ben Reed", "a.txt", "1");
        Files.writeString(folder.resolve("Zettel.txt"), "not from a sender");
        Files.createSymbolicLink(folder.resolve("out"), Path.of("/etc"));
        assertThat(names("")).as("folders first, links not at all").containsExactly("Ada Brook", "Ben Reed", "Zettel.txt");
        JsonNode ada = desk.get("/api/folders?path=" + round.title().replace(" ", "%20") + "/Ada%20Brook").json();
        assertThat(ada.path("rows").get(0).path("person").asString()).isEqualTo("Ada Brook");
        assertThat(ada.path("rows").get(0).path("item").asString()).isEqualTo("Notes");
        assertThat(ada.path("rows").get(0).path("bytes").asLong()).isEqualTo(2);
        assertThat(names("&find=notes")).containsExactlyInAnyOrder("Ada Brook - Notes.txt", "Ben Reed - Notes.txt");
        assertThat(names("&find=A.TXT")).as("also by the name it was sent under").containsExactly("Ben Reed - Notes.txt");
        assertThat(names("&kind=PDF")).isEmpty();
        assertThat(names("&kind=DOCUMENT&find=ada")).containsExactly("Ada Brook - Notes.txt");
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource({"..", "../keys", "a/../../keys", "/etc", "no such folder", ":2/x", "%2e%2e"})
    void nothingOutsideIsListed(String path) {
        assertThat(desk.get("/api/folders?path=" + path.replace(" ", "%20")).status()).isEqualTo(404);
        assertThat(desk.post("/api/folders/new", json("path", path, ",\"name\":\"x\"")).status()).isEqualTo(404);
    }

    @Test
    void filesAndFoldersAreRenamedMovedAndTakenAway() throws Exception {
        opened();
        long one = send("Ada Brook", "one.txt", "one");
        long two = send("Ada Brook", "two.txt", "two");
        String title = round.title();
        assertThat(desk.post("/api/folders/new", json("path", title, ",\"name\":\"Sorted\"")).status()).isEqualTo(201);
        assertThat(desk.post("/api/folders/new", json("path", title, ",\"name\":\"Sorted\"")).at("name")).isNotEmpty();
        assertThat(desk.post("/api/folders/new", json("path", title, ",\"name\":\"a/b\"")).at("name")).contains("a_b");
        assertThat(desk.post("/api/folders/files/" + one + "/name", json("name", "Ada Brook - Notes (2).txt", "")).at("name")).as("taken").isNotEmpty();
        assertThat(desk.post("/api/folders/files/" + one + "/name", json("name", "CON.txt", "")).at("name")).isNotEmpty();
        assertThat(desk.post("/api/folders/files/" + one + "/name", json("name", "\u00dcberblick.txt", "")).status()).isEqualTo(204);
        assertThat(folder.resolve("Ada Brook/\u00dcberblick.txt")).hasContent("one");
        assertThat(desk.post("/api/folders/files", "{\"files\":[" + one + "," + two + "],\"path\":\"" + title + "/Sorted\"}").status()).isEqualTo(204);
        assertThat(folder.resolve("Sorted/\u00dcberblick.txt")).hasContent("one");
        assertThat(desk.post("/api/folders/remove", json("path", title + "/Sorted", "")).problem()).isEqualTo("folder-not-empty");

        JsonNode batch = desk.post("/api/folders/move", "{\"path\":\"" + title + "/Sorted\",\"toPath\":\"" + title + "\",\"name\":\"Done\"}").json();
        Waiting.until(() -> desk.get("/api/refilings/" + batch.path("id")).json().path("refiling"), view -> !view.path("endedAt").isNull());
        assertThat(folder.resolve("Done/\u00dcberblick.txt")).hasContent("one");
        assertThat(folder.resolve("Sorted")).as("not left behind").doesNotExist();
        assertThat(desk.post("/api/folders/move", "{\"path\":\"" + title + "/Done\",\"toPath\":\"" + title + "/Done\",\"name\":\"x\"}").problem()).isEqualTo("folder-into-itself");

        byte[] zip = desk.get("/api/files.zip?root=1&path=" + title.replace(" ", "%20")).response().body();
        List<String> entries = new ArrayList<>();
        try (ZipInputStream in = new ZipInputStream(new ByteArrayInputStream(zip))) {
            for (ZipEntry entry = in.getNextEntry(); entry != null; entry = in.getNextEntry()) {
                entries.add(entry.getName());
            }
        }
        assertThat(entries).containsExactlyInAnyOrder("\u00dcberblick.txt", "Ada Brook - Notes (2).txt");
        JsonNode details = desk.get("/api/folders/files/" + one).json();
        assertThat(details.path("place").asString()).isEqualTo(title + "/Done/\u00dcberblick.txt");
        assertThat(details.path("sha256").asString()).isEqualTo(Http.sha256("one".getBytes(StandardCharsets.UTF_8)));
        List<String> acts = new ArrayList<>();
        desk.get("/api/journal?file=" + one).json().path("lines").forEach(line -> acts.add(line.path("act").asString()));
        assertThat(acts).containsExactly("MOVED", "MOVED", "RENAMED", "PLACED");
    }

    @Test
    void aNameOf255BytesIsMovedDeepAndTooDeepIsRefused() {
        opened();
        long file = send("Ada Brook", "one.txt", "one");
        String name = "\u00e9".repeat(125) + ".txt";
        assertThat(desk.post("/api/folders/files/" + file + "/name", json("name", name, "")).status()).isEqualTo(204);
        String path = round.title();
        int made = 0;
        for (int n = 0; n < 13; n++) {
            String inner = "d".repeat(250);
            if (desk.post("/api/folders/new", json("path", path, ",\"name\":\"" + inner + "\"")).status() != 201) {
                break;
            }
            path += "/" + inner;
            made++;
        }
        assertThat(made).isBetween(9, 12);
        String deep = path;
        assertThat(desk.post("/api/folders/files", "{\"files\":[" + file + "],\"path\":\"" + deep + "\"}").status()).isIn(204, 422);
        assertThat(desk.get("/api/files/" + file).response().body()).as("wherever it is, it is there").isEqualTo("one".getBytes(StandardCharsets.UTF_8));
    }

    private JsonNode finding(String kind) {
        for (JsonNode one : desk.post("/api/findings/look", "").json().path("findings")) {
            if (one.path("kind").asString().equals(kind) && one.path("place").asString().startsWith(round.title())) {
                return one;
            }
        }
        return Http.JSON.missingNode();
    }

    private Http.Answer settle(JsonNode finding, String choice) {
        return desk.post("/api/findings/" + finding.path("id").asLong(), json("choice", choice, ""));
    }

    private static void old(Path file) throws Exception {
        Files.setLastModifiedTime(file, FileTime.from(Instant.now().minusSeconds(60)));
    }

    @Test
    void whatIsChangedByHandIsNoticedAndReconciledByChoice() throws Exception {
        opened();
        // A content of its own: of two unknown files with the same one nobody could say which was moved.
        String content = "one of " + round.title();
        long one = send("Ada Brook", "one.txt", content);
        Path lies = folder.resolve("Ada Brook/Ada Brook - Notes.txt");
        assertThat(finding("MISSING").isMissingNode()).isTrue();

        Files.move(lies, folder.resolve("elsewhere.txt"));
        old(folder.resolve("elsewhere.txt"));
        JsonNode missing = finding("MISSING");
        assertThat(missing.path("movedTo").asString()).isEqualTo(round.title() + "/elsewhere.txt");
        assertThat(finding("NEW").isMissingNode()).as("told with the missing one").isTrue();
        assertThat(settle(missing, "FOLLOW").status()).isEqualTo(204);
        assertThat(desk.get("/api/files/" + one).status()).isEqualTo(200);
        assertThat(desk.get("/api/folders/files/" + one).json().path("place").asString()).isEqualTo(round.title() + "/elsewhere.txt");

        Files.move(folder.resolve("elsewhere.txt"), folder.resolve("again.txt"));
        old(folder.resolve("again.txt"));
        assertThat(settle(finding("MISSING"), "PUT_BACK").status()).isEqualTo(204);
        assertThat(folder.resolve("elsewhere.txt")).hasContent(content);
        assertThat(folder.resolve("again.txt")).doesNotExist();

        Files.writeString(folder.resolve("elsewhere.txt"), "worked on");
        JsonNode altered = finding("ALTERED");
        assertThat(desk.get("/api/folders/files/" + one).json().path("sha256").asString()).as("until somebody chooses, the record stays").isEqualTo(Http.sha256(content.getBytes(StandardCharsets.UTF_8)));
        assertThat(desk.get("/api/files/" + one).problem()).as("and what does not fit it is not given out").isEqualTo("file-altered");
        Files.writeString(folder.resolve("elsewhere.txt"), "worked on again");
        assertThat(settle(altered, "TAKE_OVER").problem()).as("not what was found").isEqualTo("changed-elsewhere");
        assertThat(settle(finding("ALTERED"), "TAKE_OVER").status()).isEqualTo(204);
        assertThat(desk.get("/api/folders/files/" + one).json().path("sha256").asString()).isEqualTo(Http.sha256("worked on again".getBytes(StandardCharsets.UTF_8)));
        assertThat(desk.get("/api/files/" + one).text()).as("taken over, it leaves").isEqualTo("worked on again");
        assertThat(desk.get("/api/journal?file=" + one).json().path("lines").get(0).path("why").asString()).contains(Http.sha256(content.getBytes(StandardCharsets.UTF_8)));

        Files.writeString(folder.resolve("new.txt"), "new");
        old(folder.resolve("new.txt"));
        JsonNode fresh = finding("NEW");
        assertThat(settle(fresh, "LEAVE").status()).isEqualTo(204);
        assertThat(finding("NEW").path("leftAlone").asBoolean()).as("a choice lasts").isTrue();
        assertThat(settle(fresh, "FOLLOW").problem()).isEqualTo("finding-other");

        Files.delete(folder.resolve("elsewhere.txt"));
        assertThat(settle(finding("MISSING"), "GIVE_UP").status()).isEqualTo(204);
        assertThat(round.row("Ada Brook").path("files").asInt()).isZero();
        Files.delete(folder.resolve("new.txt"));
        assertThat(finding("NEW").isMissingNode()).as("what is not found any more goes").isTrue();
    }

    @Test
    void theBinIsEmptiedOnItsDateUnlessTheRoundIsHeld() {
        opened();
        long one = send("Ada Brook", "one.txt", "one");
        desk.post("/api/removals/" + one, json("reason", "twice", ""));
        JsonNode binned = binned(one);
        assertThat(binned.path("reason").asString()).isEqualTo("twice");
        Instant empties = Instant.parse(binned.path("emptiedAt").asString());
        assertThat(empties).isEqualTo(Instant.parse(binned.path("removedAt").asString()).plus(Duration.ofDays(30)));
        assertThat(desk.post("/api/retention/" + round.id + "/hold", json("reason", " ", "")).at("reason")).isNotEmpty();
        assertThat(desk.post("/api/retention/" + round.id + "/hold", json("reason", "an audit", "")).status()).isEqualTo(204);
        RunningApp.CLOCK.set(empties.plusSeconds(60));
        purge();
        assertThat(binned(one).path("held").asBoolean()).as("never while it is held").isTrue();
        assertThat(desk.post("/api/retention/" + round.id + "/release", "").status()).isEqualTo(204);
        assertThat(desk.post("/api/retention/" + round.id + "/release", "").problem()).isEqualTo("not-held");
        purge();
        assertThat(binned(one).isMissingNode()).isTrue();
        assertThat(desk.post("/api/removals/" + one + "/undo", "").status()).as("gone for good").isGreaterThanOrEqualTo(400);
        assertThat(desk.get("/api/journal?file=" + one).json().path("lines").get(0).path("act").asString()).isEqualTo("PURGED");
    }

    private JsonNode binned(long file) {
        for (JsonNode row : desk.get("/api/retention").json().path("bin")) {
            if (row.path("fileId").asLong() == file) {
                return row;
            }
        }
        return Http.JSON.missingNode();
    }

    private static void purge() {
        try {
            java.lang.reflect.Method run = Class.forName("oakbasket.server.retention.Purge").getDeclaredMethod("run");
            run.setAccessible(true);
            run.invoke(RunningApp.bean(Class.forName("oakbasket.server.retention.Purge")));
        } catch (ReflectiveOperationException problem) {
            throw new AssertionError(problem);
        }
    }

    @Test
    void aClosedRoundIsPurgedAfterItsDateAndItsRecordStays() {
        round.sheet.put("keepUntil", "2026-08-31");
        opened();
        long one = send("Ada Brook", "one.txt", "one");
        Path lies = folder.resolve("Ada Brook/Ada Brook - Notes.txt");
        RunningApp.CLOCK.set(Instant.parse("2026-08-25T10:00:00Z"));
        assertThat(desk.get("/api/today").json().path("needsYou").toString()).as("warned beforehand").contains("{\"what\":\"retention-soon\",\"roundId\":" + round.id);
        RunningApp.CLOCK.set(Instant.parse("2026-09-02T10:00:00Z"));
        purge();
        assertThat(lies).as("a round that gathers keeps its files").exists();
        desk.post("/api/rounds/" + round.id + "/close", "");
        RunningApp.CLOCK.set(Instant.parse("2026-08-31T20:00:00Z"));
        purge();
        assertThat(lies).as("its last day is not over").exists();
        RunningApp.CLOCK.set(Instant.parse("2026-09-02T10:00:00Z"));
        purge();
        assertThat(lies).doesNotExist();
        assertThat(desk.get("/api/files/" + one).status()).isEqualTo(410);
        assertThat(desk.get("/api/files/" + one).problem()).isEqualTo("file-purged");
        String record = desk.get("/api/retention/" + round.id + "/record.csv").text();
        assertThat(record).contains("one.txt", Http.sha256("one".getBytes(StandardCharsets.UTF_8)), round.title() + "/Ada Brook/Ada Brook - Notes.txt");
        assertThat(round.row("Ada Brook").path("files").asInt()).as("who sent what stays known").isEqualTo(1);
        assertThat(desk.post("/api/removals/" + one, json("reason", "x", "")).problem()).isEqualTo("file-purged");
    }
}
