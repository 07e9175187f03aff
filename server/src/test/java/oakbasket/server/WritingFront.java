package oakbasket.server;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.concurrent.Executors;
import org.springframework.util.FileSystemUtils;

/**
 * Stands before the read-only share for programs that must write before they read: what they write goes to the disk, as if somebody changed the folder by hand;
 * every question goes on to the share, and its answer comes back as it is.
 */
final class WritingFront implements AutoCloseable {

    private static final Set<String> READING = Set.of("OPTIONS", "GET", "HEAD", "PROPFIND");
    /** What no client hands on, and what the two servers say for themselves. */
    private static final Set<String> OWN = Set.of("connection", "host", "content-length", "expect", "upgrade", "transfer-encoding", "te", "date");

    private final HttpServer server;
    private final HttpClient client = HttpClient.newHttpClient();
    private final String prefix;
    private final Path folder;

    /** @param prefix the path of the share that the folder is served under */
    WritingFront(String prefix, Path folder) throws IOException {
        this.prefix = prefix;
        this.folder = folder;
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.setExecutor(Executors.newCachedThreadPool());
        server.createContext("/", this::answer);
        server.start();
    }

    String url() {
        return "http://localhost:" + server.getAddress().getPort() + prefix;
    }

    private void answer(HttpExchange exchange) throws IOException {
        try (exchange) {
            byte[] body = exchange.getRequestBody().readAllBytes();
            if (READING.contains(exchange.getRequestMethod())) {
                pass(exchange, body);
            } else {
                exchange.sendResponseHeaders(change(exchange.getRequestMethod(), folder.resolve(URI.create(exchange.getRequestURI().getRawPath().substring(prefix.length())).getPath()), body), -1);
            }
        }
    }

    private static int change(String method, Path path, byte[] body) throws IOException {
        if (method.equals("DELETE")) {
            return FileSystemUtils.deleteRecursively(path) ? 204 : 404;
        }
        if (!Files.isDirectory(path.getParent())) {
            return 409;
        }
        if (method.equals("MKCOL")) {
            if (Files.exists(path)) {
                return 405;
            }
            Files.createDirectory(path);
            return 201;
        }
        if (method.equals("PUT")) {
            Files.write(path, body);
            return 201;
        }
        return 403;
    }

    private void pass(HttpExchange exchange, byte[] body) throws IOException {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(RunningApp.URL + exchange.getRequestURI().getRawPath())).method(exchange.getRequestMethod(), HttpRequest.BodyPublishers.ofByteArray(body));
        exchange.getRequestHeaders().forEach((name, values) -> values.stream().filter(value -> !OWN.contains(name.toLowerCase(Locale.ROOT))).forEach(value -> request.header(name, value)));
        HttpResponse<byte[]> answer;
        try {
            answer = client.send(request.build(), HttpResponse.BodyHandlers.ofByteArray());
        } catch (InterruptedException stopped) {
            throw new IOException(stopped);
        }
        answer.headers().map().forEach((name, values) -> {
            if (!OWN.contains(name)) {
                exchange.getResponseHeaders().put(name, List.copyOf(values));
            }
        });
        boolean empty = answer.body().length == 0 || exchange.getRequestMethod().equals("HEAD");
        exchange.sendResponseHeaders(answer.statusCode(), empty ? -1 : answer.body().length);
        if (!empty) {
            exchange.getResponseBody().write(answer.body());
        }
    }

    @Override
    public void close() {
        server.stop(0);
    }
}
