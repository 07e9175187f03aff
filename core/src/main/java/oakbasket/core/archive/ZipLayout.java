package oakbasket.core.archive;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;

/**
 * A ZIP whose entries are stored as they are, so that it can be sent from any byte on and is the same each time it is made. Sizes and places beyond 32 bits are
 * written as ZIP64 asks (PKWARE APPNOTE 4.3.14, 4.5.3).
 */
public final class ZipLayout {

    /**
     * One file of the archive.
     *
     * @param name with slashes
     * @param crc32 of its content
     * @param modified as the archive says, in UTC, to two seconds; nothing before 1980 can be written
     */
    public record Entry(String name, long bytes, long crc32, Instant modified) {
    }

    /**
     * Takes the parts of the archive in order.
     *
     * @param <X> what it throws when it cannot
     */
    public interface Sink<X extends Exception> {
        /** Bytes of the archive's own. */
        void bytes(byte[] own, int from, int length) throws X;

        /** A part of the content of an entry, by its place in the list. */
        void content(int entry, long from, long length) throws X;
    }

    private static final long FOUR_BYTES = 0xFFFFFFFFL;
    private static final int TWO_BYTES = 0xFFFF;
    private static final int UTF8_NAMES = 0x0800;
    private static final int PLAIN = 20;
    private static final int ZIP64 = 45;
    private static final int MADE_ON_UNIX = 3 << 8 | ZIP64;
    private static final long READABLE_FILE = 0100644L << 16;
    private static final int ZIP64_EXTRA = 1;

    private final List<Entry> entries;
    private final byte[][] heads;
    private final long[] offsets;
    private final byte[] directory;
    private final long directoryAt;

    /** Lays out an archive of these files, in their order. */
    public ZipLayout(List<Entry> entries) {
        this.entries = List.copyOf(entries);
        this.heads = new byte[entries.size()][];
        this.offsets = new long[entries.size()];
        long at = 0;
        for (int n = 0; n < entries.size(); n++) {
            offsets[n] = at;
            heads[n] = head(entries.get(n));
            at += heads[n].length + entries.get(n).bytes();
        }
        directoryAt = at;
        directory = directory();
    }

    /** How long the archive is. */
    public long length() {
        return directoryAt + directory.length;
    }

    /** Where in the archive the content of an entry begins. */
    public long contentAt(int entry) {
        return offsets[entry] + heads[entry].length;
    }

    /**
     * Sends the bytes from one place to before another.
     *
     * @param from from 0
     * @param to at most {@link #length}
     */
    public <X extends Exception> void write(long from, long to, Sink<X> sink) throws X {
        for (int n = first(from); n < heads.length && offsets[n] < to; n++) {
            own(heads[n], offsets[n], from, to, sink);
            long content = offsets[n] + heads[n].length;
            long begin = Math.max(from, content);
            long end = Math.min(to, content + entries.get(n).bytes());
            if (begin < end) {
                sink.content(n, begin - content, end - begin);
            }
        }
        own(directory, directoryAt, from, to, sink);
    }

    /** The last entry that begins at or before a place. */
    private int first(long from) {
        int low = 0;
        int high = offsets.length - 1;
        while (low < high) {
            int middle = (low + high + 1) >>> 1;
            if (offsets[middle] <= from) {
                low = middle;
            } else {
                high = middle - 1;
            }
        }
        return low;
    }

    private static <X extends Exception> void own(byte[] own, long at, long from, long to, Sink<X> sink) throws X {
        long begin = Math.max(from, at);
        long end = Math.min(to, at + own.length);
        if (begin < end) {
            sink.bytes(own, (int) (begin - at), (int) (end - begin));
        }
    }

