package oakbasket.server.unpack;

import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.SeekableByteChannel;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Collections;
import java.util.List;
import java.util.zip.CRC32;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipFile;
import oakbasket.core.arrival.ArchiveBudget;

/** The files of a ZIP, by the list of entries at its end. Nothing of it is believed: an entry that gives more bytes than it says, or others, is damaged. */
public final class ZipContents implements Closeable {

    /** About twenty thousand entries; a longer list is not read. */
    public static final long MOST_DIRECTORY_BYTES = 2 << 20;

    private static final int END_RECORD = 0x06054b50;
    private static final int END_RECORD_BYTES = 22;
    private static final int LONGEST_COMMENT_BYTES = 65_535;
    /** What names are written in where they do not say UTF-8 (PKWARE APPNOTE, appendix D). */
    private static final Charset OLD = Charset.forName("IBM437");

    private final ZipFile zip;

    private ZipContents(ZipFile zip) {
        this.zip = zip;
    }

    /**
     * Opens a ZIP.
     *
     * @throws ZipException when it cannot be read, or holds too much to be listed
     */
    public static ZipContents open(Path file) throws IOException {
        if (directoryBytes(file) > MOST_DIRECTORY_BYTES) {
            throw new ZipException("The list of entries is too long");
        }
        ZipContents contents = new ZipContents(opened(file));
        if (contents.zip.size() > ArchiveBudget.MOST_ENTRIES) {
            contents.close();
            throw new ZipException("There are more than " + ArchiveBudget.MOST_ENTRIES + " entries");
        }
        return contents;
    }

    /**
     * Opens a ZIP whichever way its names are written.
     *
     * @throws ZipException when it cannot be read
     */
    public static ZipFile opened(Path file) throws IOException {
        try {
            return new ZipFile(file.toFile(), StandardCharsets.UTF_8);
        } catch (ZipException | IllegalArgumentException perhapsOldNames) {
            return new ZipFile(file.toFile(), OLD);
        }
    }

    /** Its entries, folders included. */
    public List<? extends ZipEntry> entries() {
        return Collections.list(zip.entries());
    }

    /**
     * Writes what an entry holds.
     *
     * @throws ZipException when that is not what the archive says of it, as with one that is encrypted
     */
    public void copy(ZipEntry entry, OutputStream out) throws IOException {
        CRC32 sum = new CRC32();
        long bytes = 0;
        byte[] buffer = new byte[1 << 16];
        try (InputStream in = zip.getInputStream(entry)) {
            for (int read = in.read(buffer); read >= 0; read = in.read(buffer)) {
                bytes += read;
                if (bytes > entry.getSize()) {
                    throw new ZipException("The entry holds more than it says");
                }
                sum.update(buffer, 0, read);
                out.write(buffer, 0, read);
            }
        } catch (java.io.EOFException cutOff) {
            throw new ZipException("The entry is cut off");
        }
        if (bytes != entry.getSize() || sum.getValue() != entry.getCrc()) {
            throw new ZipException("The entry does not hold what it says");
        }
    }

    @Override
    public void close() throws IOException {
        zip.close();
    }

    /** How long the list of entries is, which a ZIP keeps at its end (PKWARE APPNOTE 4.3.16) and which is read whole; 0 where that cannot be told. */
    public static long directoryBytes(Path file) throws IOException {
        try (SeekableByteChannel channel = Files.newByteChannel(file)) {
            int length = (int) Math.min(channel.size(), END_RECORD_BYTES + LONGEST_COMMENT_BYTES);
            ByteBuffer end = ByteBuffer.allocate(length).order(ByteOrder.LITTLE_ENDIAN);
            channel.position(channel.size() - length);
            while (end.hasRemaining() && channel.read(end) >= 0) {
                Thread.onSpinWait();
            }
            for (int at = length - END_RECORD_BYTES; at >= 0; at--) {
                if (end.getInt(at) == END_RECORD) {
                    return Integer.toUnsignedLong(end.getInt(at + 12));
                }
            }
            return 0;
        }
    }
}
