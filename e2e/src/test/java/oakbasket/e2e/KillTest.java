package oakbasket.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.UncheckedIOException;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.util.Arrays;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/**
 * Kills the real process, the line or the sender at random points while senders upload, again and again on the same data. Afterwards every acknowledged file must be whole in
 * its folder and in the record, no file may be half or without a record, no record without its file, and a broken upload must go on where it stood.
 */
class KillTest {

    /** A few in every run; many by bench/kills.sh. */
    private static final int KILLS = Integer.parseInt(System.getenv().getOrDefault("KILLS", "4"));
    private static final int MORE_KILLS = 10;
    private static final int LONG_RUN = 20;
    private static final int LOOK_EVERY = 10;
    private static final int SENDERS = 4;
    /** An item takes 5,000 files at most, and many kills send more than that. */
    private static final int ITEMS = 10;
    private static final AtomicBoolean STOPPED = new AtomicBoolean();

    /** An upload whose bytes were all acknowledged. */
    private record Acknowledged(String sha256) {
    }

    /** What dies: the server, the line in the middle of a file (the socket is reset), or the sender (it is closed and nobody comes back for the answer). */
    private enum Victim {
        SERVER, CONNECTION, CLIENT
    }

    @Test
    void noKillLosesOrHalvesAnAcknowledgedFile() throws Exception {
        long seed = System.nanoTime();
        Random random = new Random(seed);
        Path data = PackagedApp.freshFolder();
        Map<String, Acknowledged> acknowledged = new ConcurrentHashMap<>();
        int resumed = 0;
        int repaired = 0;
        try (PackagedApp app = new PackagedApp(data, "--oakbasket.demo=true")) {
            String token = prepare(app);
            // A kill finds no upload in its middle now and then; then there are a few more, for there is to be something to go on with.
            for (int kill = 0; kill < KILLS || resumed == 0 && kill < KILLS + MORE_KILLS; kill++) {
                List<String> open = new CopyOnWriteArrayList<>();
                Map<String, byte[]> contents = new ConcurrentHashMap<>();
                String submission = begin(app, token);
                int round = kill;
                String item = String.valueOf(1 + kill % ITEMS);
                List<Thread> senders = Stream.iterate(0, n -> n + 1).limit(SENDERS).map(n -> new Thread(() -> sendUntilKilled(app, token, submission, item,
                        new Random(seed + round * 100L + n), "k" + round + "s" + n, acknowledged, open, contents))).toList();
                STOPPED.set(false);
                senders.forEach(Thread::start);
                Thread.sleep(150 + random.nextInt(1_200));
                // The last of each run is a server's, so that something of the others is there to be repaired.
                Victim victim = kill >= KILLS - 1 ? Victim.SERVER : Victim.values()[kill % Victim.values().length];
                if (victim == Victim.SERVER) {
                    app.kill();
                } else {
                    for (int n = 0; n < SENDERS; n++) {
                        dieInTheMiddle(app, token, submission, item, random, "k" + kill + "v" + n + ".bin", victim == Victim.CONNECTION, acknowledged);
                    }
                    STOPPED.set(true);
                }
                for (Thread sender : senders) {
                    sender.join();
                }
                if (victim == Victim.SERVER) {
                    app.start();
                }
                Api api = new Api(app.url());
                for (String location : open) {
                    resumed += goOn(api, location, contents.get(location), acknowledged) ? 1 : 0;
                }
                repaired = (int) app.log().stream().filter(line -> line.contains("had arrived but was not recorded; finished it")).count();
                // All of them are read each time, which takes longer with each kill; of many kills every tenth looks at everything that came before.
                if (KILLS < LONG_RUN || kill % LOOK_EVERY == 0 || kill >= KILLS - 1) {
                    assertNothingLostOrHalf(api, data, acknowledged, "seed " + seed + ", kill " + kill);
                }
            }
        }
        System.out.printf("%d kills: %d files acknowledged, %d uploads went on after a restart, %d were finished at start-up%n", KILLS, acknowledged.size(), resumed, repaired);
        assertThat(acknowledged).hasSizeGreaterThan(KILLS);
        assertThat(resumed).as("uploads that went on after a restart").isPositive();
    }