    private static byte[] head(Entry entry) {
        byte[] name = entry.name().getBytes(StandardCharsets.UTF_8);
        boolean large = entry.bytes() >= FOUR_BYTES;
        ByteBuffer out = little(30 + name.length + (large ? 20 : 0));
        out.putInt(0x04034b50).putShort((short) (large ? ZIP64 : PLAIN)).putShort((short) UTF8_NAMES).putShort((short) 0);
        time(out, entry.modified());
        out.putInt((int) entry.crc32());
        out.putInt(large ? -1 : (int) entry.bytes()).putInt(large ? -1 : (int) entry.bytes());
        out.putShort((short) name.length).putShort((short) (large ? 20 : 0)).put(name);
        if (large) {
            out.putShort((short) ZIP64_EXTRA).putShort((short) 16).putLong(entry.bytes()).putLong(entry.bytes());
        }
        return out.array();
    }

    private byte[] directory() {
        List<byte[]> records = new ArrayList<>();
        long bytes = 0;
        for (int n = 0; n < entries.size(); n++) {
            records.add(central(entries.get(n), offsets[n]));
            bytes += records.get(n).length;
        }
        long count = entries.size();
        boolean large = count >= TWO_BYTES || bytes >= FOUR_BYTES || directoryAt >= FOUR_BYTES;
        ByteBuffer end = little(22 + (large ? 76 : 0));
        if (large) {
            end.putInt(0x06064b50).putLong(44).putShort((short) MADE_ON_UNIX).putShort((short) ZIP64).putInt(0).putInt(0).putLong(count).putLong(count).putLong(bytes).putLong(directoryAt);
            end.putInt(0x07064b50).putInt(0).putLong(directoryAt + bytes).putInt(1);
        }
        short shown = (short) Math.min(count, TWO_BYTES);
        end.putInt(0x06054b50).putShort((short) 0).putShort((short) 0).putShort(shown).putShort(shown).putInt((int) Math.min(bytes, FOUR_BYTES)).putInt((int) Math.min(directoryAt, FOUR_BYTES))
                .putShort((short) 0);
        ByteBuffer all = little(Math.toIntExact(bytes + end.capacity()));
        records.forEach(all::put);
        return all.put(end.array()).array();
    }

    private static byte[] central(Entry entry, long offset) {
        byte[] name = entry.name().getBytes(StandardCharsets.UTF_8);
        boolean large = entry.bytes() >= FOUR_BYTES;
        boolean far = offset >= FOUR_BYTES;
        int extra = (large ? 16 : 0) + (far ? 8 : 0);
        ByteBuffer out = little(46 + name.length + (extra > 0 ? 4 + extra : 0));
        out.putInt(0x02014b50).putShort((short) MADE_ON_UNIX).putShort((short) (extra > 0 ? ZIP64 : PLAIN)).putShort((short) UTF8_NAMES).putShort((short) 0);
        time(out, entry.modified());
        out.putInt((int) entry.crc32()).putInt(large ? -1 : (int) entry.bytes()).putInt(large ? -1 : (int) entry.bytes());
        out.putShort((short) name.length).putShort((short) (extra > 0 ? 4 + extra : 0)).putShort((short) 0).putShort((short) 0).putShort((short) 0).putInt((int) READABLE_FILE);
        out.putInt(far ? -1 : (int) offset).put(name);
        if (extra > 0) {
            out.putShort((short) ZIP64_EXTRA).putShort((short) extra);
            if (large) {
                out.putLong(entry.bytes()).putLong(entry.bytes());
            }
            if (far) {
                out.putLong(offset);
            }
        }
        return out.array();
    }

    private static ByteBuffer little(int length) {
        return ByteBuffer.allocate(length).order(ByteOrder.LITTLE_ENDIAN);
    }

    /** As MS-DOS wrote time: two seconds, minutes, hours; day, month, years since 1980. */
    private static void time(ByteBuffer out, Instant modified) {
        LocalDateTime at = LocalDateTime.ofInstant(modified, ZoneOffset.UTC);
        if (at.getYear() < 1980) {
            at = LocalDateTime.of(1980, 1, 1, 0, 0);
        }
        out.putShort((short) (at.getHour() << 11 | at.getMinute() << 5 | at.getSecond() / 2));
        out.putShort((short) (Math.min(at.getYear() - 1980, 127) << 9 | at.getMonthValue() << 5 | at.getDayOfMonth()));
    }
}
