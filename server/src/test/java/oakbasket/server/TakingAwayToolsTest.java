package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** Files are taken away by programs of other families: curl and wget, which go on by RFC 9110; unzip and 7z read what they bring. All from Debian's packages. */
class TakingAwayToolsTest {

    private static byte[] map;
    private static TestParcel parcel;
    private static String address;

    @BeforeAll
    static void handOut() {
        map = new byte[3_000_000];
        new Random(3).nextBytes(map);
        RunningApp.CLOCK.set(java.time.Instant.parse("2026-06-01T09:00:00Z"));
        parcel = new TestParcel().person("Gus Wall").file("Übersicht – left bank.tif", map).file("b.txt", "bank".getBytes(StandardCharsets.UTF_8)).handOut();
        address = RunningApp.URL + "/d/" + parcel.taker("Gus Wall").token();
    }

    private static String run(Path folder, String... command) throws IOException, InterruptedException {
        Process process = new ProcessBuilder(command).directory(folder.toFile()).redirectErrorStream(true).start();
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(process.waitFor()).as("%s: %s", List.of(command), said).isZero();
        return said;
    }

    @Test
    void curlGoesOnWhereItStoppedAndNamesTheFile() throws Exception {
        Path folder = RunningApp.freshFolder();
        Files.write(folder.resolve("map"), Arrays.copyOf(map, 1_234_567));
        run(folder, "curl", "-sSf", "-C", "-", "-o", "map", address + "/1/map");
        assertThat(folder.resolve("map")).hasBinaryContent(map);
        String head = run(folder, "curl", "-sSfI", address + "/1/map");
        assertThat(head).contains("200", "Accept-Ranges: bytes", "Content-Length: 3000000");
        assertThat(run(folder, "curl", "-sS", "-o", "/dev/null", "-w", "%{http_code}", "-H", "If-None-Match: \"" + Http.sha256(map) + "\"", address + "/1/map")).isEqualTo("304");
        assertThat(run(folder, "curl", "-sS", "-o", "/dev/null", "-w", "%{http_code}", "-r", "3000000-", address + "/1/map")).isEqualTo("416");
    }

    @Test
    void wgetGoesOnWithAnArchiveThatUnzipAndSevenZipRead() throws Exception {
        Path folder = RunningApp.freshFolder();
        run(folder, "wget", "-q", "-O", "whole.zip", address + "/all");
        byte[] whole = Files.readAllBytes(folder.resolve("whole.zip"));
        Files.write(folder.resolve("all"), Arrays.copyOf(whole, 2_000_000));
        run(folder, "wget", "-q", "-c", address + "/all");
        assertThat(folder.resolve("all")).hasBinaryContent(whole);
        assertThat(run(folder, "unzip", "-t", "all")).contains("No errors detected");
        assertThat(run(folder, "7z", "t", "all")).contains("Everything is Ok", "Files: 2");
        run(folder, "unzip", "-q", "all");
        assertThat(folder.resolve(parcel.sheet.path("title").asString()).resolve("Übersicht – left bank.tif")).hasBinaryContent(map);
    }
}
