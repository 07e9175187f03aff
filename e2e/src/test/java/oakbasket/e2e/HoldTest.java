package oakbasket.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

/**
 * A server with 256 MiB under connections that are only there to be in the way, from one address of this machine, without a link or an account. Somebody at
 * another address is served meanwhile, nothing ends the process, and ten seconds after the end everything is as before. Sources of the shapes: RFC 9110
 * §15.5.9, RFC 6585; the numbers are wishes of the product. bench/hold.sh prints how long each call takes, with 10,000 connections too.
 */
class HoldTest {

    private static final String STRANGER = "127.0.0.1";
    private static final String HONEST = "127.0.0.2";
    private static final double LONGEST_MILLIS = 500;

    /** As behind a proxy, where all callers have one address: the bounds must hold without counting per caller. */
    @Test
    void somebodyElseIsServedWhileThousandsAreInTheWay() {
        try (PackagedApp app = new PackagedApp(PackagedApp.freshFolder(), "--oakbasket.connections-per-caller=6000")) {
            String large = largestAsset(app);
            HonestCaller.call(HONEST, app.port, "/sign-in", 50);
            try (Siege half = Siege.of(STRANGER, app.port, 3_000, Siege.Kind.halfSent());
                    Siege bodies = Siege.of(STRANGER, app.port, 500, Siege.Kind.slowBody("/api/session"));
                    Siege readers = Siege.of(STRANGER, app.port, 500, Siege.Kind.slowReader(large))) {
                assertThat(half.alive() + bodies.alive() + readers.alive()).as("connections that are really in the way").isGreaterThan(800);
                assertThat(HonestCaller.percentile95(HonestCaller.call(HONEST, app.port, "/sign-in", 40))).as("ms at the 95th percentile").isLessThan(LONGEST_MILLIS);
                assertThat(HonestCaller.percentile95(HonestCaller.call(HONEST, app.port, "/api/session", 40))).as("ms at the 95th percentile").isLessThan(LONGEST_MILLIS);
            }
            assertAsBefore(app);
        }
    }

    @Test
    void oneAddressHoldsSoManyConnectionsAndNoMore() {
        try (PackagedApp app = new PackagedApp(PackagedApp.freshFolder())) {
            HonestCaller.call(HONEST, app.port, "/sign-in", 20);
            try (Siege idle = Siege.of(STRANGER, app.port, 2_000, Siege.Kind.idle())) {
                Instant until = Instant.now().plusSeconds(20);
                while (idle.alive() > 256 && Instant.now().isBefore(until)) {
                    Thread.onSpinWait();
                }
                assertThat(idle.alive()).isLessThanOrEqualTo(256);
                assertThat(HonestCaller.percentile95(HonestCaller.call(HONEST, app.port, "/sign-in", 20))).isLessThan(LONGEST_MILLIS);
            }
            assertAsBefore(app);
        }
    }

    /** A thousand windows of one account, and bodies of 90 MB under a disguised address: both ended the process once. */
    @Test
    void neitherStreamsNorHugeBodiesEndTheProcess() throws IOException {
        try (PackagedApp app = new PackagedApp(PackagedApp.freshFolder(), "--oakbasket.demo=true", "--oakbasket.connections-per-caller=6000")) {
            String session = new Api(app.url()).cookies();
            List<Socket> streams = new ArrayList<>();
            int open = 0;
            try {
                for (int n = 0; n < 1_000; n++) {
                    Socket socket = new Socket(STRANGER, app.port);
                    socket.setSoTimeout(20_000);
                    socket.getOutputStream().write(("GET /api/live HTTP/1.1\r\nHost: localhost\r\nCookie: " + session + "\r\n\r\n").getBytes(StandardCharsets.US_ASCII));
                    open += new String(socket.getInputStream().readNBytes(12), StandardCharsets.US_ASCII).endsWith("200") ? 1 : 0;
                    streams.add(socket);
                }
                assertThat(open).as("streams of one account").isEqualTo(24);
                assertThat(HonestCaller.percentile95(HonestCaller.call(HONEST, app.port, "/sign-in", 20))).isLessThan(LONGEST_MILLIS);
            } finally {
                for (Socket socket : streams) {
                    socket.close();
                }
            }
            byte[] part = ("{\"name\":\"" + "x".repeat(1 << 20)).getBytes(StandardCharsets.US_ASCII);
            for (int n = 0; n < 120; n++) {
                try (Socket socket = new Socket(STRANGER, app.port)) {
                    socket.setSoTimeout(20_000);
                    socket.getOutputStream().write(("POST /api/%62asket/submissions HTTP/1.1\r\nHost: localhost\r\nContent-Type: application/json\r\nContent-Length: 94371840\r\n\r\n").getBytes(StandardCharsets.US_ASCII));
                    InputStream in = socket.getInputStream();
                    assertThat(new String(in.readNBytes(12), StandardCharsets.US_ASCII)).endsWith("413");
                    socket.getOutputStream().write(part);
                } catch (IOException endedByTheServer) {
                    assertThat(app.alive()).isTrue();
                }
            }
            assertAsBefore(app);
        }
    }

    private static void assertAsBefore(PackagedApp app) {
        assertThat(app.alive()).isTrue();
        Instant until = Instant.now().plus(Duration.ofSeconds(10));
        double waited = Double.MAX_VALUE;
        while (waited > LONGEST_MILLIS && Instant.now().isBefore(until)) {
            waited = HonestCaller.percentile95(HonestCaller.call(STRANGER, app.port, "/api/session", 20));
        }
        assertThat(waited).as("ms at the 95th percentile, for the same address, ten seconds after").isLessThan(LONGEST_MILLIS);
        assertThat(app.log()).noneMatch(line -> line.contains("OutOfMemoryError"));
    }

    /** The largest part of the pages, by what the packaged application holds. */
    private static String largestAsset(PackagedApp app) {
        return HoldBench.largestAsset(app.jar().toString());
    }
}
