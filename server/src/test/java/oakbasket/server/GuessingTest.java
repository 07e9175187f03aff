package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.InetAddress;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.stream.IntStream;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.server.account.AccountService;
import oakbasket.server.security.Limits;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.boot.web.server.servlet.context.ServletWebServerApplicationContext;
import org.springframework.context.ConfigurableApplicationContext;

/** Signing in, against those who guess: many at once, from many places, in many spellings; and what holds of a session. */
class GuessingTest {

    private static final String EMAIL = "wren@example.org";
    private static final String PASSWORD = "long enough password";

    private ConfigurableApplicationContext app;
    private int port;

    @BeforeEach
    void start() {
        app = RunningApp.startOn(RunningApp.freshFolder());
        app.getBean(AccountService.class).make(new Person("Wren", MailAddress.parse(EMAIL)), PASSWORD);
        port = ((ServletWebServerApplicationContext) app).getWebServer().getPort();
    }

    @AfterEach
    void stop() {
        app.close();
    }

    @Test
    void passkeysAreTriedNoMoreOftenThanPasswords() {
        Http guesser = new Http("http://127.0.0.1:" + port);
        guesser.get("/api/session");
        for (String said : List.of("", "{}", "[]", "null", "{\"id\":\"x\",\"rawId\":\"x\",\"type\":\"public-key\",\"response\":{\"authenticatorData\":\"AA\",\"clientDataJSON\":\"AA\",\"signature\":\"AA\"}}")) {
            String offer = guesser.post("/api/session/passkey-offer", "").json().path("offer").asString();
            String answer = Http.JSON.createObjectNode().put("offer", offer).put("answer", said).toString();
            assertThat(guesser.post("/api/session/passkey", answer).problem()).as(said).isEqualTo("passkey-wrong");
            assertThat(guesser.post("/api/session/passkey", answer).problem()).as("an offer is taken once").isEqualTo("passkey-over");
        }
        assertThat(guesser.get("/api/session").json().path("signedIn").asBoolean()).isFalse();
        assertThat(guesser.post("/api/session/passkey", "{\"offer\":\"x\",\"answer\":\"{}\"}").status()).isEqualTo(429);
    }

    /** Its own application, whose counts no other test needs. */
    @Test
    void whoeverNeedsNoSignInIsCountedAndSigningInIsNot() {
        Limits limits = app.getBean(Limits.class);
        for (int n = 0; n < 20_000; n++) {
            limits.count(Limits.Kind.STRANGER, "127.0.0.1");
        }
        Http stranger = new Http("http://127.0.0.1:" + port);
        for (String path : List.of("/api/basket", "/api/uploads/none", "/b/none", "/f/none", "/receipt", "/calendar/none.ics")) {
            Http.Answer answer = stranger.get(path, "Tus-Resumable", "1.0.0");
            assertThat(answer.status()).as(path).isEqualTo(429);
            assertThat(answer.header("Retry-After")).as(path).matches("[1-9]\\d*");
            assertThat(answer.problem()).as(path).isEqualTo("too-many");
        }
        stranger.get("/api/session");
        assertThat(stranger.post("/api/session", "{\"email\":\"" + EMAIL + "\",\"password\":\"" + PASSWORD + "\"}").status()).as("a coordinator in the same house").isEqualTo(200);
        assertThat(stranger.get("/api/rounds").status()).isEqualTo(200);
    }

    private Http caller() {
        Http caller = new Http("http://localhost:" + port);
        caller.get("/api/session");
        return caller;
    }

    private static String body(String email, String password) {
        return Http.JSON.createObjectNode().put("email", email).put("password", password).toString();
    }

    @Test
    void ofSixtyTriesAtOnceTenAreLookedAt() {
        Http caller = caller();
        List<CompletableFuture<Http.Answer>> tries = IntStream.range(0, 60).mapToObj(n -> CompletableFuture.supplyAsync(() -> caller.post("/api/session", body(EMAIL, "guess " + n)),
                task -> new Thread(task).start())).toList();
        List<Integer> statuses = tries.stream().map(CompletableFuture::join).map(Http.Answer::status).toList();
        assertThat(statuses.stream().filter(status -> status == 429)).hasSize(50);
        assertThat(statuses.stream().filter(status -> status == 401 || status == 503)).hasSize(10);
    }

    @Test
    void receiptsAreNotGuessedAt() {
        Http caller = caller();
        String question = "{\"code\":\"0000-0000-0000\",\"sha256\":\"" + "0".repeat(64) + "\"}";
        for (int i = 0; i < 60; i++) {
            assertThat(caller.post("/api/basket/receipt-check", question).text()).isEqualTo("{\"received\":false}");
        }
        Http.Answer refused = caller.post("/api/basket/receipt-check", question);
        assertThat(refused.status()).isEqualTo(429);
        assertThat(refused.header("Retry-After")).isNotEmpty();
    }

    @Test
    void aBrowserThatSignedInBeforeIsNotLockedOutByThoseWhoGuess() throws Exception {
        Http known = caller();
        assertThat(known.post("/api/session", body(EMAIL, PASSWORD)).status()).isEqualTo(200);
        String[] spellings = {EMAIL, "WREN@example.org", " wren@EXAMPLE.ORG ", "wren@\uff45xample.org", "wren@exam\u00adple.org", "wren@example\u3002org", "wren@example\uff0eorg",
            "wren@ex\u200bample.org", "Wren@Example.Org", "wren@\uff25\uff38\uff21\uff2d\uff30\uff2c\uff25.org"};
        for (int n = 0; n < 10; n++) {
            assertThat(signInFrom("127.0.1." + (n + 1), spellings[n], "guess")).as(spellings[n]).isEqualTo(401);
        }
        assertThat(signInFrom("127.0.1.99", EMAIL, PASSWORD)).as("all of these were one account, wherever they came from").isEqualTo(429);
        assertThat(known.post("/api/session", body(EMAIL, PASSWORD)).status()).as("who signed in here before").isEqualTo(200);
        assertThat(signInFrom("127.0.1.98", "somebody.else@example.org", "guess")).as("another account").isEqualTo(401);
    }

