package oakbasket.server.web;

import jakarta.servlet.ServletOutputStream;
import jakarta.servlet.ServletRequest;
import jakarta.servlet.ServletResponse;
import jakarta.servlet.ServletResponseWrapper;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.BooleanSupplier;
import oakbasket.core.archive.ZipLayout;
import oakbasket.server.storage.Archive;
import org.jspecify.annotations.Nullable;

/** Sends files, and archives of them, part by part; memory does not grow with what is sent. */
public final class FileBytes {

    private static final int BUFFER = 1 << 18;
    /** How long a part that leaves straight should take at most, so that whoever may not go on is noticed soon. */
    private static final long PART_NANOS = 250_000_000;
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

    /**
     * Where the bytes of an answer go.
     *
     * @param line by which whole parts of files can leave; null where all have to be read and written
     */
    public record Out(ServletOutputStream stream, @Nullable FileLine line) {

        /** The container's own way out, without what stands around it for the sake of sessions: that would copy the bytes once more. */
        public static Out of(ServletRequest request, ServletResponse response) throws IOException {
            ServletResponse own = response;
            while (own instanceof ServletResponseWrapper wrapped) {
                own = wrapped.getResponse();
            }
            return new Out(own.getOutputStream(), FileLine.of(request));
        }
    }

    private FileBytes() {
    }

    /** Sends the bytes of a file from one place to before another. A file that is shorter than it should be breaks the answer off, so that nobody takes it for whole. */
    public static void send(Path file, long from, long to, int entry, Out out, Watch watch) throws IOException {
        AtomicLong at = new AtomicLong(from);
        try (FileChannel channel = FileChannel.open(file, StandardOpenOption.READ)) {
            FileLine line = out.line();
            // The end goes the ordinary way: were a part lost in between, nobody would take what came for whole.
            if (line != null && to - from > 2 * BUFFER) {
                straight(channel, at, to - BUFFER, line, out.stream(), watch);
            }
            through(channel, at, to, out.stream(), watch);
        } finally {
            watch.left().bytes(entry, from, at.get());
        }
    }

    private static void straight(FileChannel channel, AtomicLong at, long to, FileLine line, ServletOutputStream stream, Watch watch) throws IOException {
        int part = BUFFER;
        while (at.get() < to) {
            ask(watch);
            int length = (int) Math.min(part, to - at.get());
            long began = System.nanoTime();
            boolean straight = false;
            try {
                stream.write(line.standIns().of(channel, at.get(), length));
                straight = line.wentStraight().getAsBoolean();
            } finally {
                // Also of a part that broke off so much left as the line says.
                at.addAndGet(straight ? length : line.left().getAsInt());
            }
            if (!straight) {
                throw new BrokenOff();
            }
            part = System.nanoTime() - began < PART_NANOS ? Math.min(part * 2, FileLine.LONGEST) : Math.max(BUFFER, part / 2);
        }
    }

    private static void through(FileChannel channel, AtomicLong at, long to, ServletOutputStream stream, Watch watch) throws IOException {
        ByteBuffer buffer = BUFFERS.get();
        while (at.get() < to) {
            ask(watch);
            buffer.clear().limit((int) Math.min(buffer.capacity(), to - at.get()));
            int read = channel.read(buffer, at.get());
            if (read < 0) {
                throw new IOException("A file is shorter than it was");
            }
            stream.write(buffer.flip());
            at.addAndGet(read);
        }
    }

    private static void ask(Watch watch) throws BrokenOff {
        if (!watch.mayGoOn().getAsBoolean()) {
            throw new BrokenOff();
        }
    }

    /** Sends the bytes of an archive from one place to before another. */
    public static void send(Archive archive, RangedAnswer what, Out out, Watch watch) throws IOException {
        archive.layout().write(what.from(), what.to(), new ZipLayout.Sink<IOException>() {
            @Override
            public void bytes(byte[] own, int from, int length) throws IOException {
                out.stream().write(own, from, length);
            }

            @Override
            public void content(int entry, long from, long length) throws IOException {
                Archive.Part part = archive.parts().get(entry);
                Path file = part.file();
                if (file == null) {
                    out.stream().write(part.own(), (int) from, (int) length);
                } else {
                    send(file, from, from + length, entry, out, watch);
                }
            }
        });
    }
}
