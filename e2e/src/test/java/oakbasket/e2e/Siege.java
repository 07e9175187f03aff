package oakbasket.e2e;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetSocketAddress;
import java.net.StandardSocketOptions;
import java.nio.ByteBuffer;
import java.nio.channels.SelectionKey;
import java.nio.channels.Selector;
import java.nio.channels.SocketChannel;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;

/**
 * Many connections from one loopback address that do what honest ones do not: say nothing, stop in the middle, send or read a byte now and then. Bounded in
 * number and ended by {@link #close}; only ever against a server on this machine.
 */
final class Siege implements AutoCloseable {

    /**
     * One way of being in the way.
     *
     * @param opening what each connection says at once
     * @param drip what it says again and again; empty for nothing
     * @param every how often it drips, or reads
     * @param reading whether it reads a byte at a time instead of dripping
     */
    record Kind(String opening, String drip, Duration every, boolean reading) {

        static Kind idle() {
            return new Kind("", "", Duration.ofDays(1), false);
        }

        /** A request head that never ends. */
        static Kind halfSent() {
            return new Kind("GET / HTTP/1.1\r\nHost: localhost\r\nX-Filler: ", "a", Duration.ofSeconds(5), false);
        }

        /** A body announced as long, of which a byte comes now and then. */
        static Kind slowBody(String path) {
            return new Kind("POST " + path + " HTTP/1.1\r\nHost: localhost\r\nContent-Type: application/json\r\nContent-Length: 60000\r\n\r\n{", " ", Duration.ofSeconds(5), false);
        }

        /** Asks for something large, several times over, and reads next to nothing of it. */
        static Kind slowReader(String path) {
            return new Kind(("GET " + path + " HTTP/1.1\r\nHost: localhost\r\n\r\n").repeat(20), "", Duration.ofSeconds(2), true);
        }
    }

    private static final int RECEIVE_BYTES = 2_048;

    private final Selector selector;
    private final Thread worker;
    private final List<SocketChannel> channels = new ArrayList<>();
    private final AtomicInteger refused = new AtomicInteger();
    private volatile boolean running = true;

    private Siege(String from, int port, int count, Kind kind) {
        try {
            selector = Selector.open();
            for (int n = 0; n < count; n++) {
                open(from, port, kind);
            }
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
        worker = new Thread(() -> work(kind), "siege");
        worker.setDaemon(true);
        worker.start();
    }

    /** Opens the connections and keeps at it until closed. */
    static Siege of(String from, int port, int count, Kind kind) {
        return new Siege(from, port, count, kind);
    }

    /** How many connections the server still holds open, as far as can be seen from here. */
    int alive() {
        synchronized (channels) {
            return (int) channels.stream().filter(SocketChannel::isOpen).count();
        }
    }

    @Override
    public void close() {
        running = false;
        selector.wakeup();
        try {
            worker.join();
            for (SocketChannel channel : channels) {
                channel.close();
            }
            selector.close();
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        } catch (InterruptedException stopped) {
            throw new IllegalStateException(stopped);
        }
    }

    private void open(String from, int port, Kind kind) throws IOException {
        SocketChannel channel = SocketChannel.open();
        if (kind.reading()) {
            channel.setOption(StandardSocketOptions.SO_RCVBUF, RECEIVE_BYTES);
        }
        channel.setOption(StandardSocketOptions.SO_REUSEADDR, true);
        channel.bind(new InetSocketAddress(from, 0));
        try {
            channel.socket().connect(new InetSocketAddress("127.0.0.1", port), 5_000);
        } catch (IOException notAccepted) {
            refused.incrementAndGet();
            channel.close();
            return;
        }
        try {
            channel.write(ByteBuffer.wrap(kind.opening().getBytes(StandardCharsets.US_ASCII)));
            channel.configureBlocking(false);
            if (!kind.reading()) {
                channel.register(selector, SelectionKey.OP_READ);
            }
            channels.add(channel);
        } catch (IOException closedAtOnce) {
            channel.close();
        }
    }

    private void work(Kind kind) {
        ByteBuffer drip = ByteBuffer.wrap(kind.drip().getBytes(StandardCharsets.US_ASCII));
        ByteBuffer heard = ByteBuffer.allocate(4_096);
        ByteBuffer sip = ByteBuffer.allocate(1);
        long next = System.nanoTime() + kind.every().toNanos();
        try {
            while (running) {
                selector.select(200);
                for (SelectionKey key : selector.selectedKeys()) {
                    hear((SocketChannel) key.channel(), heard);
                }
                selector.selectedKeys().clear();
                if (System.nanoTime() >= next) {
                    next = System.nanoTime() + kind.every().toNanos();
                    synchronized (channels) {
                        for (SocketChannel channel : channels) {
                            tick(channel, kind.reading() ? sip.clear() : drip.rewind(), kind.reading());
                        }
                    }
                }
            }
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }

    /** Whatever is answered is thrown away; the end of the connection is noted. */
    private static void hear(SocketChannel channel, ByteBuffer heard) throws IOException {
        try {
            if (channel.read(heard.clear()) < 0) {
                channel.close();
            }
        } catch (IOException reset) {
            channel.close();
        }
    }

    private static void tick(SocketChannel channel, ByteBuffer bytes, boolean reading) throws IOException {
        if (!channel.isOpen()) {
            return;
        }
        try {
            if (reading ? channel.read(bytes) < 0 : bytes.hasRemaining() && channel.write(bytes) < 0) {
                channel.close();
            }
        } catch (IOException reset) {
            channel.close();
        }
    }
}
