package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.Socket;
import java.net.URI;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.FileTime;
import java.util.Arrays;
import java.util.Comparator;
import java.util.Random;
import java.util.stream.Stream;
import java.util.zip.ZipInputStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Large files leave past the program, and nobody outside can tell: lengths, parts and what follows on the same connection are as HTTP (RFC 9112) has them. */
class FileLineTest {

    /** Longer than several of the parts that it is sent in, and no multiple of anything. */
    private static final byte[] LARGE = new byte[37_000_003];
    private static final URI ADDRESS = URI.create(RunningApp.URL);

    static {
        new Random(11).nextBytes(LARGE);
    }

    private TestParcel parcel;
    private String path;
    private Socket socket;

    @BeforeEach
    void handedOut() throws IOException {
        parcel = new TestParcel().file("large.bin", LARGE).file("small.txt", "small".getBytes(StandardCharsets.US_ASCII));
        parcel.sheet.put("open", true).put("byLetter", false);
        parcel.handOut();
        path = "/d/" + parcel.taker("").token();
        socket = new Socket(ADDRESS.getHost(), ADDRESS.getPort());
        socket.setSoTimeout(30_000);
    }

    @AfterEach
    void closed() throws IOException {
        socket.close();
    }

    @Test
    void oneConnectionCarriesOneAnswerAfterTheOther() throws IOException {
        assertThat(ask("/1/large.bin", 1, LARGE.length)).isEqualTo(LARGE);
        assertThat(ask("/2/small.txt", 1, 5)).asString().isEqualTo("small");
        assertThat(ask("/1/large.bin", 1, 30_000_000, "Range: bytes=7000000-36999999", "Accept-Encoding: gzip, br, zstd")).isEqualTo(Arrays.copyOfRange(LARGE, 7_000_000, 37_000_000));
        assertThat(ask("/1/large.bin", 1, 600_000, "Range: bytes=36400003-")).isEqualTo(Arrays.copyOfRange(LARGE, 36_400_003, LARGE.length));
        byte[] zip = ask("/all", 1, -1);
        socket.close();
        socket = new Socket(ADDRESS.getHost(), ADDRESS.getPort());
        assertThat(ask("/all", 1, zip.length - 1000, "Range: bytes=1000-")).isEqualTo(Arrays.copyOfRange(zip, 1000, zip.length));
        try (ZipInputStream in = new ZipInputStream(new ByteArrayInputStream(zip))) {
            assertThat(in.getNextEntry().getName()).endsWith("/large.bin");
            assertThat(in.readAllBytes()).isEqualTo(LARGE);
        }
    }

    /** An older HTTP has no line of this kind; a slow reader has the same bytes. */
    @Test
    void whoeverReadsSlowlyOrSpeaksAnOlderHttpGetsTheSame() throws Exception {
        assertThat(ask("/1/large.bin", 0, LARGE.length)).isEqualTo(LARGE);
        socket.close();
        socket = new Socket();
        socket.setReceiveBufferSize(32 * 1024);
        socket.connect(new java.net.InetSocketAddress(ADDRESS.getHost(), ADDRESS.getPort()));
        send("/1/large.bin", 1);
        InputStream in = socket.getInputStream();
        long length = head(in);
        byte[] start = in.readNBytes(100_000);
        Thread.sleep(1500);
        byte[] rest = in.readNBytes((int) length - start.length);
        assertThat(start).isEqualTo(Arrays.copyOf(LARGE, start.length));
        assertThat(rest).isEqualTo(Arrays.copyOfRange(LARGE, start.length, LARGE.length));
    }

    /** Nobody takes for whole what is not: the answer breaks off where the bytes end. */
    @Test
    void aFileThatBecomesShorterMeanwhileBreaksOff() throws IOException {
        Path file;
        try (Stream<Path> all = Files.walk(RunningApp.DATA.resolve("parcels"))) {
            // The latest: those before belong to the other tests here.
            file = all.filter(FileLineTest::isLarge).max(Comparator.comparing(FileLineTest::made)).orElseThrow();
        }
        socket.setReceiveBufferSize(32 * 1024);
        send("/1/large.bin", 1);
        InputStream in = socket.getInputStream();
        long length = head(in);
        byte[] start = in.readNBytes(200_000);
        try (FileChannel channel = FileChannel.open(file, StandardOpenOption.WRITE)) {
            channel.truncate(20_000_000);
        }
        long came = start.length;
        try {
            came += in.readAllBytes().length;
        } catch (java.net.SocketException reset) {
            // As good as an end.
        }
        assertThat(length).isEqualTo(LARGE.length);
        assertThat(came).isLessThanOrEqualTo(20_000_000L);
        assertThat(parcel.taker("").take(2, "small.txt").text()).as("others go on").isEqualTo("small");
    }

    private static boolean isLarge(Path file) {
        try (FileChannel channel = FileChannel.open(file, StandardOpenOption.READ)) {
            if (!Files.isRegularFile(file) || channel.size() != LARGE.length) {
                return false;
            }
            ByteBuffer start = ByteBuffer.allocate(64);
            channel.read(start);
            return Arrays.equals(start.array(), Arrays.copyOf(LARGE, 64));
        } catch (IOException folder) {
            return false;
        }
    }

    private static FileTime made(Path file) {
        try {
            return Files.readAttributes(file, BasicFileAttributes.class).creationTime();
        } catch (IOException gone) {
            return FileTime.fromMillis(0);
        }
    }

    private byte[] ask(String what, int version, int length, String... headers) throws IOException {
        send(what, version, headers);
        InputStream in = socket.getInputStream();
        long told = head(in);
        assertThat(length < 0 ? told : length).as(what).isEqualTo(told);
        return in.readNBytes((int) told);
    }

    private void send(String what, int version, String... headers) throws IOException {
        socket.getOutputStream().write(("GET " + path + what + " HTTP/1." + version + "\r\nHost: " + ADDRESS.getAuthority() + "\r\n" + Stream.of(headers).map(one -> one + "\r\n").reduce("", String::concat)
                + "\r\n").getBytes(StandardCharsets.US_ASCII));
    }

    /** Reads the head of an answer, to its end and no further; gives the length of what follows. */
    private static long head(InputStream in) throws IOException {
        StringBuilder head = new StringBuilder();
        while (head.indexOf("\r\n\r\n") < 0) {
            int next = in.read();
            assertThat(next).as(head.toString()).isNotNegative();
            head.append((char) next);
        }
        assertThat(head.toString()).contains(" 20").doesNotContainIgnoringCase("content-encoding");
        return head.toString().lines().filter(line -> line.toLowerCase(java.util.Locale.ROOT).startsWith("content-length:")).mapToLong(line -> Long.parseLong(line.substring(15).strip())).findFirst().orElseThrow();
    }
}
