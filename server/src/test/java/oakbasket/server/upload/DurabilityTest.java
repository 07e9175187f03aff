package oakbasket.server.upload;

import static org.assertj.core.api.Assertions.assertThat;

import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Proxy;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import javax.sql.DataSource;
import oakbasket.core.compose.RoundSheet;
import oakbasket.core.compose.RoundSheetBuilder;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.server.OakBasketApplication;
import oakbasket.server.account.AccountService;
import oakbasket.server.basket.Basket;
import oakbasket.server.basket.Baskets;
import oakbasket.server.link.Links;
import oakbasket.server.opening.Opening;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Drafts;
import oakbasket.server.storage.Disk;
import oakbasket.server.upload.RecordedDisk.Call;
import oakbasket.server.upload.RecordedDisk.Kind;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.beans.factory.config.BeanPostProcessor;
import org.springframework.boot.builder.SpringApplicationBuilder;
import org.springframework.boot.web.server.servlet.context.ServletWebServerApplicationContext;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Primary;
import org.springframework.jdbc.core.simple.JdbcClient;

/**
 * What is acknowledged survives a power cut: the order of the calls to the disk, every moment at which the power may go, and a disk that fails at any call.
 * A killed process proves less: what it wrote is still in the memory of the operating system.
 */
class DurabilityTest {

    private static final RecordedDisk DISK = new RecordedDisk();
    private static final byte[] SMALL = "%PDF-1.4\nsmall\n%%EOF".getBytes(StandardCharsets.US_ASCII);

    @TempDir
    static Path data;
    private static ConfigurableApplicationContext app;
    private static int count;

    private String folder;
    private Basket basket;
    private String token;
    private String submission;

    /** No {@code @Configuration}, so that applications of other tests do not find it. */
    static class Watched {
        @Bean
        @Primary
        Disk recordedDisk() {
            return DISK;
        }

        /** Notes when the record of a received file is committed, and when the database is flushed. */
        @Bean
        static BeanPostProcessor watchedDatabase() {
            return new BeanPostProcessor() {
                @Override
                public Object postProcessAfterInitialization(Object bean, String name) {
                    return bean instanceof DataSource source ? watched(source) : bean;
                }
            };
        }

        private static DataSource watched(DataSource source) {
            return (DataSource) Proxy.newProxyInstance(DataSource.class.getClassLoader(), new Class<?>[] {DataSource.class, AutoCloseable.class}, (proxy, method, arguments) ->
                    method.getName().equals("getConnection") ? watched(source.getConnection()) : call(source, method, arguments));
        }

        private static Connection watched(Connection connection) {
            boolean[] recording = {false};
            return (Connection) Proxy.newProxyInstance(Connection.class.getClassLoader(), new Class<?>[] {Connection.class}, (proxy, method, arguments) -> {
                String sql = arguments != null && arguments.length > 0 && arguments[0] instanceof String text ? text : "";
                recording[0] |= sql.contains("INSERT INTO received_file");
                Object result = call(connection, method, arguments);
                if (method.getName().equals("commit") && recording[0]) {
                    recording[0] = false;
                    DISK.mark(Kind.RECORDED);
                }
                if (sql.contains("CHECKPOINT")) {
                    DISK.mark(Kind.CHECKPOINT);
                }
                return result;
            });
        }

        private static Object call(Object target, java.lang.reflect.Method method, Object[] arguments) throws Throwable {
            try {
                return method.invoke(target, arguments);
            } catch (InvocationTargetException thrown) {
                throw thrown.getCause();
            }
        }
    }

    @BeforeAll
    static void start() {
        app = new SpringApplicationBuilder(OakBasketApplication.class, Watched.class).run("--server.port=0", "--oakbasket.data=" + data, "--oakbasket.journal-every=P1D",
                "--oakbasket.post-every=P1D", "--oakbasket.reminders-every=P1D", "--oakbasket.series-every=P1D");
        bean(AccountService.class).make(new Person("Robin", MailAddress.parse("robin@example.org")), "willow by the water");
    }

    @AfterAll
    static void stop() {
        app.close();
    }

    /** A failure that was asked for and not reached is not left for the next test. */
    @AfterEach
    void theDiskIsWellAgain() {
        DISK.failAt(-1, "");
    }

