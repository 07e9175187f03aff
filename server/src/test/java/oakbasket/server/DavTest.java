package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The folders as a read-only share (RFC 4918): asked by hand, and by {@code cadaver} and {@code rclone} of Debian, which know nothing of us. */
class DavTest {

    private static final Path FILES = RunningApp.DATA.resolve("files");
    private static final String OFFICE = "/dav/This%20office/";

    private final Http desk = Http.desk();
    private final Http program = new Http();
    private final String folder = "Share " + System.nanoTime();
    private String password = "";
    private String[] basic = {};

    @TempDir
    private Path own;

    @BeforeEach
    void anAppPasswordAndSomeFiles() throws Exception {
        // An account has only so many.
        desk.get("/api/app-passwords").json().forEach(one -> desk.send("DELETE", "/api/app-passwords/" + one.path("id"), null));
        password = desk.post("/api/app-passwords", "{\"name\":\"Laptop\"}").json().path("password").asString();
        basic = new String[] {"Authorization", "Basic " + Base64.getEncoder().encodeToString((RunningApp.EMAIL + ":" + password).getBytes(StandardCharsets.UTF_8))};
        Files.createDirectories(FILES.resolve(folder).resolve("inner"));
        Files.writeString(FILES.resolve(folder).resolve("100 % r\u00e9ussi #1.txt"), "one");
        Files.writeString(FILES.resolve(folder).resolve("inner/two.txt"), "two two");
        Files.createSymbolicLink(FILES.resolve(folder).resolve("out"), Path.of("/etc"));
    }

    private Http.Answer ask(String method, String path, String body, String... more) {
        String[] headers = Stream.concat(Arrays.stream(basic), Arrays.stream(more)).toArray(String[]::new);
        return program.send(method, path, body.getBytes(StandardCharsets.UTF_8), headers);
    }

    private String path(String below) {
        return OFFICE + folder.replace(" ", "%20") + "/" + below;
    }

    private static List<String> hrefs(Http.Answer answer) {
        List<String> hrefs = new ArrayList<>();
        var matcher = Pattern.compile("<D:href>([^<]*)</D:href>").matcher(answer.text());
        while (matcher.find()) {
            hrefs.add(matcher.group(1));
        }
        return hrefs;
    }

    @Test
    void onlyWhoHasAnAppPasswordComesIn() {
        assertThat(program.send("PROPFIND", "/dav/", new byte[0], "Depth", "1").status()).isEqualTo(401);
        assertThat(program.send("OPTIONS", "/dav/", new byte[0]).header("WWW-Authenticate")).startsWith("Basic");
        assertThat(desk.send("PROPFIND", "/dav/", new byte[0], "Depth", "1").status()).as("a session is none").isEqualTo(401);
        String wrong = Base64.getEncoder().encodeToString((RunningApp.EMAIL + ":" + RunningApp.PASSWORD).getBytes(StandardCharsets.UTF_8));
        assertThat(program.send("PROPFIND", "/dav/", new byte[0], "Depth", "1", "Authorization", "Basic " + wrong).status()).as("nor is the password of the account").isEqualTo(401);
        assertThat(program.send("PROPFIND", "/dav/", new byte[0], "Authorization", "Basic \u00e4\u00e4").status()).isIn(400, 401);
        Http.Answer options = ask("OPTIONS", "/dav/", "");
        assertThat(options.header("DAV")).isEqualTo("1");
        assertThat(options.header("Allow")).isEqualTo("OPTIONS, GET, HEAD, PROPFIND");
        long id = desk.get("/api/app-passwords").json().path(desk.get("/api/app-passwords").json().size() - 1).path("id").asLong();
        assertThat(desk.get("/api/app-passwords").text()).doesNotContain(password).contains("lastUsed");
        assertThat(desk.send("DELETE", "/api/app-passwords/" + id, null).status()).isEqualTo(204);
        assertThat(ask("OPTIONS", "/dav/", "").status()).as("revoked").isEqualTo(401);
    }

