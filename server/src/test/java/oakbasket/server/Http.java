package oakbasket.server;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.CookieManager;
import java.net.HttpCookie;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** A caller with its own cookies. */
final class Http {

    static final JsonMapper JSON = new JsonMapper();

    private final CookieManager cookies = new CookieManager();
    private final HttpClient client = HttpClient.newBuilder().cookieHandler(cookies).version(HttpClient.Version.HTTP_1_1).build();
    private final String base;

    Http() {
        this(RunningApp.URL);
    }

    Http(String base) {
        this.base = base;
    }

    /** Somebody else who calls the same application. */
    Http another() {
        return new Http(base);
    }

    private static final Http DESK = freshDesk();

    /** The desk that all tests share. */
    static Http desk() {
        return DESK;
    }

    /** A desk that has signed in, with a session of its own. */
    static Http freshDesk() {
        return signedIn(RunningApp.EMAIL, RunningApp.PASSWORD);
    }

    /** The desk of somebody else of the office. */
    static Http signedIn(String email, String password) {
        Http desk = new Http();
        desk.get("/api/session");
        Answer answer = desk.post("/api/session", "{\"email\":\"" + email + "\",\"password\":\"" + password + "\"}");
        if (answer.status() != 200) {
            throw new IllegalStateException("Cannot sign in: " + answer.text());
        }
        return desk;
    }

    /** An answer of the server. */
    record Answer(HttpResponse<byte[]> response) {
        int status() {
            return response.statusCode();
        }

        String text() {
            return new String(response.body(), StandardCharsets.UTF_8);
        }

        JsonNode json() {
            return JSON.readTree(response.body());
        }

        String header(String name) {
            return response.headers().firstValue(name).orElse("");
        }

        /** The last part of the type of the problem detail; fails when the answer is none. */
        String problem() {
            if (!header("Content-Type").startsWith("application/problem+json")) {
                throw new AssertionError("No problem detail but " + status() + " " + header("Content-Type") + " " + text());
            }
            String type = json().path("type").asString();
            return type.substring(type.lastIndexOf(':') + 1);
        }

        /** What a problem detail says of one field; empty when nothing. */
        String at(String field) {
            for (JsonNode error : json().path("errors")) {
                if (error.path("field").asString().equals(field)) {
                    return error.path("detail").asString();
                }
            }
            return "";
        }
    }

    Answer get(String path, String... headers) {
        return send("GET", path, null, headers);
    }

    Answer post(String path, String body, String... headers) {
        return send("POST", path, body.getBytes(StandardCharsets.UTF_8), join(headers, "Content-Type", "application/json"));
    }

    Answer put(String path, String body, String... headers) {
        return send("PUT", path, body.getBytes(StandardCharsets.UTF_8), join(headers, "Content-Type", "application/json"));
    }

    Answer send(String method, String path, byte[] body, String... headers) {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(base + path))
                .method(method, body == null ? HttpRequest.BodyPublishers.noBody() : HttpRequest.BodyPublishers.ofByteArray(body));
        if (headers.length > 0) {
            request.headers(headers);
        }
        cookies.getCookieStore().getCookies().stream().filter(cookie -> cookie.getName().equals("XSRF-TOKEN")).map(HttpCookie::getValue)
                .forEach(token -> request.header("X-XSRF-TOKEN", token));
        return exchange(request.build());
    }

    Answer exchange(HttpRequest request) {
        try {
            return new Answer(client.send(request, HttpResponse.BodyHandlers.ofByteArray()));
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        } catch (InterruptedException stopped) {
            throw new IllegalStateException(stopped);
        }
    }

    /** The SHA-256 of content in hexadecimal. */
    static String sha256(byte[] content) {
        try {
            return java.util.HexFormat.of().formatHex(java.security.MessageDigest.getInstance("SHA-256").digest(content));
        } catch (java.security.NoSuchAlgorithmException impossible) {
            throw new IllegalStateException(impossible);
        }
    }

    HttpClient client() {
        return client;
    }

    /** The value of a cookie this caller has. */
    String cookie(String name) {
        return cookies.getCookieStore().getCookies().stream().filter(cookie -> cookie.getName().equals(name)).map(HttpCookie::getValue).findFirst().orElseThrow();
    }

    void forgetCsrf() {
        cookies.getCookieStore().getCookies().stream().filter(cookie -> cookie.getName().equals("XSRF-TOKEN")).toList()
                .forEach(cookie -> cookies.getCookieStore().remove(null, cookie));
    }

    private static String[] join(String[] first, String... second) {
        String[] all = java.util.Arrays.copyOf(first, first.length + second.length);
        System.arraycopy(second, 0, all, first.length, second.length);
        return all;
    }
}