    @BeforeEach
    void aRoundWithAFolderOfItsOwn() throws Exception {
        folder = "Power " + ++count;
        RoundSheet sheet = RoundSheetBuilder.builder().title(folder).items(List.of(RoundSheet.SheetItem.of("Paper", "", true, 1, 900, List.of("PDF"), 50)))
                .people(List.of(new RoundSheet.SheetPerson("Ada", "ada@example.org"))).deadlineDate("2099-01-01").zone("UTC").warningHours(0)
                .folderPattern("{round}").namePattern("{original}{ext}").build();
        long round = bean(Opening.class).open(bean(Drafts.class).begin(sheet, 1).head().id(), 1).id();
        basket = bean(Baskets.class).ofRound(round).get(0);
        token = bean(Links.class).path(bean(Links.class).ofBasket(basket.id()).orElseThrow()).substring("/b/".length());
        begin();
    }

    private void begin() throws Exception {
        String answer = send("POST", "/api/basket/submissions", "{}".getBytes(), "Content-Type", "application/json").body();
        submission = answer.replaceAll(".*\"submission\":\"([^\"]+)\".*", "$1");
        DISK.take();
    }

    @ParameterizedTest(name = "a file of {0} bytes")
    @ValueSource(ints = {20, 3_000_000})
    void everyStepIsCertainBeforeTheNext(int length) throws Exception {
        byte[] content = pdf(length);
        assertThat(sendWhole("order.pdf", content).statusCode()).isEqualTo(201);
        DISK.mark(Kind.ANSWERED);
        List<Call> calls = DISK.take();
        int bytes = last(calls, Kind.WRITE, ".part");
        int bytesFlushed = after(calls, bytes, Kind.FORCE, ".part");
        int line = after(calls, bytesFlushed, Kind.WRITE, "arrivals.journal");
        int lineFlushed = after(calls, line, Kind.FORCE, "arrivals.journal");
        int folderMade = after(calls, lineFlushed, Kind.MAKE_FOLDER, folder);
        int folderCertain = after(calls, folderMade, Kind.FORCE_FOLDER, "files");
        int placed = after(calls, folderCertain, Kind.LINK, "order.pdf");
        int placeCertain = after(calls, placed, Kind.FORCE_FOLDER, folder);
        int recorded = after(calls, placeCertain, Kind.RECORDED, "");
        int left = after(calls, recorded, Kind.DELETE, ".part");
        after(calls, left, Kind.ANSWERED, "");
    }

    @Test
    void anAnswerAboutAPartOfAFileComesAfterTheDatabaseHasIt() throws Exception {
        HttpResponse<String> created = send("POST", "/api/uploads", new byte[0], "Upload-Length", "100", "Upload-Metadata", metadata("part.pdf"));
        DISK.mark(Kind.ANSWERED);
        after(DISK.take(), 0, Kind.CHECKPOINT, Kind.ANSWERED);
        String location = created.headers().firstValue("Location").orElseThrow();
        assertThat(send("PATCH", location, new byte[40], "Upload-Offset", "0", "Content-Type", "application/offset+octet-stream").statusCode()).isEqualTo(204);
        DISK.mark(Kind.ANSWERED);
        List<Call> calls = DISK.take();
        int flushed = after(calls, last(calls, Kind.WRITE, ".part"), Kind.FORCE, ".part");
        after(calls, flushed, Kind.CHECKPOINT, Kind.ANSWERED);
        assertThat(send("DELETE", location, new byte[0]).statusCode()).as("given up, and nothing left for the next test").isEqualTo(204);
    }

    private static void after(List<Call> calls, int from, Kind kind, Kind before) {
        int at = after(calls, from, kind, "");
        after(calls, at, before, "");
    }

    /** After each call of a whole upload the power goes; the disk has kept as much or as little as it may, and so has the database. */
    @Test
    void whereverThePowerGoesStartUpMakesOneWholeFileOrNone() throws Exception {
        assertThat(sendWhole("measure.pdf", SMALL).statusCode()).isEqualTo(201);
        DISK.mark(Kind.ANSWERED);
        int steps = DISK.take().size();
        assertThat(steps).isGreaterThan(8);
        int whole = 0;
        for (int cut = 0; cut <= steps; cut++) {
            for (boolean lucky : new boolean[] {true, false}) {
                for (boolean databaseKept : new boolean[] {true, false}) {
                    whole += cutAt(cut, lucky, databaseKept) ? 1 : 0;
                }
            }
        }
        assertThat(whole).as("of %d cuts", 4 * (steps + 1)).isBetween(steps, 4 * steps);
    }

