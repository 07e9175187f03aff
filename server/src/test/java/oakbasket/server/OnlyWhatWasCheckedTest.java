package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.util.ArrayList;
import java.util.Base64;
import java.util.Collections;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import oakbasket.core.team.Role;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;

/** What leaves by any door is what was checked, and goes only to those who see what it belongs to. */
class OnlyWhatWasCheckedTest {

    /** As long as the EICAR test file, 68 bytes (eicar.org, the anti-malware test file). */
    private static final byte[] HONEST = ("%PDF-1.4 " + "x".repeat(59)).getBytes(StandardCharsets.US_ASCII);
    private static final byte[] EICAR = ("X5O!P%@AP[4\\PZX54(P^)7CC)7}$EICAR" + "-STANDARD-ANTIVIRUS-TEST-FILE!$H+H*").getBytes(StandardCharsets.US_ASCII);

    /** Puts other bytes in the place of a file: as another file, into the same one, or into the same one with its old time. */
    private static void alter(Path file, String how) throws IOException {
        FileTime before = Files.getLastModifiedTime(file);
        if (how.equals("replaced")) {
            Files.delete(file);
        }
        Files.write(file, EICAR);
        if (how.equals("old time")) {
            Files.setLastModifiedTime(file, before);
        }
    }

    @ParameterizedTest(name = "{0}")
    @ValueSource(strings = {"replaced", "overwritten", "old time"})
    void aReceivedFileThatWasAlteredByHandLeavesByNoDoor(String how) throws IOException {
        TestRound round = new TestRound().onlyPeople("Fay Moss", "Ivo Hart").open();
        round.personal("Fay Moss").begin().send(1, "a.pdf", HONEST);
        round.personal("Ivo Hart").begin().send(1, "b.pdf", TestRound.pdf("untouched"));
        JsonNode file = round.panel("Fay Moss").path("files").get(0);
        TestParcel parcel = new TestParcel(round.desk).person("Pia Rook").file("own.txt", "own bytes".getBytes(StandardCharsets.UTF_8));
        parcel.desk.post("/api/parcels/" + parcel.id + "/picked", "{\"files\":[" + file.path("id") + "]}");
        parcel.handOut();
        TestParcel.Taker pia = parcel.taker("Pia Rook");
        String dav = "/dav/This%20office/" + Stream.of(file.path("path").asString().split("/")).map(one -> java.net.URLEncoder.encode(one, StandardCharsets.UTF_8).replace("+", "%20")).reduce((a, b) -> a + "/" + b).orElseThrow();
        String password = round.desk.post("/api/app-passwords", "{\"name\":\"share " + how + "\"}").json().path("password").asString();
        String basic = "Basic " + Base64.getEncoder().encodeToString((RunningApp.EMAIL + ":" + password).getBytes(StandardCharsets.UTF_8));
        Http program = new Http();
        List<String> doors = List.of("/api/files/" + file.path("id"), "/api/files/" + file.path("id") + "/preview", "/api/files.zip?id=" + file.path("id"));
        doors.forEach(door -> assertThat(round.desk.get(door).status()).as(door).isEqualTo(200));
        assertThat(program.get(dav, "Authorization", basic).status()).as(dav).isEqualTo(200);
        assertThat(names(pia.all())).hasSize(2);

        alter(RunningApp.DATA.resolve("files").resolve(file.path("path").asString()), how);
        for (String door : doors) {
            assertThat(round.desk.get(door).problem()).as(door).isEqualTo("file-altered");
        }
        assertThat(round.desk.get("/api/glances/" + file.path("id")).problem()).isEqualTo("file-altered");
        assertThat(program.get(dav, "Authorization", basic).status()).isEqualTo(409);
        assertThat(pia.take(2, "a.pdf").problem()).isEqualTo("parcel-file-gone");
        assertThat(pia.take(2, "a.pdf", "Range", "bytes=1-").problem()).isEqualTo("parcel-file-gone");
        Http.Answer all = pia.all();
        assertThat(all.status()).as("what is there is taken away").isEqualTo(200);
        assertThat(new String(all.response().body(), StandardCharsets.ISO_8859_1)).doesNotContain("EICAR");
        assertThat(names(all)).anyMatch(name -> name.endsWith("/own.txt")).anyMatch(name -> name.endsWith("/Not included.txt")).hasSize(2);

        round.desk.post("/api/rounds/" + round.id + "/close", "");
        round.desk.post("/api/sets/" + round.id, "");
        JsonNode set = Waiting.until(() -> round.desk.get("/api/sets/" + round.id).json(), one -> !one.path("running").asBoolean() && one.path("wrong").size() == 1);
        assertThat(set.path("ready").asInt()).isEqualTo(1);
    }

