package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import gov.loc.repository.bagit.domain.Bag;
import gov.loc.repository.bagit.reader.BagReader;
import gov.loc.repository.bagit.verify.BagVerifier;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;

/**
 * The set of a closed round, checked by what others made: {@code unzip} and {@code 7z} (Debian), {@code sha256sum -c} (GNU coreutils) and the Library of Congress's reader and
 * verifier of bags (RFC 8493).
 */
class HandoverTest {

    private final Http desk = Http.desk();
    private final TestRound round = new TestRound().item("Notes", false, 1, 90, 1).open();

    @TempDir
    private Path folder;

    private void send(String person, String name, String content) {
        TestRound.Sender sender = round.personal(person).begin();
        assertThat(sender.send(2, name, content.getBytes(StandardCharsets.UTF_8)).status()).isEqualTo(201);
        sender.finish();
    }

    private TestRound closed() {
        send("Ada Brook", "100 % r\u00e9ussi.txt", "one");
        send("Ada Brook", "two.txt", "two");
        send("Ben Reed", "three.txt", "three");
        assertThat(desk.post("/api/rounds/" + round.id + "/close", "").status()).isEqualTo(204);
        return round;
    }

    private JsonNode ready() {
        assertThat(desk.post("/api/sets/" + round.id, "").status()).isEqualTo(202);
        return Waiting.until(() -> desk.get("/api/sets/" + round.id).json(), state -> !state.path("running").asBoolean());
    }

    private String url(String form) {
        return "/api/sets/" + round.id + "/" + form + ".zip";
    }

    private String run(Path in, String... command) throws Exception {
        Process process = new ProcessBuilder(command).directory(in.toFile()).redirectErrorStream(true).start();
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(process.waitFor()).as("%s said %s", List.of(command), said).isZero();
        return said;
    }

    private List<String> files(Path in) {
        try (Stream<Path> all = Files.walk(in)) {
            return all.filter(Files::isRegularFile).map(path -> in.relativize(path).toString()).sorted().toList();
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }

    @Test
    void theSetIsAZipThatOthersRead() throws Exception {
        assertThat(desk.get("/api/sets/" + round.id).problem()).isEqualTo("set-gathering");
        closed();
        assertThat(desk.get(url("set")).problem()).as("nothing is handed over unread").isEqualTo("set-not-ready");
        JsonNode ready = ready();
        assertThat(ready.path("ready").asInt()).isEqualTo(3);
        Http.Answer answer = desk.get(url("set"));
        assertThat(answer.header("Content-Length")).isEqualTo(Integer.toString(answer.response().body().length));
        Files.write(folder.resolve("set.zip"), answer.response().body());
        run(folder, "unzip", "-t", "set.zip");
        run(folder, "7z", "t", "set.zip");
        run(folder, "unzip", "-q", "set.zip", "-d", "out");
        String title = round.title() + "/";
        assertThat(files(folder.resolve("out"))).containsExactly(title + "Ada Brook/Ada Brook - Notes (2).txt", title + "Ada Brook/Ada Brook - Notes.txt", title + "Ben Reed/Ben Reed - Notes.txt",
                title + "who sent what.csv");
        assertThat(Files.readString(folder.resolve("out").resolve(title + "who sent what.csv"))).contains("100 % r\u00e9ussi.txt", Http.sha256("one".getBytes(StandardCharsets.UTF_8)));
        assertThat(desk.get(url("set")).response().body()).as("made again it is the same").isEqualTo(answer.response().body());
    }

    @Test
    void theBagIsVerifiedByOthers() throws Exception {
        closed();
        ready();
        Files.write(folder.resolve("bag.zip"), desk.get(url("bag")).response().body());
        run(folder, "unzip", "-q", "bag.zip", "-d", "out");
        Path bag = folder.resolve("out").resolve(round.title());
        run(bag, "sha256sum", "-c", "manifest-sha256.txt");
        run(bag, "sha256sum", "-c", "tagmanifest-sha256.txt");
        assertThat(Files.readString(bag.resolve("bag-info.txt"))).contains("Payload-Oxum: 11.3", "Bagging-Date: 2026-06-");
        Bag read = new BagReader().read(bag);
        try (BagVerifier verifier = new BagVerifier()) {
            verifier.isComplete(read, false);
            verifier.isValid(read, false);
        }
    }

    @Test
    void itIsTakenUpWhereItStopped() throws Exception {
        closed();
        ready();
        Http.Answer whole = desk.get(url("bag"));
        byte[] all = whole.response().body();
        String tag = whole.header("ETag");
        ByteArrayOutputStream pieced = new ByteArrayOutputStream();
        for (int from = 0; from < all.length; from += 777) {
            Http.Answer part = desk.get(url("bag"), "Range", "bytes=" + from + "-" + (from + 776), "If-Range", tag);
            assertThat(part.status()).isEqualTo(206);
            assertThat(part.header("Content-Range")).isEqualTo("bytes " + from + "-" + Math.min(from + 776, all.length - 1) + "/" + all.length);
            pieced.writeBytes(part.response().body());
        }
        assertThat(pieced.toByteArray()).isEqualTo(all);
        assertThat(desk.get(url("bag"), "Range", "bytes=-5").response().body()).isEqualTo(Arrays.copyOfRange(all, all.length - 5, all.length));
        assertThat(desk.get(url("bag"), "Range", "bytes=" + all.length + "-").status()).isEqualTo(416);
        assertThat(desk.get(url("bag"), "Range", "bytes=5-", "If-Range", "\"another\"").response().body()).as("another archive than the one begun").isEqualTo(all);
        assertThat(desk.get(url("bag"), "Range", "nonsense").response().body()).isEqualTo(all);
    }

    @Test
    void aFileThatIsNotWhatWasReceivedKeepsTheSetBack() throws Exception {
        closed();
        Path lies = RunningApp.DATA.resolve("files").resolve(round.title()).resolve("Ben Reed/Ben Reed - Notes.txt");
        Files.writeString(lies, "other");
        JsonNode state = ready();
        assertThat(state.path("wrong").get(0).asString()).isEqualTo(round.title() + "/Ben Reed/Ben Reed - Notes.txt");
        assertThat(desk.get(url("set")).problem()).isEqualTo("set-not-ready");
        Files.writeString(lies, "three");
        assertThat(ready().path("wrong")).isEmpty();
        assertThat(desk.get(url("set")).status()).isEqualTo(200);
    }
}