    private static String prepare(PackagedApp app) {
        Api api = new Api(app.url());
        String sheet = """
                {"title":"Kill","deadlineDate":"2099-06-30","zone":"UTC","folderPattern":"{round}/{person}","namePattern":"{original}{ext}",
                 "items":[%s],"people":[{"name":"Ada","email":"ada.kill@example.org"}]}""".formatted(IntStream.rangeClosed(1, ITEMS)
                .mapToObj("{\"title\":\"Anything %d\",\"maxFiles\":5000,\"maxMebibytes\":100,\"kinds\":[]}"::formatted).collect(Collectors.joining(",")));
        JsonNode draft = Api.json(api.post("/api/rounds", sheet));
        long id = draft.path("head").path("id").asLong();
        assertThat(api.post("/api/rounds/" + id + "/open", "{\"version\":1}").statusCode()).isEqualTo(204);
        String url = api.personalLink(id, "Ada");
        return url.substring(url.lastIndexOf('/') + 1);
    }

    private static String begin(PackagedApp app, String token) {
        return Api.json(Api.stranger(app.url()).send("POST", "/api/basket/submissions", "{}".getBytes(), "Oak-Link", token, "Content-Type", "application/json"))
                .path("submission").asString();
    }

    /** Small files in one request, larger ones in pieces, until the server is gone. */
    private static void sendUntilKilled(PackagedApp app, String token, String submission, String item, Random random, String prefix, Map<String, Acknowledged> acknowledged,
            List<String> open, Map<String, byte[]> contents) {
        Api sender = Api.stranger(app.url());
        try {
            for (int n = 0; n < 500 && !STOPPED.get(); n++) {
                boolean large = random.nextInt(3) == 0;
                byte[] content = new byte[large ? 2_000_000 + random.nextInt(3_000_000) : 1 + random.nextInt(40_000)];
                random.nextBytes(content);
                String name = prefix + "f" + n + ".bin";
                HttpResponse<byte[]> created = sender.send("POST", "/api/uploads", large ? new byte[0] : content, "Oak-Link", token, "Oak-Submission", submission,
                        "Tus-Resumable", "1.0.0", "Upload-Length", "" + content.length, "Upload-Metadata", "filename " + Api.base64(name) + ",item " + Api.base64(item),
                        "Content-Type", large ? "application/json" : "application/offset+octet-stream");
                assertThat(created.statusCode()).as(() -> new String(created.body())).isEqualTo(201);
                if (large) {
                    String location = created.headers().firstValue("Location").orElseThrow();
                    contents.put(location, content);
                    open.add(location);
                    int half = content.length / 2;
                    patch(sender, location, 0, Arrays.copyOf(content, half));
                    patch(sender, location, half, Arrays.copyOfRange(content, half, content.length));
                    open.remove(location);
                }
                acknowledged.put(name, new Acknowledged(sha256(content)));
            }
        } catch (UncheckedIOException killed) {
            return;
        }
    }

    /**
     * A file in one request of which only a part comes, then the same file again under the same {@code once}, whole: it is there once, whether the server had
     * taken anything of the first try or not. Now and then the first try comes whole and only its answer is never read.
     */
    private static void dieInTheMiddle(PackagedApp app, String token, String submission, String item, Random random, String name, boolean reset, Map<String, Acknowledged> acknowledged) throws Exception {
        byte[] content = new byte[20_000 + random.nextInt(200_000)];
        random.nextBytes(content);
        String metadata = "filename " + Api.base64(name) + ",item " + Api.base64(item) + ",once " + Api.base64(name);
        int part = random.nextInt(3) == 0 ? content.length : random.nextInt(content.length);
        URI address = URI.create(app.url());
        try (Socket socket = new Socket(address.getHost(), address.getPort())) {
            socket.setSoLinger(reset, 0);
            socket.getOutputStream().write(("POST /api/uploads HTTP/1.1\r\nHost: " + address.getAuthority() + "\r\nOak-Link: " + token + "\r\nOak-Submission: " + submission
                    + "\r\nTus-Resumable: 1.0.0\r\nUpload-Length: " + content.length + "\r\nContent-Length: " + content.length + "\r\nUpload-Metadata: " + metadata
                    + "\r\nContent-Type: application/offset+octet-stream\r\n\r\n").getBytes(StandardCharsets.US_ASCII));
            socket.getOutputStream().write(content, 0, part);
            socket.getOutputStream().flush();
            Thread.sleep(random.nextInt(20));
        }
        Api sender = Api.stranger(app.url());
        HttpResponse<byte[]> again = null;
        for (int n = 0; n < 100 && (again == null || again.statusCode() == 423); n++) {
            again = sendAgain(sender, content, "Oak-Link", token, "Oak-Submission", submission, "Tus-Resumable", "1.0.0", "Upload-Length", "" + content.length,
                    "Upload-Metadata", metadata, "Content-Type", "application/offset+octet-stream");
            Thread.sleep(20);
        }
        assertThat(again).as("never answered").isNotNull();
        assertThat(again.statusCode()).as(new String(again.body())).isEqualTo(201);
        int offset = Integer.parseInt(again.headers().firstValue("Upload-Offset").orElseThrow());
        if (offset < content.length) {
            patch(sender, again.headers().firstValue("Location").orElseThrow(), offset, Arrays.copyOfRange(content, offset, content.length));
        }
        acknowledged.put(name, new Acknowledged(sha256(content)));
    }