    @Test
    void whatIsPutBackAsItWasLeavesAgain() throws IOException {
        TestRound round = new TestRound().onlyPeople("Gus Lake").open();
        round.personal("Gus Lake").begin().send(1, "a.pdf", HONEST);
        JsonNode file = round.panel("Gus Lake").path("files").get(0);
        Path path = RunningApp.DATA.resolve("files").resolve(file.path("path").asString());
        alter(path, "overwritten");
        assertThat(round.desk.get("/api/files/" + file.path("id")).problem()).isEqualTo("file-altered");
        Waiting.until(() -> round.desk.get("/api/findings").text(), findings -> findings.contains(file.path("path").asString()));
        assertThat(needs(round.desk, "gone-or-altered")).as("and on Today").isPositive();
        Files.write(path, HONEST);
        assertThat(round.desk.get("/api/files/" + file.path("id")).response().body()).isEqualTo(HONEST);
        Path moved = path.resolveSibling("moved.pdf");
        Files.move(path, moved);
        Files.move(moved, path);
        assertThat(round.desk.get("/api/files/" + file.path("id")).status()).as("moved there and back").isEqualTo(200);
    }

    @Test
    void theBytesOfAParcelItselfAreHeldTheSameWay() throws IOException {
        TestParcel parcel = new TestParcel().person("Una Pike").file("one.pdf", HONEST).handOut();
        TestParcel.Taker una = parcel.taker("Una Pike");
        assertThat(una.take(1, "one.pdf").response().body()).isEqualTo(HONEST);
        List<Path> altered = new ArrayList<>();
        try (Stream<Path> own = Files.list(RunningApp.DATA.resolve("parcels"))) {
            for (Path path : own.filter(Files::isRegularFile).toList()) {
                if (Files.size(path) == EICAR.length) {
                    alter(path, "old time");
                    altered.add(path);
                }
            }
        }
        assertThat(una.take(1, "one.pdf").problem()).isEqualTo("parcel-file-gone");
        assertThat(una.all().problem()).isEqualTo("parcel-file-gone");
        assertThat(parcel.full().path("files").get(0).path("trouble").asString()).as("the desk is told").isEqualTo("parcel.lost");
        assertThat(parcel.full().path("parcel").path("lostFiles").asInt()).isEqualTo(1);
        assertThat(needs(parcel.desk, "parcel-lost")).isPositive();
        for (Path path : altered) {
            Files.write(path, HONEST);
        }
        int before = needs(parcel.desk, "parcel-lost");
        assertThat(una.take(1, "one.pdf").status()).as("put back as it was").isEqualTo(200);
        assertThat(parcel.full().path("parcel").path("lostFiles").asInt()).isZero();
        assertThat(needs(parcel.desk, "parcel-lost")).isEqualTo(before - 1);
    }

    private static int needs(Http desk, String what) {
        return desk.get("/api/today").json().path("needsYou").valueStream().filter(one -> one.path("what").asString().equals(what)).mapToInt(one -> one.path("count").asInt()).sum();
    }

