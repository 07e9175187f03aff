package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.TreeMap;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;

/** Downloads and previews. Sources: RFC 6266 and 8187 (Content-Disposition), RFC 9110 (ranges, conditional requests). */
class TakingAwayTest {

    private final TestRound round = new TestRound().item("Anything", false, 1, 50, 100);

    {
        round.sheet.put("namePattern", "{original}{ext}");
        round.open();
    }

    private JsonNode send(String name, byte[] content) {
        round.personal("Ada Brook").begin().send(2, name, content);
        JsonNode files = round.panel("Ada Brook").path("files");
        return files.get(files.size() - 1);
    }

    @Test
    void aDownloadIsAnAttachmentWithItsNameAndCanBeContinued() {
        byte[] content = "0123456789".getBytes();
        String path = "/api/files/" + send("€ rates.xyz", content).path("id").asLong();
        Http.Answer whole = round.desk.get(path);
        assertThat(whole.header("Content-Disposition")).startsWith("attachment;").contains("filename*=UTF-8''%E2%82%AC%20rates.xyz");
        assertThat(whole.response().body()).isEqualTo(content);
        assertThat(whole.header("Content-Security-Policy")).startsWith("sandbox");
        Http.Answer part = round.desk.get(path, "Range", "bytes=3-5");
        assertThat(part.status()).isEqualTo(206);
        assertThat(part.header("Content-Range")).isEqualTo("bytes 3-5/10");
        assertThat(part.text()).isEqualTo("345");
        assertThat(round.desk.get(path, "If-None-Match", whole.header("ETag")).status()).isEqualTo(304);
    }

    @ParameterizedTest(name = "{0} is shown as {1}")
    @CsvSource({"note.txt, <script>alert(1)</script>, text/plain", "page.html, <html><script>alert(1)</script></html>, text/plain", "a.pdf, '%PDF-1.4\n%%EOF', application/pdf",
        "x.svg, '<svg xmlns=\"http://www.w3.org/2000/svg\"><script>alert(1)</script></svg>', text/plain"})
    void aPreviewNeverRunsAnything(String name, String content, String type) {
        // Only where the round says so do such files come at all.
        TestRound lenient = new TestRound().item("Anything", false, 1, 9, 1);
        lenient.sheet.put("takesActive", true);
        lenient.open().personal("Ada Brook").begin().send(2, name, content.getBytes());
        Http.Answer preview = round.desk.get("/api/files/" + lenient.panel("Ada Brook").path("files").get(0).path("id").asLong() + "/preview");
        assertThat(preview.status()).isEqualTo(200);
        assertThat(preview.header("Content-Type")).startsWith(type);
        assertThat(preview.header("Content-Security-Policy")).isEqualTo("sandbox; default-src 'none'");
        assertThat(preview.header("X-Content-Type-Options")).isEqualTo("nosniff");
    }

    @Test
    void whatCannotBeShownSaysSo() {
        assertThat(round.desk.get("/api/files/" + send("a.bin", new byte[] {0, 1, 2, 3}).path("id").asLong() + "/preview").problem()).isEqualTo("no-preview");
    }

    /** A fact of the trade (common practice, no source): several files are taken away as one ZIP. */
    @Test
    void severalFilesComeAsOneZip() throws Exception {
        send("é.txt", "one".getBytes());
        send("two.txt", "two".getBytes());
        round.personal("Ben Reed").begin().send(2, "two.txt", "bens".getBytes());
        Map<String, String> found = new TreeMap<>();
        Http.Answer answer = round.desk.get("/api/files.zip?round=" + round.id);
        assertThat(answer.header("Content-Type")).isEqualTo("application/zip");
        try (ZipInputStream zip = new ZipInputStream(new ByteArrayInputStream(answer.response().body()))) {
            for (ZipEntry entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry()) {
                found.put(entry.getName(), new String(zip.readAllBytes()));
            }
        }
        assertThat(found).containsExactly(Map.entry("Ada Brook/two.txt", "two"), Map.entry("Ada Brook/é.txt", "one"), Map.entry("Ben Reed/two.txt", "bens"));
    }

    @Test
    void aFileThatSomebodyMovedByHandIsSaidToBeMissing() throws Exception {
        JsonNode file = send("moved.txt", "x".getBytes());
        java.nio.file.Files.delete(RunningApp.DATA.resolve("files").resolve(file.path("path").asString()));
        Http.Answer answer = round.desk.get("/api/files/" + file.path("id").asLong());
        assertThat(answer.problem()).isEqualTo("file-missing");
        assertThat(answer.json().path("detail").asString()).contains("moved.txt");
    }

    /** Sources: UAX #15: the same letter as one sign and as two, as macOS writes names; letters without their marks. */
    @ParameterizedTest
    @ValueSource(strings = {"uberflutung cafe", "Überflutung Café", "u\u0308berflutung cafe\u0301", "ÜBERFLUTUNG"})
    void aFileIsFoundHoweverItsNameIsTyped(String typed) {
        send("U\u0308berflutung Café " + round.id + ".txt", "x".getBytes());
        String found = round.desk.get("/api/search?find=" + java.net.URLEncoder.encode(typed, StandardCharsets.UTF_8)).text();
        assertThat(found).contains("\"roundId\":" + round.id);
    }

    /** The number counts the files of one item of one person, whatever else the name holds. */
    @Test
    void theNumberInANameCountsUp() {
        TestRound numbered = new TestRound().item("Photo", false, 1, 9, 1);
        numbered.sheet.put("namePattern", "{item} {number}{ext}");
        numbered.open();
        TestRound.Sender ada = numbered.personal("Ada Brook").begin();
        for (String name : new String[] {"x.txt", "y.txt", "z.txt"}) {
            ada.send(2, name, name.getBytes());
        }
        numbered.personal("Ben Reed").begin().send(2, "b.txt", "b".getBytes());
        assertThat(numbered.panel("Ada Brook").path("files")).extracting(file -> file.path("name").asString()).containsExactly("Photo 1.txt", "Photo 2.txt", "Photo 3.txt");
        assertThat(numbered.panel("Ben Reed").path("files")).extracting(file -> file.path("name").asString()).containsExactly("Photo 1.txt");
    }
}
