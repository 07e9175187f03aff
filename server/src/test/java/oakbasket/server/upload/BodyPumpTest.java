package oakbasket.server.upload;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.SequenceInputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.security.MessageDigest;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.Random;
import oakbasket.server.storage.Disk;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class BodyPumpTest {

    @TempDir
    Path folder;

    /** Source: FIPS 180-4, the NIST examples of SHA-256. */
    @ParameterizedTest(name = "{1} × “{0}”")
    @CsvSource({"a, 1000000, cdc76e5c9914fb9281a1c7e284d73e67f1809a48a497200e046d39ccc7112cd0", "'', 1, e3b0c44298fc1c149afbf4c8996fb92427ae41e4649b934ca495991b7852b855", "abc, 1, ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad"})
    void hashesAsPublished(String text, int times, String sha256) throws IOException {
        assertThat(HexFormat.of().formatHex(pump(new ByteArrayInputStream(text.repeat(times).getBytes()), text.length() * (long) times).digest())).isEqualTo(sha256);
    }

    @ParameterizedTest(name = "{0} bytes come where there is room for {1}")
    @CsvSource({"0, 10", "10, 10", "262144, 262144", "1048576, 1048576", "1048577, 1048577", "5000000, 5000000", "5000000, 3000000", "3000000, 9000000", "100, 20"})
    void writesAndHashesExactlyWhatFits(int length, long room) throws Exception {
        byte[] content = new byte[length];
        new Random(length).nextBytes(content);
        byte[] fits = Arrays.copyOf(content, (int) Math.min(length, room));
        Result result = pump(new ByteArrayInputStream(content), room);
        assertThat(result.bytes()).isEqualTo(fits.length);
        assertThat(Files.readAllBytes(folder.resolve("file"))).isEqualTo(fits);
        assertThat(result.digest()).isEqualTo(MessageDigest.getInstance("SHA-256").digest(fits));
    }

    @ParameterizedTest(name = "a body that breaks after {0} of {1} bytes")
    @CsvSource({"500, 1000", "2000000, 4000000"})
    void keepsWhatCameBeforeABodyBroke(int length, long room) throws Exception {
        byte[] content = new byte[length];
        new Random(1).nextBytes(content);
        InputStream breaking = new SequenceInputStream(new ByteArrayInputStream(content), new InputStream() {
            @Override
            public int read() throws IOException {
                throw new IOException("the sender went away");
            }
        });
        Result result = pump(breaking, room);
        assertThat(result.bytes()).isEqualTo(length);
        assertThat(result.broken()).hasMessage("the sender went away");
        assertThat(result.digest()).isEqualTo(MessageDigest.getInstance("SHA-256").digest(content));
    }

    @Test
    void tellsProgressWithoutGrowingMemory() throws IOException {
        long room = 600L * 1024 * 1024;
        long[] last = {0};
        InputStream endless = new InputStream() {
            @Override
            public int read() {
                return 1;
            }

            @Override
            public int read(byte[] buffer, int from, int length) {
                return length;
            }
        };
        try (Disk.DiskFile nowhere = Disk.ofThisMachine().open(Path.of("/dev/null"), StandardOpenOption.WRITE)) {
            BodyPump.Pumped pumped = new BodyPump().pump(endless, nowhere, room, digest(), written -> last[0] = written);
            assertThat(pumped.bytes()).isEqualTo(room);
        }
        assertThat(last[0]).isEqualTo(room);
    }

    private record Result(long bytes, IOException broken, byte[] digest) {
    }

    private Result pump(InputStream body, long room) throws IOException {
        MessageDigest digest = digest();
        try (Disk.DiskFile file = Disk.ofThisMachine().open(folder.resolve("file"), StandardOpenOption.CREATE, StandardOpenOption.WRITE)) {
            BodyPump.Pumped pumped = new BodyPump().pump(body, file, room, digest, written -> { });
            return new Result(pumped.bytes(), pumped.broken(), digest.digest());
        }
    }

    private static MessageDigest digest() {
        return oakbasket.server.security.Hash.sha256();
    }
}
