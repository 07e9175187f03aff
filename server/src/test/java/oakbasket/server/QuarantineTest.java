package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.Executors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.boot.web.server.servlet.context.ServletWebServerApplicationContext;
import org.springframework.context.ConfigurableApplicationContext;
import tools.jackson.databind.JsonNode;

/** What the scanner finds is never filed and never counted, both sides are told, and nothing is lost while it is away. */
class QuarantineTest {

    private static final byte[] EICAR = Zips.EICAR;

    private JsonNode held(Http desk, String name) {
        for (JsonNode one : desk.get("/api/quarantine").json().path("files")) {
            if (one.path("name").asString().equals(name)) {
                return one;
            }
        }
        throw new AssertionError("Not in quarantine: " + name);
    }

    private static long filesBelow(Path folder) throws Exception {
        try (Stream<Path> all = Files.walk(folder)) {
            return all.filter(Files::isRegularFile).count();
        }
    }

    @ParameterizedTest(name = "in one request: {0}")
    @ValueSource(booleans = {true, false})
    void whatIsFoundIsRefusedAndKeptApartUntilSomebodyDecides(boolean oneRequest) throws Exception {
        TestRound round = new TestRound().item("Log", true, 1, 1, 1).open();
        TestRound.Sender ada = round.personal("Ada Brook").begin();
        String name = "log " + oneRequest + round.id + ".txt";
        Http.Answer sent = oneRequest ? ada.send(2, name, EICAR) : ada.patch(ada.create(2, name, EICAR.length).header("Location"), 0, EICAR);
        assertThat(sent.status()).isEqualTo(422);
        assertThat(sent.problem()).isEqualTo("malware");
        assertThat(sent.json().path("detail").asString()).contains(name).contains("the office's scanner");
        assertThat(ada.finish().problem()).isEqualTo("nothing-sent");
        assertThat(round.standing("Ada Brook", 1)).isEqualTo("WANTED");
        assertThat(round.row("Ada Brook").path("files").asInt()).isZero();
        assertThat(round.desk.get("/api/today").json().path("needsYou").toString()).contains("\"malware\",\"roundId\":" + round.id);
        JsonNode here = held(round.desk, name);
        assertThat(here.path("found").asString()).isEqualTo("EICAR-Test-File");
        assertThat(here.path("person").asString()).isEqualTo("Ada Brook");
        assertThat(here.path("identity").asString()).isEqualTo("IDENTIFIED");
        assertThat(RunningApp.DATA.resolve("files").resolve(round.title())).doesNotExist();
        assertThat(ada.page().json().path("items").get(1).path("malware").asInt()).as("the sender sees it on the page, too").isEqualTo(1);
        assertThat(ada.send(2, "clean.txt", "clean".getBytes(StandardCharsets.UTF_8)).status()).as("the only place of the item is free").isEqualTo(201);
        assertThat(ada.finish().json().path("files")).hasSize(1);

        long id = here.path("id").asLong();
        assertThat(round.desk.post("/api/quarantine/" + id + "/release", "").status()).isEqualTo(204);
        JsonNode files = round.panel("Ada Brook").path("files");
        assertThat(files).hasSize(2);
        JsonNode released = files.get(0).path("originalName").asString().equals(name) ? files.get(0) : files.get(1);
        assertThat(released.path("receivedAt").asString()).as("it came when it came").isEqualTo(here.path("receivedAt").asString());
        assertThat(RunningApp.DATA.resolve("files").resolve(released.path("path").asString())).hasBinaryContent(EICAR);
        assertThat(round.panel("Ada Brook").path("story").toString()).contains("\"malware\"", "\"held-released\"", "Robin Fenn");
        assertThat(round.desk.post("/api/quarantine/" + id + "/release", "").status()).isEqualTo(404);
        assertThat(round.desk.post("/api/quarantine/" + id + "/destroy", "").status()).isEqualTo(404);
    }

