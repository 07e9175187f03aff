package oakbasket.server;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.net.Socket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;

/** Says to the server, byte for byte, what no well-behaved client would say. */
final class RawCaller {

    private static final int LONGEST_WAIT_MILLIS = 30_000;

    private RawCaller() {
    }

    /** What came back; status 0 when the connection ended without an answer. */
    record RawAnswer(int status, Map<String, String> headers, String body) {
        String header(String name) {
            return headers.getOrDefault(name.toLowerCase(Locale.ROOT), "");
        }
    }

    /** Sends a whole request as it is given; line ends as {@code \r\n}. */
    static RawAnswer say(String request) {
        return say(request.getBytes(StandardCharsets.ISO_8859_1));
    }

    static RawAnswer say(byte[] request) {
        URI url = URI.create(RunningApp.URL);
        try (Socket socket = new Socket(url.getHost(), url.getPort())) {
            socket.setSoTimeout(LONGEST_WAIT_MILLIS);
            try {
                socket.getOutputStream().write(request);
            } catch (IOException refusedMeanwhile) {
                // The answer may be there all the same.
                return read(socket.getInputStream());
            }
            return read(socket.getInputStream());
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }

    private static RawAnswer read(InputStream in) throws IOException {
        String all;
        try {
            all = new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException reset) {
            return new RawAnswer(0, Map.of(), "");
        }
        int end = all.indexOf("\r\n\r\n");
        if (end < 0) {
            return new RawAnswer(0, Map.of(), all);
        }
        Map<String, String> headers = new TreeMap<>();
        String[] lines = all.substring(0, end).split("\r\n");
        for (int n = 1; n < lines.length; n++) {
            int colon = lines[n].indexOf(':');
            headers.put(lines[n].substring(0, colon).toLowerCase(Locale.ROOT), lines[n].substring(colon + 1).strip());
        }
        return new RawAnswer(Integer.parseInt(lines[0].split(" ")[1]), headers, all.substring(end + 4));
    }
}
