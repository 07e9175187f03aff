package oakbasket.server.web;

import jakarta.servlet.ServletOutputStream;
import jakarta.servlet.ServletResponse;
import jakarta.servlet.ServletResponseWrapper;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.function.BooleanSupplier;
import oakbasket.core.archive.ZipLayout;
import oakbasket.server.storage.Archive;

/** Sends files, and archives of them, part by part; memory does not grow with what is sent. */
public final class FileBytes {

    private static final int BUFFER = 1 << 18;
    /** Outside the heap, so that what is read from the disk goes to the line without being copied twice more; one for each thread, of which there are few. */
    private static final ThreadLocal<ByteBuffer> BUFFERS = ThreadLocal.withInitial(() -> ByteBuffer.allocateDirect(BUFFER));

    /** Is told that bytes of a file have left. */
    public interface Left {

        /** Bytes from one place to before another have. @param entry which file of an archive; 0 where there is one */
        void bytes(int entry, long from, long to);
    }

    /**
     * Who watches what leaves.
     *
     * @param mayGoOn asked before each part; where it may not, the answer breaks off
     */
    public record Watch(BooleanSupplier mayGoOn, Left left) {
    }

    /** What was being sent may not be any more. What comes after its last byte is the end of the line, and nothing else. */
    public static final class BrokenOff extends IOException {
        private static final long serialVersionUID = 1;
    }

    /** Nobody is told, and nobody breaks it off. */
    public static final Watch NOBODY = new Watch(() -> true, (entry, from, to) -> { });

    private FileBytes() {
    }

    /** Where the bytes of an answer go, without what stands around the container's own for the sake of sessions: that would copy them once more. */
    public static ServletOutputStream out(ServletResponse response) throws IOException {
        ServletResponse own = response;
        while (own instanceof ServletResponseWrapper wrapped) {
            own = wrapped.getResponse();
        }
        return own.getOutputStream();
    }

    /** Sends the bytes of a file from one place to before another. A file that is shorter than it should be breaks the answer off, so that nobody takes it for whole. */
    public static void send(Path file, long from, long to, int entry, ServletOutputStream out, Watch watch) throws IOException {
        ByteBuffer buffer = BUFFERS.get();
        long at = from;
        try (FileChannel channel = FileChannel.open(file, StandardOpenOption.READ)) {
            while (at < to) {
                if (!watch.mayGoOn().getAsBoolean()) {
                    throw new BrokenOff();
                }
                buffer.clear().limit((int) Math.min(buffer.capacity(), to - at));
                int read = channel.read(buffer, at);
                if (read < 0) {
                    throw new IOException("A file is shorter than it was");
                }
                out.write(buffer.flip());
                at += read;
            }
        } finally {
            watch.left().bytes(entry, from, at);
        }
    }

    /** Sends the bytes of an archive from one place to before another. */
    public static void send(Archive archive, RangedAnswer what, ServletOutputStream out, Watch watch) throws IOException {
        archive.layout().write(what.from(), what.to(), new ZipLayout.Sink<IOException>() {
            @Override
            public void bytes(byte[] own, int from, int length) throws IOException {
                out.write(own, from, length);
            }

            @Override
            public void content(int entry, long from, long length) throws IOException {
                Archive.Part part = archive.parts().get(entry);
                Path file = part.file();
                if (file == null) {
                    out.write(part.own(), (int) from, (int) length);
                } else {
                    send(file, from, from + length, entry, out, watch);
                }
            }
        });
    }
}