    @Test
    void whatIsDestroyedIsGoneAndAZipHidesNothing() throws Exception {
        TestRound round = new TestRound().item("Archive", true, 1, 1, 1, "ARCHIVE").open();
        TestRound.Sender ada = round.personal("Ada Brook").begin();
        String name = "papers " + round.id + ".zip";
        byte[] inner = new Zips().with("deep/log.txt", EICAR).bytes();
        assertThat(ada.send(2, name, new Zips().with("fine.txt", new byte[5000]).with("inner.zip", inner).bytes()).problem()).isEqualTo("malware");
        long before = filesBelow(RunningApp.DATA.resolve("quarantine"));
        JsonNode here = held(round.desk, name);
        assertThat(round.desk.post("/api/quarantine/" + here.path("id") + "/destroy", "").status()).isEqualTo(204);
        assertThat(filesBelow(RunningApp.DATA.resolve("quarantine"))).isEqualTo(before - 1);
        assertThat(round.desk.get("/api/quarantine").text()).doesNotContain(name);
        assertThat(round.panel("Ada Brook").path("story").toString()).contains("held-destroyed");
    }

    /** Somebody who only says to be Ada makes her own page say nothing. */
    @Test
    void whatIsFoundInAClaimIsNotShownToThePersonItNames() {
        TestRound round = new TestRound().item("Log", true, 1, 2, 1).withOpenLink("").open();
        TestRound.Sender stranger = round.openLink();
        stranger.begin("Mallory", "ada@example.org");
        assertThat(stranger.send(2, "first.txt", "first".getBytes(StandardCharsets.UTF_8)).status()).isEqualTo(201);
        assertThat(stranger.send(2, "catch " + round.id + ".txt", EICAR).problem()).isEqualTo("malware");
        assertThat(round.panel("Ada Brook").path("held")).as("the office sees it").hasSize(1);
        assertThat(round.personal("Ada Brook").page().json().path("items").get(1).path("malware").asInt()).isZero();
    }

    /** The fake clamd answers, hangs up, or finds something, as it is told; a real one is asked in ClamdTest. */
    @Test
    void whileTheScannerIsAwayFilesWaitOrPassAsTheItemSaysAndNothingIsLost() throws Exception {
        Path data = RunningApp.freshFolder();
        String[] answer = {""};
        try (ServerSocket clamd = new ServerSocket(0, 50, InetAddress.getLoopbackAddress())) {
            Executors.newSingleThreadExecutor(work -> daemon(work)).execute(() -> serve(clamd, answer));
            String[] settings = {"--oakbasket.scanner=localhost:" + clamd.getLocalPort(), "--oakbasket.scan-again-every=PT0.3S"};
            Sent sent;
            try (ConfigurableApplicationContext app = RunningApp.startOn(data, settings)) {
                sent = sendToBoth(app);
                assertThat(filesBelow(data.resolve("quarantine"))).isEqualTo(2);
            }
            // A restart changes nothing: they still wait.
            try (ConfigurableApplicationContext app = RunningApp.startOn(data, settings)) {
                Http desk = signedIn(app);
                assertThat(desk.get("/api/quarantine").json().path("count").asInt()).isEqualTo(2);
                answer[0] = "stream: OK";
                Waiting.until(() -> desk.get("/api/quarantine").json().path("count").asInt(), count -> count == 0);
                JsonNode panel = desk.get("/api/baskets/" + sent.basket()).json();
                assertThat(panel.path("files")).hasSize(3);
                assertThat(panel.path("files").toString()).contains("\"originalName\":\"waits.pdf\"").contains("\"originalName\":\"again.pdf\"");
                assertThat(panel.path("story").toString()).contains("held-clean");
                assertThat(filesBelow(data.resolve("quarantine"))).isZero();
                answer[0] = "stream: Win.Test.Thing FOUND";
                Http.Answer bad = sendOne(app, sent.token(), 2, "bad.pdf");
                assertThat(bad.problem()).as("an item that lets the unchecked pass lets nothing pass in which something was found").isEqualTo("malware");
                assertThat(held(desk, "bad.pdf").path("found").asString()).isEqualTo("Win.Test.Thing");
            }
        }
    }

