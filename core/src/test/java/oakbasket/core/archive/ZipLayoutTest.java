package oakbasket.core.archive;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.zip.CRC32;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Read back by the JDK's own reader, which follows the central directory and its ZIP64 records; other readers read the sets of the server's tests. */
class ZipLayoutTest {

    private static final Instant AT = Instant.parse("2027-03-28T13:30:42Z");

    @TempDir
    private Path folder;

    private static ZipLayout.Entry entry(String name, byte[] content) {
        CRC32 crc = new CRC32();
        crc.update(content);
        return new ZipLayout.Entry(name, content.length, crc.getValue(), AT);
    }

    private static void write(ZipLayout layout, List<byte[]> contents, long from, long to, OutputStream out) throws IOException {
        layout.write(from, to, new ZipLayout.Sink<IOException>() {
            @Override
            public void bytes(byte[] own, int at, int length) throws IOException {
                out.write(own, at, length);
            }

            @Override
            public void content(int entry, long at, long length) throws IOException {
                out.write(contents.get(entry), (int) at, (int) length);
            }
        });
    }

    private static byte[] whole(ZipLayout layout, List<byte[]> contents) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        write(layout, contents, 0, layout.length(), out);
        return out.toByteArray();
    }

    @Test
    void whatIsLaidOutIsReadBackAndAnyPartIsThatPart() throws IOException {
        List<byte[]> contents = List.of("one".getBytes(StandardCharsets.UTF_8), new byte[0], "d\u00e9j\u00e0 vu".getBytes(StandardCharsets.UTF_8), new byte[5_000]);
        List<String> names = List.of("a/one.txt", "empty", "b/\u041a\u043e\u0432\u0430\u043b\u044c.txt", "large.bin");
        List<ZipLayout.Entry> entries = new ArrayList<>();
        for (int n = 0; n < names.size(); n++) {
            entries.add(entry(names.get(n), contents.get(n)));
        }
        ZipLayout layout = new ZipLayout(entries);
        byte[] all = whole(layout, contents);
        assertThat(all).hasSize((int) layout.length()).isEqualTo(whole(new ZipLayout(entries), contents));
        try (ZipFile zip = new ZipFile(Files.write(folder.resolve("a.zip"), all).toFile())) {
            assertThat(zip.stream().map(ZipEntry::getName)).containsExactlyElementsOf(names);
            for (int n = 0; n < names.size(); n++) {
                assertThat(zip.getInputStream(zip.getEntry(names.get(n))).readAllBytes()).isEqualTo(contents.get(n));
            }
            assertThat(zip.getEntry("empty").getTimeLocal()).isEqualTo("2027-03-28T13:30:42");
        }
        Random random = new Random(3);
        for (int n = 0; n < 2_000; n++) {
            int from = random.nextInt(all.length);
            int to = from + random.nextInt(all.length - from + 1);
            ByteArrayOutputStream part = new ByteArrayOutputStream();
            write(layout, contents, from, to, part);
            assertThat(part.toByteArray()).as("%d to %d", from, to).isEqualTo(Arrays.copyOfRange(all, from, to));
        }
    }

    @Test
    void moreFilesThanTwoBytesCountAreAllThere() throws IOException {
        List<ZipLayout.Entry> entries = new ArrayList<>();
        for (int n = 0; n < 70_000; n++) {
            entries.add(new ZipLayout.Entry("f/" + n, 0, 0, AT));
        }
        byte[] all = whole(new ZipLayout(entries), java.util.Collections.nCopies(70_000, new byte[0]));
        try (ZipFile zip = new ZipFile(Files.write(folder.resolve("many.zip"), all).toFile())) {
            assertThat(zip.size()).isEqualTo(70_000);
            assertThat(zip.getEntry("f/69999")).isNotNull();
        }
    }

    /** Of five gibibytes of nothing only the archive's own bytes are kept: sizes and places must be those of ZIP64. */
    @Test
    void sizesAndPlacesBeyondFourBytesAreWritten() throws IOException {
        long large = 5L << 30;
        ZipLayout layout = new ZipLayout(List.of(new ZipLayout.Entry("large", large, 1, AT), new ZipLayout.Entry("after", 3, 2, AT)));
        long[] content = {0};
        ByteArrayOutputStream own = new ByteArrayOutputStream();
        layout.write(0, layout.length(), new ZipLayout.Sink<RuntimeException>() {
            @Override
            public void bytes(byte[] bytes, int at, int length) {
                own.write(bytes, at, length);
            }

            @Override
            public void content(int entry, long at, long length) {
                content[0] += length;
            }
        });
        assertThat(content[0]).isEqualTo(large + 3);
        assertThat(layout.length()).isEqualTo(large + 3 + own.size());
        Path sparse = folder.resolve("sparse.zip");
        try (java.io.RandomAccessFile file = new java.io.RandomAccessFile(sparse.toFile(), "rw")) {
            long[] at = {0};
            layout.write(0, layout.length(), new ZipLayout.Sink<IOException>() {
                @Override
                public void bytes(byte[] bytes, int from, int length) throws IOException {
                    file.seek(at[0]);
                    file.write(bytes, from, length);
                    at[0] += length;
                }

                @Override
                public void content(int entry, long from, long length) {
                    at[0] += length;
                }
            });
        }
        try (ZipFile zip = new ZipFile(sparse.toFile())) {
            assertThat(zip.getEntry("large").getSize()).isEqualTo(large);
            assertThat(zip.getInputStream(zip.getEntry("after")).readAllBytes()).as("found beyond four gibibytes").hasSize(3);
        }
        List<String> parts = new ArrayList<>();
        layout.write(large - 10, large + 200, new ZipLayout.Sink<RuntimeException>() {
            @Override
            public void bytes(byte[] bytes, int at, int length) {
                parts.add("own " + length);
            }

            @Override
            public void content(int entry, long at, long length) {
                parts.add(entry + " from " + at + " " + length);
            }
        });
        assertThat(parts.get(0)).startsWith("0 from ");
        assertThat(parts).contains("1 from 0 3");
    }
}
