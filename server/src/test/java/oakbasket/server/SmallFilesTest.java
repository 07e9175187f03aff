package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.Socket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;

/** Several small files in one request are received or refused each by itself; one that comes twice because an answer was lost is one file. */
class SmallFilesTest {

    private final TestRound round = new TestRound().item("Papers", true, 1, 100, 1).open();
    private final TestRound.Sender ada = round.personal("Ada Brook").begin();
    private final ArrayNode index = Http.JSON.createArrayNode();
    private final ByteArrayOutputStream content = new ByteArrayOutputStream();

    private SmallFilesTest with(int item, String name, byte[] bytes, String once) {
        index.addObject().put("item", item).put("name", name).put("bytes", bytes.length).put("once", once);
        content.writeBytes(bytes);
        return this;
    }

    private static byte[] text(String words) {
        return words.getBytes(StandardCharsets.UTF_8);
    }

    private Http.Answer send() {
        byte[] list = text(index.toString());
        ByteArrayOutputStream body = new ByteArrayOutputStream();
        body.writeBytes(list);
        body.writeBytes(content.toByteArray());
        return send(Integer.toString(list.length), body.toByteArray());
    }

    private Http.Answer send(String indexBytes, byte[] body) {
        return ada.http.send("POST", "/api/basket/files", body, "Oak-Link", ada.token, "Oak-Submission", ada.submission, "Oak-Index", indexBytes, "Content-Type", "application/octet-stream");
    }

    private List<String> stored() throws Exception {
        try (Stream<Path> all = Files.walk(RunningApp.DATA.resolve("files").resolve(round.title()))) {
            List<String> contents = new ArrayList<>();
            for (Path path : all.filter(Files::isRegularFile).toList()) {
                contents.add(Files.readString(path));
            }
            return contents;
        }
    }

    @Test
    void eachIsReceivedOrRefusedByItself() throws Exception {
        Http.Answer answer = with(2, "one.txt", text("one"), "a").with(1, "not a.pdf", text("no PDF"), "b").with(2, "empty.txt", new byte[0], "c").with(9, "x.txt", text("x"), "d")
                .with(2, "catch.txt", Zips.EICAR, "e").with(2, "two.txt", text("two"), "f").send();
        assertThat(answer.status()).isEqualTo(200);
        List<String> problems = new ArrayList<>();
        for (JsonNode one : answer.json()) {
            problems.add(one.path("problem").path("type").asString("received").replace("urn:oak-basket:problem:", ""));
        }
        assertThat(problems).containsExactly("received", "kind-disguised", "file-empty", "no-such-item", "malware", "received");
        assertThat(answer.json().get(1).path("problem").path("status").asInt()).isEqualTo(422);
        assertThat(stored()).containsExactlyInAnyOrder("one", "two");
        assertThat(ada.finish().json().path("files")).hasSize(2);
    }

    @Test
    void whatComesTwiceIsOneFileHoweverItComes() throws Exception {
        with(2, "one.txt", text("one"), "a").with(2, "two.txt", text("two"), "b");
        ExecutorService pool = Executors.newFixedThreadPool(8);
        List<Future<Http.Answer>> answers = new ArrayList<>();
        for (int n = 0; n < 8; n++) {
            answers.add(pool.submit(() -> send()));
        }
        for (Future<Http.Answer> one : answers) {
            for (JsonNode file : one.get().json()) {
                assertThat(file.path("problem").path("status").asInt(423)).as("received, or just being received by another").isEqualTo(423);
            }
        }
        pool.shutdown();
        assertThat(send().json().toString()).as("and in the end it is there").isEqualTo("[{\"problem\":null},{\"problem\":null}]");
        assertThat(stored()).containsExactlyInAnyOrder("one", "two");

        String[] once = {"Upload-Metadata", "filename dGhyZWUudHh0,item Mg==,once Yw==", "Content-Type", "application/offset+octet-stream"};
        Http.Answer first = tus(once, text("three"));
        Http.Answer second = tus(once, text("three"));
        assertThat(first.status()).isEqualTo(201);
        assertThat(second.status()).isEqualTo(201);
        assertThat(second.header("Location")).isEqualTo(first.header("Location"));
        assertThat(second.header("Upload-Offset")).isEqualTo("5");
        assertThat(tus(once, text("other words")).problem()).as("another file under the same name is told").isEqualTo("no-upload");
        assertThat(stored()).containsExactlyInAnyOrder("one", "two", "three");

        TestRound.Sender again = round.personal("Ada Brook").begin();
        ada.submission = again.submission;
        assertThat(send().json().toString()).as("in another sending it is another file").isEqualTo("[{\"problem\":null},{\"problem\":null}]");
        assertThat(stored()).hasSize(5);
    }