    /** Whether the file is there afterwards. */
    private boolean cutAt(int cut, boolean lucky, boolean databaseKept) throws Exception {
        aRoundWithAFolderOfItsOwn();
        assertThat(sendWhole("cut.pdf", SMALL).statusCode()).isEqualTo(201);
        DISK.mark(Kind.ANSWERED);
        List<Call> all = DISK.take();
        List<Call> before = all.subList(0, Math.min(cut, all.size()));
        boolean recorded = before.stream().anyMatch(call -> call.kind() == Kind.RECORDED) && databaseKept;
        boolean answered = before.stream().anyMatch(call -> call.kind() == Kind.ANSWERED);
        PowerCut disk = new PowerCut(before);
        rollBack(all, lucky ? disk.atBest() : disk.atWorst(), recorded);

        bean(StartUpRepair.class).afterSingletonsInstantiated();
        String state = "after %d calls (%s), lucky %s, database kept %s".formatted(cut, before.isEmpty() ? "none" : before.get(before.size() - 1), lucky, databaseKept);
        List<ReceivedFile> files = bean(ReceivedFiles.class).ofBasket(basket.id());
        List<Path> onDisk = filesIn(data.resolve("files").resolve(folder));
        assertThat(files.size()).as(state).isLessThanOrEqualTo(1);
        assertThat(onDisk).as("%s: a file has a record and a record a file", state).hasSameSizeAs(files);
        assertThat(filesIn(data.resolve("incoming"))).as("%s: nothing left over", state).extracting(path -> path.getFileName().toString()).containsExactly("arrivals.journal");
        for (ReceivedFile file : files) {
            assertThat(data.resolve("files").resolve(file.storedPath())).as(state).hasBinaryContent(SMALL);
        }
        if (answered) {
            assertThat(files).as("%s: it was acknowledged", state).hasSize(1);
        }
        return !files.isEmpty();
    }

    private void rollBack(List<Call> all, Map<Path, byte[]> kept, boolean recorded) throws Exception {
        for (Call call : all) {
            if (call.path().toString().endsWith(".part") || call.kind() == Kind.LINK) {
                Files.deleteIfExists(call.path());
            }
        }
        Files.write(data.resolve("incoming/arrivals.journal"), new byte[0]);
        Path first = null;
        for (Map.Entry<Path, byte[]> file : kept.entrySet()) {
            Files.createDirectories(file.getKey().getParent());
            if (first != null && !file.getKey().toString().endsWith(".journal") && java.util.Arrays.equals(Files.readAllBytes(first), file.getValue())) {
                Files.createLink(file.getKey(), first);
            } else {
                Files.write(file.getKey(), file.getValue());
                first = file.getKey().toString().endsWith(".journal") ? first : file.getKey();
            }
        }
        if (!recorded) {
            JdbcClient jdbc = bean(JdbcClient.class);
            jdbc.sql("DELETE FROM received_file WHERE basket_id = :basket").param("basket", basket.id()).update();
            jdbc.sql("DELETE FROM upload WHERE submission_id IN (SELECT id FROM submission WHERE basket_id = :basket)").param("basket", basket.id()).update();
        }
    }