    /** The answer's status, for a caller at another address of this machine. */
    private int signInFrom(String address, String email, String password) throws IOException {
        String token = exchange(address, "GET /api/session HTTP/1.1\r\nHost: x\r\nConnection: close\r\n\r\n").replaceAll("(?s).*XSRF-TOKEN=([^;]+);.*", "$1");
        byte[] content = body(email, password).getBytes(StandardCharsets.UTF_8);
        String head = "POST /api/session HTTP/1.1\r\nHost: x\r\nConnection: close\r\nContent-Type: application/json\r\nCookie: XSRF-TOKEN=" + token + "\r\nX-XSRF-TOKEN: " + token
                + "\r\nContent-Length: " + content.length + "\r\n\r\n";
        return Integer.parseInt(exchange(address, head + new String(content, StandardCharsets.ISO_8859_1)).split(" ")[1]);
    }

    private String exchange(String address, String request) throws IOException {
        try (Socket socket = new Socket(InetAddress.getByName("127.0.0.1"), port, InetAddress.getByName(address), 0)) {
            socket.getOutputStream().write(request.getBytes(StandardCharsets.ISO_8859_1));
            return new String(socket.getInputStream().readAllBytes(), StandardCharsets.ISO_8859_1);
        }
    }

    /** Source: OWASP Session Management Cheat Sheet: a new session id at each change of privilege, and new tokens with it. */
    @Test
    void signingInGivesANewSessionAndANewToken() {
        Http desk = caller();
        Http.Answer first = desk.post("/api/session", body(EMAIL, PASSWORD));
        Http.Answer second = desk.post("/api/session", body(EMAIL, PASSWORD));
        assertThat(cookie(first, "oak-session")).isNotEmpty().isNotEqualTo(cookie(second, "oak-session"));
        assertThat(cookie(second, "oak-session")).isNotEmpty();
        assertThat(cookie(first, "XSRF-TOKEN")).isNotEmpty().isNotEqualTo(cookie(second, "XSRF-TOKEN"));
        Http thief = new Http("http://localhost:" + port);
        assertThat(thief.get("/api/rounds", "Cookie", "oak-session=" + cookie(first, "oak-session")).status()).as("the first id is dead").isEqualTo(401);
        assertThat(desk.get("/api/rounds").status()).isEqualTo(200);
    }

    /** The last value of a cookie that an answer sets. */
    private static String cookie(Http.Answer answer, String name) {
        return answer.response().headers().allValues("Set-Cookie").stream().filter(cookie -> cookie.startsWith(name + "=") && !cookie.startsWith(name + "=;"))
                .map(cookie -> cookie.substring(name.length() + 1, cookie.indexOf(';'))).reduce((one, two) -> two).orElse("");
    }

    @Test
    void behindHttpsEveryCookieIsForHttpsAlone() {
        app.close();
        app = RunningApp.startOn(RunningApp.freshFolder(), "--oakbasket.public-address=https://papers.example.org");
        port = ((ServletWebServerApplicationContext) app).getWebServer().getPort();
        app.getBean(AccountService.class).make(new Person("Wren", MailAddress.parse(EMAIL)), PASSWORD);
        Http.Answer first = new Http("http://localhost:" + port).get("/api/session");
        String token = cookie(first, "XSRF-TOKEN");
        Http.Answer in = new Http("http://localhost:" + port).post("/api/session", body(EMAIL, PASSWORD), "Cookie", "XSRF-TOKEN=" + token, "X-XSRF-TOKEN", token);
        assertThat(in.status()).as(in.text()).isEqualTo(200);
        List<String> cookies = in.response().headers().allValues("Set-Cookie");
        assertThat(cookies).hasSizeGreaterThanOrEqualTo(3).allSatisfy(cookie -> assertThat(cookie).contains("Secure"));
        assertThat(in.header("Strict-Transport-Security")).startsWith("max-age=");
    }

    @Test
    void aStreamEndsWithItsSessionAndAnAccountHasSoManyOfThem() throws Exception {
        Http desk = caller();
        desk.post("/api/session", body(EMAIL, PASSWORD));
        HttpRequest live = HttpRequest.newBuilder(URI.create("http://localhost:" + port + "/api/live")).build();
        List<CompletableFuture<HttpResponse<java.util.stream.Stream<String>>>> streams = IntStream.range(0, 24)
                .mapToObj(n -> desk.client().sendAsync(live, HttpResponse.BodyHandlers.ofLines())).toList();
        for (var stream : streams) {
            assertThat(stream.get(20, TimeUnit.SECONDS).statusCode()).isEqualTo(200);
        }
        assertThat(desk.get("/api/live").problem()).isEqualTo("too-many-streams");
        List<CompletableFuture<Long>> ends = streams.stream().map(stream -> CompletableFuture.supplyAsync(() -> stream.join().body().count(), task -> new Thread(task).start())).toList();
        assertThat(desk.send("DELETE", "/api/session", null).status()).isEqualTo(204);
        for (var end : ends) {
            assertThat(end.get(20, TimeUnit.SECONDS)).as("lines until the end").isPositive();
        }
    }
}