    /** A parcel inherits who may see what lies in it: through it nobody gets, stops or readdresses what they do not see. */
    @Test
    void aPrivateFileIsNotHadThroughAColleaguesParcel() {
        TestRound round = new TestRound().onlyPeople("Kit Wren").open();
        round.personal("Kit Wren").begin().send(1, "secret plan.pdf", TestRound.pdf("private"));
        long file = round.panel("Kit Wren").path("files").get(0).path("id").asLong();
        TestTeam colleague = TestTeam.of(Role.COORDINATOR);
        TestTeam trusted = TestTeam.of(Role.COORDINATOR);
        TestTeam reader = TestTeam.of(Role.READER);
        TestParcel parcel = new TestParcel(round.desk).person("Lea Thorn");
        parcel.desk.post("/api/parcels/" + parcel.id + "/picked", "{\"files\":[" + file + "]}");
        parcel.handOut();
        long link = parcel.way("Lea Thorn").path("link").asLong(parcel.way("Lea Thorn").path("id").asLong());
        String title = parcel.sheet.path("title").asString();
        assertThat(colleague.desk.get("/api/parcels").text()).as("while the round is everybody's").contains(title);
        long owner = round.desk.get("/api/session").json().path("account").asLong();
        assertThat(round.desk.put("/api/sharing/" + round.id, "{\"owner\":" + owner + ",\"wholeOffice\":false,\"with\":[" + trusted.id() + "]}").status()).isEqualTo(200);
        int version = parcel.full().path("version").asInt();
        for (TestTeam one : List.of(colleague, reader)) {
            assertThat(one.desk.get("/api/parcels").text()).doesNotContain("\"" + title + "\"", "secret plan");
            assertThat(one.desk.get("/api/parcels/" + parcel.id).status()).isEqualTo(404);
            for (String act : List.of("stop", "withdraw", "go-on", "hand-out", "again")) {
                assertThat(one.desk.post("/api/parcels/" + parcel.id + "/" + act, "{\"version\":" + version + ",\"links\":[" + link + "]}").status()).as(act).isGreaterThanOrEqualTo(400).isLessThan(500);
            }
            assertThat(one.desk.post("/api/handouts/parcel", "{\"parcel\":" + parcel.id + ",\"links\":[" + link + "]}").text()).doesNotContain("/p/");
        }
        assertThat(trusted.desk.get("/api/parcels/" + parcel.id).status()).as("who sees the round sees its parcel").isEqualTo(200);
        assertThat(parcel.full().path("version").asInt()).isEqualTo(version);
        assertThat(parcel.taker("Lea Thorn").all().status()).as("the person is not affected").isEqualTo(200);
    }

    /** An open desk hears of rounds that are seen at it, and of no other: not that something came, nor who looks. */
    @Test
    void anOpenDeskHearsNothingOfARoundThatIsNotSeenAtIt() throws Exception {
        TestRound hidden = new TestRound().onlyPeople("Nan Frost").open();
        TestRound open = new TestRound().onlyPeople("Ole Birk").open();
        TestTeam colleague = TestTeam.of(Role.COORDINATOR);
        long owner = hidden.desk.get("/api/session").json().path("account").asLong();
        hidden.desk.put("/api/sharing/" + hidden.id, "{\"owner\":" + owner + ",\"wholeOffice\":false,\"with\":[]}");
        List<String> heard = new CopyOnWriteArrayList<>();
        var stream = colleague.desk.client().sendAsync(HttpRequest.newBuilder(URI.create(RunningApp.URL + "/api/live")).build(), HttpResponse.BodyHandlers.ofLines())
                .thenAccept(answer -> answer.body().forEach(heard::add));
        Waiting.until(() -> heard, lines -> lines.contains("event:hello"));
        hidden.personal("Nan Frost").begin().send(1, "a.pdf", TestRound.pdf("hidden"));
        assertThat(hidden.desk.post("/api/presence/" + hidden.id, "{\"basket\":null}").status()).isEqualTo(200);
        open.personal("Ole Birk").begin().send(1, "a.pdf", TestRound.pdf("open"));
        Waiting.until(() -> heard, lines -> lines.stream().anyMatch(line -> line.contains("\"roundId\":" + open.id + ",")));
        assertThat(heard).noneMatch(line -> line.contains("\"roundId\":" + hidden.id + ","));
        hidden.desk.put("/api/sharing/" + hidden.id, "{\"owner\":" + owner + ",\"wholeOffice\":true,\"with\":[]}");
        Waiting.until(() -> heard, lines -> lines.stream().anyMatch(line -> line.contains("\"roundId\":" + hidden.id + ",")));
        stream.cancel(true);
        stream.orTimeout(1, TimeUnit.SECONDS);
    }

    private static List<String> names(Http.Answer zip) throws IOException {
        List<String> names = new ArrayList<>();
        try (ZipInputStream in = new ZipInputStream(new ByteArrayInputStream(zip.response().body()))) {
            for (ZipEntry entry = in.getNextEntry(); entry != null; entry = in.getNextEntry()) {
                names.add(entry.getName());
            }
        }
        Collections.sort(names);
        return names;
    }
}
