package oakbasket.e2e;

import java.io.IOException;
import java.net.CookieManager;
import java.net.HttpCookie;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Base64;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The desk over HTTP, to prepare what a journey needs and to look at what it left. */
final class Api {

    static final String EMAIL = "coordinator@example.org";
    static final String PASSWORD = "river oak basket";
    private static final JsonMapper JSON = new JsonMapper();

    private final CookieManager cookies = new CookieManager();
    private final HttpClient client = HttpClient.newBuilder().cookieHandler(cookies).version(HttpClient.Version.HTTP_1_1).build();
    private final String base;

    /** Somebody without an account. */
    static Api stranger(String base) {
        return new Api(base, false);
    }

    Api(String base) {
        this(base, true);
    }

    private Api(String base, boolean signIn) {
        this.base = base;
        if (!signIn) {
            return;
        }
        get("/api/session");
        post("/api/session", JSON.createObjectNode().put("email", EMAIL).put("password", PASSWORD).toString());
    }

    /** The cookies of this caller, as a header has them. */
    String cookies() {
        return cookies.getCookieStore().getCookies().stream().map(cookie -> cookie.getName() + "=" + cookie.getValue()).collect(java.util.stream.Collectors.joining("; "));
    }

    JsonNode get(String path) {
        return JSON.readTree(send("GET", path, null).body());
    }

    HttpResponse<byte[]> post(String path, String json) {
        return send("POST", path, json.getBytes(StandardCharsets.UTF_8), "Content-Type", "application/json");
    }

    HttpResponse<byte[]> send(String method, String path, byte[] body, String... headers) {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(base + path)).timeout(Duration.ofSeconds(60))
                .method(method, body == null ? HttpRequest.BodyPublishers.noBody() : HttpRequest.BodyPublishers.ofByteArray(body));
        if (headers.length > 0) {
            request.headers(headers);
        }
        cookies.getCookieStore().getCookies().stream().filter(cookie -> cookie.getName().equals("XSRF-TOKEN")).map(HttpCookie::getValue)
                .forEach(token -> request.header("X-XSRF-TOKEN", token));
        try {
            return client.send(request.build(), HttpResponse.BodyHandlers.ofByteArray());
        } catch (IOException gone) {
            throw new java.io.UncheckedIOException(gone);
        } catch (InterruptedException stopped) {
            throw new IllegalStateException(stopped);
        }
    }

    static JsonNode json(HttpResponse<byte[]> response) {
        return JSON.readTree(response.body());
    }

    /** The id of the demo round whose title begins so. */
    long round(String title) {
        for (JsonNode round : get("/api/rounds")) {
            if (round.path("title").asString().startsWith(title)) {
                return round.path("id").asLong();
            }
        }
        throw new IllegalStateException("No round " + title);
    }

    JsonNode row(long round, String name) {
        for (JsonNode row : get("/api/rounds/" + round + "/board").path("rows")) {
            if (row.path("name").asString().equals(name)) {
                return row;
            }
        }
        throw new IllegalStateException("No row of " + name);
    }

    /** Does something to one person's basket; {@code more} is further JSON, such as {@code "on":true}. */
    HttpResponse<byte[]> act(long round, String name, String kind, String more) {
        JsonNode row = row(round, name);
        return post("/api/rounds/" + round + "/acts", "{\"kind\":\"" + kind + "\",\"baskets\":[{\"id\":" + row.path("id") + ",\"version\":" + row.path("version") + "}]," + more + "}");
    }

    String personalLink(long round, String name) {
        return get("/api/baskets/" + row(round, name).path("id").asLong() + "/link").path("url").asString();
    }

    static String base64(String text) {
        return Base64.getEncoder().encodeToString(text.getBytes(StandardCharsets.UTF_8));
    }
}