    /** Every call fails once: the sender is told, nothing is half stored, and the next try works. */
    @ParameterizedTest
    @ValueSource(strings = {"No space left on device", "Input/output error"})
    void aDiskThatFailsAtAnyCallLosesNothingAndKeepsNothingHalf(String words) throws Exception {
        assertThat(sendWhole("measure.pdf", SMALL).statusCode()).isEqualTo(201);
        int steps = (int) DISK.take().stream().filter(call -> call.kind().ordinal() < Kind.RECORDED.ordinal()).count();
        for (int failing = 0; failing < steps; failing++) {
            aRoundWithAFolderOfItsOwn();
            DISK.failAt(failing, words);
            HttpResponse<String> failed = sendWhole("fails.pdf", SMALL);
            List<Call> calls = DISK.take();
            String state = "call %d of %s: %d %s".formatted(failing, calls, failed.statusCode(), failed.body());
            boolean received = failed.statusCode() == 201;
            assertThat(received || failed.statusCode() == (words.startsWith("No space") ? 507 : 500)).as(state).isTrue();
            assertThat(bean(ReceivedFiles.class).ofBasket(basket.id())).as(state).hasSize(received ? 1 : 0);
            assertThat(filesIn(data.resolve("files").resolve(folder))).as(state).hasSize(received ? 1 : 0);
            assertThat(sendWhole("again.pdf", SMALL).statusCode()).as(state).isEqualTo(201);
            assertThat(bean(ReceivedFiles.class).ofBasket(basket.id())).as(state).hasSize(received ? 2 : 1);
            bean(StartUpRepair.class).afterSingletonsInstantiated();
            assertThat(bean(ReceivedFiles.class).ofBasket(basket.id())).as("%s, and after a start", state).hasSize(received ? 2 : 1);
        }
    }

    /** The length on the disk is looked at before a file counts as received. */
    @Test
    void aDiskThatOnlySaysItWroteIsFoundOut() throws Exception {
        DISK.swallow(true);
        try {
            assertThat(sendWhole("swallowed.pdf", SMALL).statusCode()).isEqualTo(500);
        } finally {
            DISK.swallow(false);
        }
        assertThat(bean(ReceivedFiles.class).ofBasket(basket.id())).isEmpty();
        assertThat(filesIn(data.resolve("files").resolve(folder))).isEmpty();
        assertThat(filesIn(data.resolve("incoming"))).extracting(path -> path.getFileName().toString()).containsExactly("arrivals.journal");
        assertThat(sendWhole("again.pdf", SMALL).statusCode()).isEqualTo(201);
    }

    private HttpResponse<String> sendWhole(String name, byte[] content) throws Exception {
        return send("POST", "/api/uploads", content, "Upload-Length", Integer.toString(content.length), "Upload-Metadata", metadata(name), "Content-Type", "application/offset+octet-stream");
    }

    private HttpResponse<String> send(String method, String path, byte[] body, String... headers) throws Exception {
        int port = ((ServletWebServerApplicationContext) app).getWebServer().getPort();
        List<String> all = new ArrayList<>(List.of(headers));
        all.addAll(List.of("Oak-Link", token, "Tus-Resumable", "1.0.0"));
        if (submission != null) {
            all.addAll(List.of("Oak-Submission", submission));
        }
        HttpRequest request = HttpRequest.newBuilder(URI.create("http://localhost:" + port + path)).method(method, HttpRequest.BodyPublishers.ofByteArray(body))
                .headers(all.toArray(String[]::new)).build();
        return HttpClient.newHttpClient().send(request, HttpResponse.BodyHandlers.ofString());
    }

    private static String metadata(String name) {
        return "filename " + Base64.getEncoder().encodeToString(name.getBytes(StandardCharsets.UTF_8)) + ",item " + Base64.getEncoder().encodeToString("1".getBytes());
    }

    private static byte[] pdf(int length) {
        return java.util.Arrays.copyOf(SMALL, length);
    }

    private static List<Path> filesIn(Path folder) throws Exception {
        if (!Files.exists(folder)) {
            return List.of();
        }
        try (Stream<Path> all = Files.walk(folder)) {
            return all.filter(Files::isRegularFile).toList();
        }
    }

    private static int last(List<Call> calls, Kind kind, String ending) {
        int found = -1;
        for (int at = 0; at < calls.size(); at++) {
            found = calls.get(at).kind() == kind && calls.get(at).path().toString().endsWith(ending) ? at : found;
        }
        assertThat(found).as("%s …%s in %s", kind, ending, calls).isNotNegative();
        return found;
    }

    private static int after(List<Call> calls, int from, Kind kind, String ending) {
        for (int at = from; at < calls.size(); at++) {
            if (calls.get(at).kind() == kind && calls.get(at).path().toString().endsWith(ending)) {
                return at;
            }
        }
        throw new AssertionError(kind + " …" + ending + " does not come after call " + from + " of " + calls);
    }

    private static <T> T bean(Class<T> type) {
        return app.getBean(type);
    }
}