    private Http.Answer tus(String[] once, byte[] bytes) {
        String[] headers = Stream.concat(Stream.of("Oak-Link", ada.token, "Oak-Submission", ada.submission, "Tus-Resumable", "1.0.0", "Upload-Length", "" + bytes.length), Arrays.stream(once))
                .toArray(String[]::new);
        return ada.http.send("POST", "/api/uploads", bytes, headers);
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource(delimiter = '|', quoteCharacter = '^', value = {
        "no list                | {}                                                           | 2",
        "nothing                | []                                                           | 2",
        "a null                 | [null]                                                       | 6",
        "no JSON                | [{                                                           | 2",
        "a negative length      | [{\"item\":2,\"name\":\"a.txt\",\"bytes\":-5,\"once\":\"a\"}]   | -1",
        "too long               | [{\"item\":2,\"name\":\"a.txt\",\"bytes\":2097153}]             | -1",
        "longer than what comes | [{\"item\":2,\"name\":\"a.txt\",\"bytes\":500,\"once\":\"a\"}]   | -1",
        "no name                | [{\"item\":2,\"bytes\":1}]                                     | -1",
        "an index of megabytes  | []                                                           | 99999",
        "an index of nothing    | []                                                           | x"})
    void whatIsNoSuchBodyIsRefusedAndNothingIsKept(String name, String list, String indexBytes) {
        Http.Answer answer = send(indexBytes.equals("-1") ? Integer.toString(list.length()) : indexBytes, text(list + "abc"));
        assertThat(answer.status()).isEqualTo(400);
        assertThat(answer.problem()).isEqualTo("unreadable");
        assertThat(ada.finish().problem()).isEqualTo("nothing-sent");
    }

    @Test
    void boundsHoldBeforeAnythingIsTaken() {
        for (int n = 0; n < 65; n++) {
            with(2, n + ".txt", text("x"), "n" + n);
        }
        assertThat(send().problem()).isEqualTo("unreadable");
        assertThat(ada.http.send("POST", "/api/basket/files", new byte[3 << 20], "Oak-Link", "none", "Oak-Submission", ada.submission, "Oak-Index", "2").status()).as("without a link").isIn(404, 413);
        assertThat(ada.http.send("POST", "/api/basket/files", text("[]"), "Oak-Link", ada.token, "Oak-Submission", "none", "Oak-Index", "2").problem()).isEqualTo("no-submission");
        assertThat(round.row("Ada Brook").path("files").asInt()).isZero();
    }

    @Test
    void whoSendsSlowlyKeepsNobodyElseOut() throws Exception {
        List<Socket> slow = new ArrayList<>();
        try {
            for (int n = 0; n < 5; n++) {
                slow.add(begun("127.0.0.1"));
            }
            Socket refused = Waiting.until(() -> answered(slow), one -> one != null);
            assertThat(status(refused)).as("whichever came fifth").isEqualTo("HTTP/1.1 429");
            try (Socket other = begun("127.0.0.9")) {
                other.getOutputStream().write("x".repeat(1_000).getBytes(StandardCharsets.US_ASCII));
                assertThat(status(other)).as("somebody else, meanwhile").isEqualTo("HTTP/1.1 200");
            }
        } finally {
            for (Socket one : slow) {
                one.close();
            }
        }
    }

    private static Socket answered(List<Socket> sockets) {
        return sockets.stream().filter(one -> {
            try {
                return one.getInputStream().available() > 0;
            } catch (IOException broken) {
                throw new UncheckedIOException(broken);
            }
        }).findFirst().orElse(null);
    }

    private static String status(Socket socket) throws Exception {
        return new String(socket.getInputStream().readNBytes(12), StandardCharsets.US_ASCII);
    }

    /** A body of one file of a thousand bytes, of which none has come. */
    private Socket begun(String from) throws Exception {
        URI address = URI.create(RunningApp.URL);
        String list = "[{\"item\":2,\"name\":\"slow.txt\",\"bytes\":1000}]";
        Socket socket = new Socket("127.0.0.1", address.getPort(), InetAddress.getByName(from), 0);
        socket.setSoTimeout(10_000);
        socket.getOutputStream().write(("POST /api/basket/files HTTP/1.1\r\nHost: " + address.getAuthority() + "\r\nOak-Link: " + ada.token + "\r\nOak-Submission: " + ada.submission
                + "\r\nOak-Index: " + list.length() + "\r\nContent-Type: application/octet-stream\r\nContent-Length: " + (list.length() + 1_000) + "\r\n\r\n" + list).getBytes(StandardCharsets.US_ASCII));
        return socket;
    }
}