    @Test
    void foldersAreListedAndWhatIsNotToBeSeenIsNot() {
        Http.Answer top = ask("PROPFIND", "/dav", "", "Depth", "1");
        assertThat(hrefs(top)).as("%s", top.text()).contains("/dav/", OFFICE);
        Http.Answer all = ask("PROPFIND", path(""), "", "Depth", "1");
        assertThat(all.status()).isEqualTo(207);
        assertThat(hrefs(all)).containsExactlyInAnyOrder(path(""), path("inner/"), path("100%20%25%20r%C3%A9ussi%20%231.txt"));
        assertThat(hrefs(ask("PROPFIND", path(""), "", "Depth", "0"))).containsExactly(path(""));
        assertThat(ask("PROPFIND", path(""), "").text()).as("not the whole tree at once").contains("propfind-finite-depth");
        Http.Answer some = ask("PROPFIND", path("inner/two.txt"), "<?xml version=\"1.0\"?><propfind xmlns=\"DAV:\"><prop><getcontentlength/><resourcetype/><x:colour xmlns:x=\"urn:x\"/></prop></propfind>", "Depth", "0");
        assertThat(some.text()).contains("<D:getcontentlength>7</D:getcontentlength>", "<D:resourcetype></D:resourcetype>", "HTTP/1.1 404 Not Found", "colour").doesNotContain("getetag");
        assertThat(ask("PROPFIND", path(""), "<propfind", "Depth", "0").status()).isEqualTo(400);
        assertThat(ask("PROPFIND", path(""), "<!DOCTYPE a [<!ENTITY b SYSTEM \"file:///etc/hostname\">]><propfind xmlns=\"DAV:\"><prop><a>&b;</a></prop></propfind>", "Depth", "0").text()).doesNotContain("root:");
        assertThat(ask("PROPFIND", path(""), "x".repeat(70_000), "Depth", "0").status()).isEqualTo(413);
        assertThat(hrefs(ask("PROPFIND", OFFICE, "", "Depth", "1"))).as("the bin is nobody's mirror").noneMatch(href -> href.contains("Removed"));
    }

    @ParameterizedTest
    @ValueSource(strings = {"out/hostname", "out/", "../", "%2e%2e/%2e%2e/keys/", "inner%2f..%2f..%2fx", "nothing.txt", "inner/two.txt/x", "%00"})
    void whatIsNotBelowTheRootIsNotThere(String below) {
        assertThat(ask("GET", path(below), "").status()).isIn(400, 404);
        assertThat(ask("PROPFIND", path(below), "", "Depth", "0").status()).isIn(400, 404);
    }

    @ParameterizedTest
    @ValueSource(strings = {"PUT", "DELETE", "MKCOL", "MOVE", "COPY", "PROPPATCH", "LOCK", "UNLOCK", "POST", "PATCH"})
    void nothingIsChanged(String method) {
        assertThat(ask(method, path("inner/two.txt"), "x", "Destination", RunningApp.URL + path("stolen.txt")).status()).isEqualTo(403);
        assertThat(FILES.resolve(folder).resolve("inner/two.txt")).hasContent("two two");
    }

    @Test
    void filesAreReadWholeInPartAndOnlyWhenTheyChanged() throws Exception {
        Http.Answer whole = ask("GET", path("inner/two.txt"), "");
        assertThat(whole.text()).isEqualTo("two two");
        assertThat(whole.header("Content-Disposition")).as("never shown by a browser as a page").isEqualTo("attachment");
        String tag = whole.header("ETag");
        assertThat(ask("GET", path("inner/two.txt"), "", "Range", "bytes=4-").text()).isEqualTo("two");
        assertThat(ask("GET", path("inner/two.txt"), "", "Range", "bytes=4-5", "If-Range", tag).header("Content-Range")).isEqualTo("bytes 4-5/7");
        assertThat(ask("GET", path("inner/two.txt"), "", "Range", "bytes=9-").status()).isEqualTo(416);
        assertThat(ask("GET", path("inner/two.txt"), "", "If-None-Match", tag).status()).isEqualTo(304);
        assertThat(ask("GET", path("inner/two.txt"), "", "If-Modified-Since", whole.header("Last-Modified")).status()).isEqualTo(304);
        Files.writeString(FILES.resolve(folder).resolve("inner/two.txt"), "other, longer");
        assertThat(ask("GET", path("inner/two.txt"), "", "If-None-Match", tag).text()).isEqualTo("other, longer");
        assertThat(ask("GET", path("inner/two.txt"), "", "Range", "bytes=1-", "If-Range", tag).text()).as("not a part of something else").isEqualTo("other, longer");
        assertThat(ask("GET", path("inner/"), "").status()).isEqualTo(405);
    }

