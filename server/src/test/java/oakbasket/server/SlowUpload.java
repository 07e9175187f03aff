package oakbasket.server;

import java.io.IOException;
import java.net.Socket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;

/** A request that has begun to write an upload and holds it, until the rest is sent or it is closed. */
final class SlowUpload implements AutoCloseable {

    private final byte[] content;
    private final int begun;
    private Socket socket;

    /**
     * Begins to send, and returns once the server has let it hold the upload. What asks for that holds the upload for a moment itself, so that the slow
     * request may be told to come again; it does, as a sender's page would.
     */
    SlowUpload(TestRound.Sender sender, String location, byte[] content, int begun) throws IOException {
        this.content = content;
        this.begun = begun;
        this.socket = open(location);
        Waiting.until(() -> {
            comeAgainIfRefused(location);
            return sender.patch(location, Long.MAX_VALUE / 16, new byte[0]).status();
        }, status -> status == 423);
    }

    /** Sends the rest; the first line of the answer. */
    String finish() throws IOException {
        socket.getOutputStream().write(content, begun, content.length - begun);
        return new String(socket.getInputStream().readNBytes(12), StandardCharsets.US_ASCII);
    }

    private void comeAgainIfRefused(String location) {
        try {
            if (socket.getInputStream().available() > 0) {
                socket.close();
                socket = open(location);
            }
        } catch (IOException problem) {
            throw new java.io.UncheckedIOException(problem);
        }
    }

    private Socket open(String location) throws IOException {
        URI url = URI.create(RunningApp.URL);
        Socket opened = new Socket(url.getHost(), url.getPort());
        opened.getOutputStream().write(("PATCH " + location + " HTTP/1.1\r\nHost: x\r\nTus-Resumable: 1.0.0\r\nUpload-Offset: 0\r\nContent-Type: application/offset+octet-stream\r\n"
                + "Content-Length: " + content.length + "\r\n\r\n").getBytes(StandardCharsets.US_ASCII));
        opened.getOutputStream().write(Arrays.copyOf(content, begun));
        return opened;
    }

    @Override
    public void close() throws IOException {
        socket.close();
    }
}
