package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.OutputStream;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpRequest;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import java.util.Base64;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** Source: tus resumable upload protocol 1.0.0 (core, creation, creation-with-upload, termination, expiration), spoken by plain HTTP. */
class TusProtocolTest {

    private final TestRound round = new TestRound().item("Anything", false, 1, 50, 100).open();
    private final TestRound.Sender ada = round.personal("Ada Brook").begin();
    private final byte[] content = new byte[3_000_000];

    {
        new Random(5).nextBytes(content);
    }

    @Test
    void optionsTellsVersionAndExtensions() {
        Http.Answer options = new Http().send("OPTIONS", "/api/uploads", null);
        assertThat(options.status()).isEqualTo(204);
        assertThat(options.header("Tus-Version")).isEqualTo("1.0.0");
        assertThat(options.header("Tus-Extension")).isEqualTo("creation,creation-with-upload,termination,expiration");
    }

    @Test
    void goesOnFromTheOffset() {
        Http.Answer created = ada.create(2, "big.bin", content.length);
        assertThat(created.status()).isEqualTo(201);
        assertThat(created.header("Upload-Expires")).endsWith("GMT");
        String location = created.header("Location");
        assertThat(ada.patch(location, 0, Arrays.copyOf(content, 1_000_000)).header("Upload-Offset")).isEqualTo("1000000");
        Http.Answer head = ada.head(location);
        assertThat(head.header("Upload-Offset")).isEqualTo("1000000");
        assertThat(head.header("Upload-Length")).isEqualTo("3000000");
        assertThat(head.header("Cache-Control")).isEqualTo("no-store");

        Http.Answer wrong = ada.patch(location, 999, content);
        assertThat(wrong.status()).isEqualTo(409);
        assertThat(wrong.problem()).isEqualTo("offset");
        assertThat(ada.patch(location, 1_000_000, Arrays.copyOfRange(content, 1_000_000, 3_000_000)).status()).isEqualTo(204);
        assertThat(ada.head(location).header("Upload-Offset")).isEqualTo("3000000");
        assertThat(RunningApp.DATA.resolve("files").resolve(round.title()).resolve("Ada Brook/Ada Brook - Anything.bin")).hasBinaryContent(content);
        assertThat(ada.http.send("DELETE", location, null, "Tus-Resumable", "1.0.0").problem()).as("received files stay").isEqualTo("received-already");
    }

    @Test
    void anUploadCutAt99PercentGoesOnFromThere() throws Exception {
        String location = ada.create(2, "cut.bin", content.length).header("Location");
        int cut = content.length * 99 / 100;
        URI url = URI.create(RunningApp.URL);
        try (Socket socket = new Socket(url.getHost(), url.getPort())) {
            OutputStream out = socket.getOutputStream();
            out.write(("PATCH " + location + " HTTP/1.1\r\nHost: x\r\nTus-Resumable: 1.0.0\r\nUpload-Offset: 0\r\nContent-Type: application/offset+octet-stream\r\nContent-Length: "
                    + content.length + "\r\n\r\n").getBytes(StandardCharsets.US_ASCII));
            out.write(content, 0, cut);
            out.flush();
        }
        Instant until = Instant.now().plus(Duration.ofSeconds(20));
        while (!ada.head(location).header("Upload-Offset").equals(Integer.toString(cut)) && Instant.now().isBefore(until)) {
            Thread.onSpinWait();
        }
        assertThat(ada.head(location).header("Upload-Offset")).isEqualTo(Integer.toString(cut));
        assertThat(round.row("Ada Brook").path("files").asInt()).as("no half file is received").isZero();
        // The offset is there a moment before the request that was cut off has let go; a client tries again then, as ours does.
        byte[] rest = Arrays.copyOfRange(content, cut, content.length);
        assertThat(Waiting.until(() -> ada.patch(location, cut, rest).status(), status -> status != 423)).isEqualTo(204);
        assertThat(RunningApp.DATA.resolve("files").resolve(round.title()).resolve("Ada Brook/Ada Brook - Anything.bin")).hasBinaryContent(content);
    }

    @Test
    void neverReadsMoreThanWasAnnounced() {
        String location = ada.create(2, "long.bin", 10).header("Location");
        Http.Answer surplus = ada.patch(location, 0, content);
        assertThat(surplus.problem()).isEqualTo("upload-surplus");
        assertThat(surplus.status()).isEqualTo(413);
        HttpRequest chunked = HttpRequest.newBuilder(URI.create(RunningApp.URL + location)).headers("Tus-Resumable", "1.0.0", "Upload-Offset", "0", "Content-Type", "application/offset+octet-stream")
                .method("PATCH", HttpRequest.BodyPublishers.ofInputStream(() -> new ByteArrayInputStream(content, 0, 11))).build();
        assertThat(ada.http.exchange(chunked).problem()).as("also without a length").isEqualTo("upload-surplus");
        assertThat(ada.head(location).header("Upload-Offset")).isEqualTo("0");
        assertThat(round.row("Ada Brook").path("files").asInt()).isZero();
        assertThat(ada.patch(location, 0, Arrays.copyOf(content, 10)).header("Upload-Offset")).isEqualTo("10");
    }

