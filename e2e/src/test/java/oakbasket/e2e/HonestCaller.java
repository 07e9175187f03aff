package oakbasket.e2e;

import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;

/** Somebody from another address of this machine who just wants the page, and how long they wait for it. */
final class HonestCaller {

    private static final int TIMEOUT_MILLIS = 5_000;

    private HonestCaller() {
    }

    /** The times of so many calls in milliseconds, each on a connection of its own, in ascending order; a call that fails counts as the longest there is. */
    static List<Double> call(String from, int port, String path, int times) {
        List<Double> waited = new ArrayList<>();
        for (int n = 0; n < times; n++) {
            long begun = System.nanoTime();
            boolean answered = once(from, port, path);
            waited.add(answered ? (System.nanoTime() - begun) / 1e6 : TIMEOUT_MILLIS);
        }
        Collections.sort(waited);
        return waited;
    }

    static double percentile95(List<Double> sorted) {
        return sorted.get((int) Math.ceil(sorted.size() * 0.95) - 1);
    }

    private static boolean once(String from, int port, String path) {
        try (Socket socket = new Socket(InetAddress.getByName("127.0.0.1"), port, InetAddress.getByName(from), 0)) {
            socket.setSoTimeout(TIMEOUT_MILLIS);
            socket.getOutputStream().write(("GET " + path + " HTTP/1.1\r\nHost: localhost\r\nConnection: close\r\n\r\n").getBytes(StandardCharsets.US_ASCII));
            InputStream in = new BufferedInputStream(socket.getInputStream());
            String head = new String(in.readNBytes(12), StandardCharsets.US_ASCII);
            in.transferTo(java.io.OutputStream.nullOutputStream());
            return head.matches("HTTP/1.1 [2-4]\\d\\d");
        } catch (IOException notAnswered) {
            return false;
        }
    }
}