    /** What a sender does who is told to wait before all of the body is gone: the line may break over it, and they try again. @return null when it did */
    private static HttpResponse<byte[]> sendAgain(Api sender, byte[] content, String... headers) {
        try {
            return sender.send("POST", "/api/uploads", content, headers);
        } catch (UncheckedIOException broken) {
            return null;
        }
    }

    private static void patch(Api sender, String location, long offset, byte[] content) {
        HttpResponse<byte[]> answer = sender.send("PATCH", location, content, "Tus-Resumable", "1.0.0", "Upload-Offset", "" + offset, "Content-Type", "application/offset+octet-stream");
        assertThat(answer.statusCode()).as(() -> new String(answer.body())).isEqualTo(204);
    }

    /** Goes on with a broken upload from the offset the server tells; true when there was something to go on with. */
    private static boolean goOn(Api api, String location, byte[] content, Map<String, Acknowledged> acknowledged) {
        HttpResponse<byte[]> head = api.send("HEAD", location, null, "Tus-Resumable", "1.0.0");
        assertThat(head.statusCode()).as("an upload whose beginning was acknowledged is known after any crash").isEqualTo(200);
        int offset = Integer.parseInt(head.headers().firstValue("Upload-Offset").orElseThrow());
        if (offset < content.length) {
            patch(api, location, offset, Arrays.copyOfRange(content, offset, content.length));
        }
        acknowledged.put(location, new Acknowledged(sha256(content)));
        return offset > 0 && offset < content.length;
    }

    private static void assertNothingLostOrHalf(Api api, Path data, Map<String, Acknowledged> acknowledged, String when) throws Exception {
        long round = api.round("Kill");
        JsonNode panel = api.get("/api/baskets/" + api.row(round, "Ada").path("id").asLong());
        Set<String> recorded = new HashSet<>();
        Set<String> paths = new HashSet<>();
        for (JsonNode file : panel.path("files")) {
            Path path = data.resolve("files").resolve(file.path("path").asString());
            assertThat(path).as("%s: the file of a record", when).exists().hasSize(file.path("bytes").asLong());
            assertThat(sha256(Files.readAllBytes(path))).as("%s: %s", when, path).isEqualTo(file.path("sha256").asString());
            assertThat(recorded.add(file.path("sha256").asString())).as("%s: nothing is there twice", when).isTrue();
            assertThat(paths.add(path.toString())).as("%s: one record a file", when).isTrue();
        }
        acknowledged.forEach((name, file) -> assertThat(recorded).as("%s: %s was acknowledged", when, name).contains(file.sha256()));
        try (Stream<Path> files = Files.walk(data.resolve("files/Kill"))) {
            assertThat(files.filter(Files::isRegularFile).map(Path::toString)).as("%s: files without a record", when).isSubsetOf(paths);
        }
    }

    private static String sha256(byte[] content) {
        try {
            return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(content));
        } catch (java.security.NoSuchAlgorithmException impossible) {
            throw new IllegalStateException(impossible);
        }
    }
}