    @Test
    void aSecondWriterIsToldToWait() throws Exception {
        String location = ada.create(2, "slow.bin", content.length).header("Location");
        try (SlowUpload slow = new SlowUpload(ada, location, content, 3)) {
            Http.Answer second = ada.patch(location, 0, content);
            assertThat(second.status()).isEqualTo(423);
            assertThat(second.problem()).isEqualTo("upload-locked");
            assertThat(slow.finish()).isEqualTo("HTTP/1.1 204");
        }
    }

    @Test
    void refusesWhatTheProtocolRefuses() {
        String location = ada.create(2, "a.bin", 100).header("Location");
        assertThat(ada.http.send("PATCH", location, new byte[1], "Tus-Resumable", "1.0.0", "Upload-Offset", "0", "Content-Type", "application/json").status()).isEqualTo(415);
        assertThat(ada.http.send("PATCH", location, new byte[1], "Tus-Resumable", "1.0.0", "Content-Type", "application/offset+octet-stream").problem()).isEqualTo("upload-offset");
        assertThat(ada.http.send("HEAD", location, null, "Tus-Resumable", "0.2.2").status()).isEqualTo(412);
        assertThat(ada.http.send("HEAD", location, null).header("Tus-Version")).isEqualTo("1.0.0");
        assertThat(ada.head("/api/uploads/AAAAAAAAAAAAAAAAAAAAAAAA").status()).isEqualTo(404);
        assertThat(ada.patch("/api/uploads/AAAAAAAAAAAAAAAAAAAAAAAA", 0, new byte[1]).problem()).isEqualTo("no-upload");
        assertThat(ada.create(9, "a.bin", 100).problem()).isEqualTo("no-such-item");
        assertThat(ada.http.send("POST", "/api/uploads", new byte[0], "Oak-Link", ada.token, "Oak-Submission", ada.submission, "Tus-Resumable", "1.0.0", "Upload-Length", "-5").problem())
                .isEqualTo("upload-length");
    }

    @Test
    void tellsWhatTheProtocolTells() {
        Http.Answer created = ada.create(2, "größe.bin", 100);
        String location = created.header("Location");
        assertThat(created.header("Upload-Expires")).as("RFC 9110 §5.6.7").matches("[A-Z][a-z]{2}, \\d\\d [A-Z][a-z]{2} \\d{4} \\d\\d:\\d\\d:\\d\\d GMT");
        String metadata = "filename " + Base64.getEncoder().encodeToString("größe.bin".getBytes(StandardCharsets.UTF_8)) + ",item " + Base64.getEncoder().encodeToString("2".getBytes());
        assertThat(ada.head(location).header("Upload-Metadata")).isEqualTo(metadata);
        assertThat(ada.http.send("PUT", location, new byte[1]).status()).isEqualTo(405);
        assertThat(ada.http.send("PUT", location, new byte[1]).header("Tus-Resumable")).isEqualTo("1.0.0");
        Http.Answer behindPost = ada.http.send("POST", location, new byte[10], "X-HTTP-Method-Override", "PATCH", "Tus-Resumable", "1.0.0", "Upload-Offset", "0", "Content-Type",
                "application/offset+octet-stream");
        assertThat(behindPost.header("Upload-Offset")).as(behindPost.text()).isEqualTo("10");
        assertThat(ada.http.send("POST", location, new byte[0], "X-HTTP-Method-Override", "GET", "Tus-Resumable", "1.0.0").status()).as("no other method").isEqualTo(405);
    }

    @Test
    void refusesWhatIsSaidTwice() {
        String location = ada.create(2, "a.bin", 100).header("Location");
        assertThat(ada.http.send("PATCH", location, new byte[1], "Tus-Resumable", "1.0.0", "Upload-Offset", "0", "Upload-Offset", "1", "Content-Type", "application/offset+octet-stream").problem())
                .isEqualTo("header-twice");
        assertThat(ada.http.send("POST", "/api/uploads", new byte[0], "Oak-Link", ada.token, "Oak-Submission", ada.submission, "Tus-Resumable", "1.0.0", "Upload-Length", "5",
                "Upload-Metadata", "item MQ==,item Mg==,filename YQ==").problem()).isEqualTo("upload-metadata");
    }

    @Test
    void aCancelledUploadIsGone() {
        String location = ada.create(2, "a.bin", 100).header("Location");
        ada.patch(location, 0, new byte[10]);
        assertThat(ada.http.send("DELETE", location, null, "Tus-Resumable", "1.0.0").status()).isEqualTo(204);
        assertThat(ada.head(location).status()).isEqualTo(404);
    }
}