    /**
     * litmus (Debian's litmus 0.13, a test suite for RFC 4918) writes before it reads, which this share refuses; so its writing goes to the disk and its questions to the share. What is about locks,
     * properties of one's own, copying and moving cannot be answered by a share that is only read.
     */
    @Test
    void litmusFindsNoFaultWithWhatAReadOnlyShareAnswers() throws Exception {
        try (WritingFront front = new WritingFront(path(""), FILES.resolve(folder))) {
            String said = run(Map.of("TESTS", "basic props http"), "", "litmus", "-k", front.url(), RunningApp.EMAIL, password);
            for (String one : List.of("put_get", "put_get_utf8_segment", "propfind_invalid", "propfind_invalid2", "propfind_d0", "expect100")) {
                assertThat(said).as(one).containsPattern("(?m)^ *\\d+\\. " + one + "\\.+ .*pass$");
            }
            assertThat(said).as("locks belong to class 2").containsPattern("options\\.+ WARNING: server does not claim Class 2 compliance\\s+\\.+ pass");
        }
    }

    private String run(Map<String, String> environment, String input, String... command) throws Exception {
        ProcessBuilder builder = new ProcessBuilder(command).redirectErrorStream(true).directory(own.toFile());
        builder.environment().putAll(environment);
        Process process = builder.start();
        process.getOutputStream().write(input.getBytes(StandardCharsets.UTF_8));
        process.getOutputStream().close();
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(process.waitFor(60, TimeUnit.SECONDS)).isTrue();
        return said;
    }

    @Test
    void cadaverWalksReadsAndMayNotWrite() throws Exception {
        String base = RunningApp.URL.replace("localhost", "127.0.0.1");
        Files.writeString(own.resolve(".netrc"), "machine 127.0.0.1 login " + RunningApp.EMAIL + " password " + password + "\n");
        Files.writeString(own.resolve("mine.txt"), "mine");
        String said = run(Map.of("HOME", own.toString(), "TERM", "dumb"), "ls\ncd \"This office/" + folder + "\"\nls\ncd inner\nget two.txt got.txt\nput mine.txt\nquit\n", "cadaver", base + "/dav/");
        assertThat(said).contains("This office", "inner", "two.txt").containsPattern("Uploading.*(403|failed)");
        assertThat(own.resolve("got.txt")).hasContent("two two");
        assertThat(FILES.resolve(folder).resolve("inner/mine.txt")).doesNotExist();
    }

    @Test
    void rcloneMirrorsGoesOnAfterAKillAndThenHasNothingToDo() throws Exception {
        Path many = Files.createDirectories(FILES.resolve(folder).resolve("many"));
        for (int n = 0; n < 5_000; n++) {
            Files.writeString(Files.createDirectories(many.resolve("d" + n % 50)).resolve("f" + n + ".txt"), "content " + n);
        }
        String obscured = run(Map.of(), "", "rclone", "obscure", password).strip();
        String base = RunningApp.URL.replace("localhost", "127.0.0.1");
        String[] sync = {"rclone", "--config", own.resolve("none.conf").toString(), "--webdav-url", base + "/dav/", "--webdav-vendor", "other", "--webdav-user", RunningApp.EMAIL, "--webdav-pass", obscured,
            "--transfers", "8", "--stats", "0", "-v", "sync", ":webdav:This office/" + folder + "/many", own.resolve("mirror").toString()};
        Process first = new ProcessBuilder(sync).redirectErrorStream(true).redirectOutput(ProcessBuilder.Redirect.DISCARD).start();
        Waiting.until(() -> count(own.resolve("mirror")), some -> some > 500);
        first.destroyForcibly().waitFor();
        int before = count(own.resolve("mirror"));
        assertThat(before).as("killed in the middle").isLessThan(5_000);
        String second = run(Map.of(), "", sync);
        assertThat(count(own.resolve("mirror"))).isEqualTo(5_000);
        assertThat(second.lines().filter(line -> line.contains("Copied (new)")).count()).as("not what was there already").isLessThanOrEqualTo(5_000 - before + 16);
        String third = run(Map.of(), "", sync);
        assertThat(third.lines().filter(line -> line.contains("Copied")).toList()).isEmpty();
        assertThat(Files.readString(own.resolve("mirror/d7/f4957.txt"))).isEqualTo("content 4957");
    }

    private static int count(Path folder) {
        if (!Files.isDirectory(folder)) {
            return 0;
        }
        try (Stream<Path> all = Files.walk(folder)) {
            return (int) all.filter(path -> path.toString().endsWith(".txt")).count();
        } catch (IOException | UncheckedIOException changing) {
            return 0;
        }
    }
}