    private record Sent(String token, long basket) {
    }

    private static Thread daemon(Runnable work) {
        Thread thread = new Thread(work);
        thread.setDaemon(true);
        return thread;
    }

    private static void serve(ServerSocket clamd, String[] answer) {
        while (!clamd.isClosed()) {
            try (Socket caller = clamd.accept()) {
                if (!answer[0].isEmpty()) {
                    caller.getInputStream().readNBytes(10);
                    java.io.DataInputStream in = new java.io.DataInputStream(caller.getInputStream());
                    for (int length = in.readInt(); length > 0; length = in.readInt()) {
                        in.readNBytes(length);
                    }
                    caller.getOutputStream().write((answer[0] + "\0").getBytes(StandardCharsets.US_ASCII));
                }
            } catch (java.io.IOException hungUp) {
                continue;
            }
        }
    }

    private static String url(ConfigurableApplicationContext app) {
        return "http://localhost:" + ((ServletWebServerApplicationContext) app).getWebServer().getPort();
    }

    private static Http signedIn(ConfigurableApplicationContext app) {
        Http desk = new Http(url(app));
        desk.get("/api/session");
        desk.post("/api/session", "{\"email\":\"" + RunningApp.EMAIL + "\",\"password\":\"" + RunningApp.PASSWORD + "\"}");
        return desk;
    }

    private Sent sendToBoth(ConfigurableApplicationContext app) {
        app.getBean(oakbasket.server.account.AccountService.class)
                .make(new oakbasket.core.identity.Person("Robin Fenn", oakbasket.core.identity.MailAddress.parse(RunningApp.EMAIL)), RunningApp.PASSWORD);
        Http desk = signedIn(app);
        TestRound round = new TestRound(desk).item("Passes", false, 1, 5, 1, "PDF");
        ((tools.jackson.databind.node.ObjectNode) round.sheet.path("items").get(1)).put("unchecked", "PASS");
        round.open();
        TestRound.Sender ada = round.personal("Ada Brook");
        ada.begin();
        assertThat(ada.send(1, "waits.pdf", TestRound.pdf("one")).status()).isEqualTo(201);
        String location = ada.create(1, "again.pdf", TestRound.pdf("two").length).header("Location");
        assertThat(ada.patch(location, 0, TestRound.pdf("two")).status()).isEqualTo(204);
        assertThat(ada.head(location).header("Upload-Offset")).isEqualTo(Integer.toString(TestRound.pdf("two").length));
        assertThat(ada.send(2, "passes.pdf", TestRound.pdf("three")).status()).isEqualTo(201);
        assertThat(ada.send(1, "full.pdf", TestRound.pdf("four")).problem()).as("what waits has taken its place").isEqualTo("too-many-files");
        JsonNode receipt = ada.finish().json();
        assertThat(receipt.path("files")).hasSize(3);
        assertThat(receipt.path("files").toString()).contains("\"name\":\"waits.pdf\"").contains("\"waiting\":true");
        JsonNode panel = round.panel("Ada Brook");
        assertThat(panel.path("files")).hasSize(1);
        assertThat(panel.path("files").get(0).path("unchecked").asBoolean()).isTrue();
        assertThat(panel.path("held")).hasSize(2);
        assertThat(round.standing("Ada Brook", 0)).isEqualTo("WANTED");
        assertThat(desk.get("/api/today").json().path("needsYou").toString()).contains("\"unchecked\"");
        return new Sent(ada.token, panel.path("id").asLong());
    }

    private static Http.Answer sendOne(ConfigurableApplicationContext app, String token, int item, String name) {
        TestRound.Sender ada = new TestRound.Sender(token, new Http(url(app))).begin();
        return ada.send(item, name, TestRound.pdf(name));
    }
}
