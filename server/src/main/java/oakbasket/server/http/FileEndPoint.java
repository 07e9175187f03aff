package oakbasket.server.http;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.channels.SelectionKey;
import java.nio.channels.SocketChannel;
import java.util.Arrays;
import oakbasket.server.web.FileLine;
import org.eclipse.jetty.io.EofException;
import org.eclipse.jetty.io.ManagedSelector;
import org.eclipse.jetty.io.SocketChannelEndPoint;
import org.eclipse.jetty.util.NanoTime;
import org.eclipse.jetty.util.thread.Scheduler;
import org.jspecify.annotations.Nullable;

/** A connection that has the operating system send parts of files (sendfile). Who may send, how much was sent and how fast it goes is kept by the container as with every other byte. */
final class FileEndPoint extends SocketChannelEndPoint {

    /** What is sent in one go: the thread that does it serves other connections too, and waits here where the disk is slow. */
    private static final int AT_A_TIME = 1024 * 1024;
    /** What every buffer that stands for a part looks at; nobody reads it. */
    private static final ByteBuffer NOTHING = ByteBuffer.allocateDirect(FileLine.LONGEST).asReadOnlyBuffer();

    private final FileLine line = new FileLine(this::standIn, this::wentStraight, this::left);
    private volatile @Nullable Part part;
    /** The part before, of which it may still be asked how far it went. */
    private volatile @Nullable Part before;

    FileEndPoint(SocketChannel channel, ManagedSelector selector, SelectionKey key, Scheduler scheduler) {
        super(channel, selector, key, scheduler);
    }

    private static final class Part {
        private final FileChannel file;
        private final long from;
        private final int length;
        private final ByteBuffer standIn;
        /** Of this part alone: {@link MinimumRates} judges only from one part to the next, which would be long after. */
        private final Rate rate = new Rate();
        private volatile int sent;
        private volatile boolean full;

        Part(FileChannel file, long from, int length) {
            this.file = file;
            this.from = from;
            this.length = length;
            this.standIn = NOTHING.duplicate().limit(length);
        }
    }

    FileLine line() {
        return line;
    }

    private ByteBuffer standIn(FileChannel file, long from, int length) {
        Part next = new Part(file, from, length);
        part = next;
        return next.standIn;
    }

    private boolean wentStraight() {
        Part last = part;
        part = null;
        before = last;
        return last != null && last.sent == last.length;
    }

    private int left() {
        Part last = part;
        Part counted = last != null ? last : before;
        return counted == null ? 0 : counted.sent;
    }

    @Override
    public boolean flush(ByteBuffer... buffers) throws IOException {
        Part now = part;
        int place = now == null ? -1 : placeOf(now.standIn, buffers);
        if (now == null || place < 0) {
            return super.flush(buffers);
        }
        return super.flush(Arrays.copyOf(buffers, place)) && send(now) && super.flush(Arrays.copyOfRange(buffers, place + 1, buffers.length));
    }

    private boolean send(Part now) throws IOException {
        if (now.full) {
            // Whoever flushes asks once more after each success; the line took less than it was given, so there is no room now.
            now.full = false;
            return false;
        }
        if (now.rate.tooLow(NanoTime.now())) {
            throw new EofException("write rate is too low");
        }
        while (now.standIn.hasRemaining()) {
            int asked = Math.min(AT_A_TIME, now.standIn.remaining());
            int sent = transfer(now, asked);
            if (sent == 0) {
                return false;
            }
            notIdle();
            now.rate.passed(sent);
            now.sent += sent;
            now.standIn.position(now.sent);
            if (sent < asked) {
                now.full = true;
                return false;
            }
        }
        return true;
    }

    private int transfer(Part now, int length) throws IOException {
        try {
            long from = now.from + now.sent;
            int sent = (int) now.file.transferTo(from, length, getChannel());
            if (sent == 0 && now.file.size() <= from) {
                throw new EofException("A file is shorter than it was");
            }
            return sent;
        } catch (EofException problem) {
            throw problem;
        } catch (IOException problem) {
            throw new EofException(problem);
        }
    }

    @SuppressWarnings("ReferenceEquality") // this very buffer: all that stand for something look alike
    private static int placeOf(ByteBuffer standIn, ByteBuffer[] buffers) {
        for (int i = 0; i < buffers.length; i++) {
            if (buffers[i] == standIn) {
                return i;
            }
        }
        return -1;
    }
}
