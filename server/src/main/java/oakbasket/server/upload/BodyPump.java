package oakbasket.server.upload;

import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.security.MessageDigest;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.Semaphore;
import java.util.function.LongConsumer;
import oakbasket.server.storage.Disk;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/**
 * Moves a request body into a file and a digest. Hashing is the slowest part of receiving a large file, so it runs in a second thread, a few
 * buffers behind; memory does not grow with the size of the file.
 */
@Component
public class BodyPump {

    private static final int BUFFER_BYTES = 256 * 1024;
    private static final int BUFFERS = 4;
    /** Below this a second thread and its buffers cost more than they bring, most of all with many senders at once. */
    private static final long SMALL_BODY_BYTES = 8 * 1024 * 1024;
    private static final int SMALL_BUFFER_BYTES = 64 * 1024;
    /** As many buffers are hashed at the same moment as there are processors; the rest wait, so that a short call finds one among two hundred senders. */
    private static final Semaphore TURNS = new Semaphore(Runtime.getRuntime().availableProcessors());

    /**
     * What came.
     *
     * @param bytes written and hashed
     * @param broken why the body ended early; null when it ended by itself or the room was filled
     */
    public record Pumped(long bytes, @Nullable IOException broken) {
    }

    private final ExecutorService hashers = Executors.newCachedThreadPool(work -> {
        Thread thread = new Thread(work, "hash");
        thread.setDaemon(true);
        return thread;
    });

    /**
     * Reads at most {@code room} bytes, whatever the body claims. When this returns, exactly the bytes told are written and hashed.
     *
     * @param written called now and then with the bytes written so far
     * @throws IOException when the file cannot be written
     */
    public Pumped pump(InputStream body, Disk.DiskFile file, long room, MessageDigest digest, LongConsumer written) throws IOException {
        return room <= SMALL_BODY_BYTES ? pumpSmall(body, file, room, digest) : pumpLarge(body, file, room, digest, written);
    }

    private static Pumped pumpSmall(InputStream body, Disk.DiskFile file, long room, MessageDigest digest) throws IOException {
        byte[] buffer = new byte[(int) Math.min(room, SMALL_BUFFER_BYTES)];
        long total = 0;
        while (total < room) {
            Filled filled = fill(body, buffer, room - total);
            write(file, buffer, filled.length());
            inTurn(digest, filled);
            total += filled.length();
            if (filled.last()) {
                return new Pumped(total, filled.broken());
            }
        }
        return new Pumped(total, null);
    }

    private Pumped pumpLarge(InputStream body, Disk.DiskFile file, long room, MessageDigest digest, LongConsumer written) throws IOException {
        BlockingQueue<byte[]> free = new ArrayBlockingQueue<>(BUFFERS);
        BlockingQueue<Filled> full = new ArrayBlockingQueue<>(BUFFERS + 1);
        for (int i = 0; i < BUFFERS; i++) {
            free.add(new byte[BUFFER_BYTES]);
        }
        Future<?> hashing = hashers.submit(() -> hash(full, free, digest));
        long total = 0;
        IOException broken = null;
        try {
            while (total < room) {
                byte[] buffer = take(free);
                Filled filled = fill(body, buffer, room - total);
                write(file, buffer, filled.length());
                full.add(filled);
                total += filled.length();
                written.accept(total);
                if (filled.last()) {
                    broken = filled.broken();
                    break;
                }
            }
        } finally {
            full.add(Filled.END);
            await(hashing);
        }
        return new Pumped(total, broken);
    }

    @SuppressWarnings("ReferenceEquality") // the end is one thing, not a value
    private static void hash(BlockingQueue<Filled> full, BlockingQueue<byte[]> free, MessageDigest digest) {
        for (Filled filled = take(full); filled != Filled.END; filled = take(full)) {
            inTurn(digest, filled);
            free.add(filled.buffer());
        }
    }

    private static void inTurn(MessageDigest digest, Filled filled) {
        TURNS.acquireUninterruptibly();
        try {
            digest.update(filled.buffer(), 0, filled.length());
        } finally {
            TURNS.release();
        }
    }

    /** A buffer as read: {@code last} when the body ended or broke in it. */
    private record Filled(byte[] buffer, int length, boolean last, @Nullable IOException broken) {
        static final Filled END = new Filled(new byte[0], 0, true, null);
    }

    private static Filled fill(InputStream body, byte[] buffer, long room) {
        int wanted = (int) Math.min(buffer.length, room);
        int length = 0;
        try {
            while (length < wanted) {
                int read = body.read(buffer, length, wanted - length);
                if (read < 0) {
                    return new Filled(buffer, length, true, null);
                }
                length += read;
            }
            return new Filled(buffer, length, false, null);
        } catch (IOException senderGone) {
            return new Filled(buffer, length, true, senderGone);
        }
    }

    private static void write(Disk.DiskFile file, byte[] buffer, int length) throws IOException {
        ByteBuffer bytes = ByteBuffer.wrap(buffer, 0, length);
        while (bytes.hasRemaining()) {
            file.write(bytes);
        }
    }

    private static <T> T take(BlockingQueue<T> queue) {
        try {
            return queue.take();
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException("Stopped while receiving", stopped);
        }
    }

    private static void await(Future<?> hashing) {
        try {
            hashing.get();
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException("Stopped while receiving", stopped);
        } catch (java.util.concurrent.ExecutionException problem) {
            throw new IllegalStateException("Hashing failed", problem.getCause());
        }
    }
}
