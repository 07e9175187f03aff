package oakbasket.server.scan;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.UnixDomainSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.HexFormat;
import java.util.List;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import oakbasket.core.arrival.ScanVerdict;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The real clamd of Debian's clamav-daemon, with a signature file of our own for the EICAR test file; and whoever only looks like one. */
class ClamdTest {

    private static final String EICAR = "X5O!P%@AP[4\\PZX54(P^)7CC)7}$" + "EICAR-STANDARD-ANTIVIRUS-TEST-FILE!$H+H*";
    private static final Duration PATIENCE = Duration.ofSeconds(30);

    @TempDir
    static Path folder;
    private static Process clamd;
    private static Path socket;

    @BeforeAll
    static void start() throws Exception {
        Path signatures = Files.createDirectory(folder.resolve("signatures"));
        Files.writeString(signatures.resolve("oak.ndb"), "Oak.Eicar:0:0:" + HexFormat.of().formatHex(EICAR.getBytes(StandardCharsets.US_ASCII)) + "\n");
        socket = folder.resolve("clamd.ctl");
        Path settings = Files.write(folder.resolve("clamd.conf"), List.of("Foreground yes", "LocalSocket " + socket, "DatabaseDirectory " + signatures, "StreamMaxLength 1M",
                "TemporaryDirectory " + folder));
        clamd = new ProcessBuilder("clamd", "--config-file=" + settings).redirectErrorStream(true).redirectOutput(folder.resolve("clamd.log").toFile()).start();
        for (int n = 0; n < 600 && !Files.exists(socket) && clamd.isAlive(); n++) {
            Thread.sleep(100);
        }
        assertThat(socket).as(Files.readString(folder.resolve("clamd.log"))).exists();
    }

    @AfterAll
    static void stop() throws Exception {
        clamd.destroy();
        clamd.waitFor();
    }

    private static Scanner real() {
        return new ClamdScanner(UnixDomainSocketAddress.of(socket), PATIENCE);
    }

    private static Path file(String name, byte[] content) throws Exception {
        return Files.write(folder.resolve(name), content);
    }

    private static byte[] zipped(byte[] content) throws Exception {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(bytes)) {
            zip.putNextEntry(new ZipEntry("a/log.txt"));
            zip.write(content);
        }
        return bytes.toByteArray();
    }

    @Test
    void clamdAndTheStandInSayTheSame() throws Exception {
        Path clean = file("clean.txt", "clean".repeat(50_000).getBytes(StandardCharsets.US_ASCII));
        Path test = file("eicar.txt", EICAR.getBytes(StandardCharsets.US_ASCII));
        Path packed = file("eicar.zip", zipped(EICAR.getBytes(StandardCharsets.US_ASCII)));
        for (Scanner scanner : List.of(real(), new StandInScanner())) {
            assertThat(scanner.scan(clean)).isEqualTo(Scanned.CLEAN);
            assertThat(scanner.scan(test).verdict()).isEqualTo(ScanVerdict.FOUND);
            assertThat(scanner.scan(packed).verdict()).isEqualTo(ScanVerdict.FOUND);
        }
        assertThat(real().scan(test).found()).isEqualTo("Oak.Eicar.UNOFFICIAL");
    }

    @Test
    void whatIsLongerThanItsStreamIsNeverCalledClean() throws Exception {
        Scanned said = real().scan(file("long.bin", new byte[3 << 20]));
        assertThat(said.verdict()).isEqualTo(ScanVerdict.UNCHECKED);
        assertThat(said.readable()).as("asking again is of no use").isFalse();
    }

    @Test
    void aScannerThatIsAwayOrHangsOrTalksNonsenseHasCheckedNothing() throws Exception {
        Path file = file("some.txt", new byte[1000]);
        assertThat(new ClamdScanner(UnixDomainSocketAddress.of(folder.resolve("nobody.ctl")), PATIENCE).scan(file)).isEqualTo(Scanned.AWAY);
        try (ServerSocket silent = new ServerSocket(0, 5, InetAddress.getLoopbackAddress())) {
            InetSocketAddress address = new InetSocketAddress(silent.getInetAddress(), silent.getLocalPort());
            long begun = System.nanoTime();
            assertThat(new ClamdScanner(address, Duration.ofMillis(300)).scan(file)).as("hangs").isEqualTo(Scanned.AWAY);
            assertThat(Duration.ofNanos(System.nanoTime() - begun)).isLessThan(Duration.ofSeconds(10));
        }
        try (ServerSocket babbler = new ServerSocket(0, 5, InetAddress.getLoopbackAddress())) {
            Thread talk = new Thread(() -> {
                try (java.net.Socket caller = babbler.accept()) {
                    caller.getOutputStream().write("220 hello stream: OKAY\r\n".getBytes(StandardCharsets.US_ASCII));
                    caller.shutdownOutput();
                    caller.getInputStream().transferTo(java.io.OutputStream.nullOutputStream());
                } catch (java.io.IOException over) {
                    return;
                }
            });
            talk.start();
            assertThat(new ClamdScanner(new InetSocketAddress(babbler.getInetAddress(), babbler.getLocalPort()), PATIENCE).scan(file)).as("nonsense").isEqualTo(Scanned.AWAY);
        }
    }
}
