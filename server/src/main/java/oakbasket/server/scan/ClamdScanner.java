package oakbasket.server.scan;

import java.io.IOException;
import java.net.SocketAddress;
import java.net.StandardProtocolFamily;
import java.net.UnixDomainSocketAddress;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.channels.SocketChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ScheduledFuture;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.regex.Pattern;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Asks clamd, by its command INSTREAM: chunks that each begin with their length in four bytes, most significant first, ended by an empty one (clamd(8)).
 * A daemon that hangs is left after a while.
 */
final class ClamdScanner implements Scanner {

    private static final Logger LOG = LoggerFactory.getLogger(ClamdScanner.class);
    /** What clamd says of a stream longer than its StreamMaxLength. */
    private static final Pattern TOO_LARGE = Pattern.compile("size\\s+limit\\s+exceeded");
    private static final int CHUNK_BYTES = 64 * 1024;
    private static final int LONGEST_ANSWER = 4_096;
    /** clamd takes ten at once as Debian sets it up; what waits here holds none of its places. */
    private static final int AT_ONCE = 8;

    private final SocketAddress address;
    private final Duration patience;
    private final Semaphore places = new Semaphore(AT_ONCE, true);
    private final ScheduledExecutorService watch = Executors.newSingleThreadScheduledExecutor(work -> {
        Thread thread = new Thread(work, "scan-watch");
        thread.setDaemon(true);
        return thread;
    });

    /**
     * For a daemon.
     *
     * @param patience how long one file may take
     */
    ClamdScanner(SocketAddress address, Duration patience) {
        this.address = address;
        this.patience = patience;
    }

    @Override
    public Scanned scan(Path file) throws IOException {
        try (FileChannel content = FileChannel.open(file, StandardOpenOption.READ)) {
            if (!places.tryAcquire(patience.toMillis(), TimeUnit.MILLISECONDS)) {
                return Scanned.AWAY;
            }
            try {
                return asked(content);
            } finally {
                places.release();
            }
        } catch (InterruptedException stopping) {
            Thread.currentThread().interrupt();
            return Scanned.AWAY;
        }
    }

    private Scanned asked(FileChannel content) {
        try (SocketChannel channel = address instanceof UnixDomainSocketAddress ? SocketChannel.open(StandardProtocolFamily.UNIX) : SocketChannel.open()) {
            ScheduledFuture<?> alarm = watch.schedule(() -> close(channel), patience.toMillis(), TimeUnit.MILLISECONDS);
            try {
                channel.connect(address);
                return of(talk(channel, content));
            } finally {
                alarm.cancel(false);
            }
        } catch (IOException away) {
            LOG.warn("The malware scanner gave no answer: {}", String.valueOf(away));
            return Scanned.AWAY;
        }
    }

    /** A daemon that has seen enough answers before the end and closes; what it said is read all the same. */
    private static String talk(SocketChannel channel, FileChannel content) throws IOException {
        try {
            write(channel, ByteBuffer.wrap("zINSTREAM\0".getBytes(StandardCharsets.US_ASCII)));
            ByteBuffer chunk = ByteBuffer.allocate(4 + CHUNK_BYTES);
            for (int read = content.read(chunk.clear().position(4)); read > 0; read = content.read(chunk.clear().position(4))) {
                write(channel, chunk.putInt(0, read).flip());
            }
            write(channel, ByteBuffer.allocate(4));
        } catch (java.nio.channels.AsynchronousCloseException tooLong) {
            throw tooLong;
        } catch (IOException closed) {
            LOG.debug("The malware scanner closed before the end", closed);
        }
        ByteBuffer answer = ByteBuffer.allocate(LONGEST_ANSWER);
        while (answer.hasRemaining() && channel.read(answer) >= 0) {
            Thread.onSpinWait();
        }
        return new String(answer.array(), 0, answer.position(), StandardCharsets.UTF_8).replace("\0", "").strip();
    }

    private static Scanned of(String answer) {
        if (answer.equals("stream: OK")) {
            return Scanned.CLEAN;
        }
        if (answer.startsWith("stream: ") && answer.endsWith(" FOUND")) {
            return Scanned.found(answer.substring("stream: ".length(), answer.length() - " FOUND".length()));
        }
        LOG.warn("The malware scanner said “{}”", answer);
        return TOO_LARGE.matcher(answer).find() ? Scanned.NOT_TAKEN : Scanned.AWAY;
    }

    private static void write(SocketChannel channel, ByteBuffer bytes) throws IOException {
        while (bytes.hasRemaining()) {
            channel.write(bytes);
        }
    }

    private static void close(SocketChannel channel) {
        try {
            channel.close();
        } catch (IOException already) {
            LOG.debug("Closing", already);
        }
    }
}
