package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What a stranger, or a sender with a link, can never see or do. Source of the demands on tokens and headers: OWASP ASVS 5 and Cheat Sheets. */
class StrangersTest {

    @ParameterizedTest
    @ValueSource(strings = {"/api/today", "/api/rounds", "/api/rounds/1/board", "/api/baskets/1", "/api/baskets/1/row", "/api/baskets/1/link", "/api/rounds/1/link", "/api/files/1",
        "/api/files/1/preview", "/api/files.zip?round=1", "/api/live", "/api/rounds/1/rehearsal", "/actuator/env", "/actuator"})
    void withoutAnAccountNothingOfTheDeskAnswers(String path) {
        TestRound.Sender sender = new TestRound().open().personal("Ada Brook");
        assertThat(sender.http.get(path, "Oak-Link", sender.token).status()).isEqualTo(401);
    }

    @Test
    void aLinkWithOneCharacterChangedIsAsUnknownAsAnyOther() {
        TestRound.Sender ada = new TestRound().open().personal("Ada Brook");
        assertThat(ada.token).hasSizeGreaterThanOrEqualTo(22).as("at least 128 random bits in Base64");
        String changed = (ada.token.charAt(0) == 'A' ? "B" : "A") + ada.token.substring(1);
        Http.Answer one = new TestRound.Sender(changed).page();
        assertThat(one.status()).isEqualTo(404);
        assertThat(one.json()).isEqualTo(new TestRound.Sender("no-such-link").page().json());
        assertThat(ada.page().status()).isEqualTo(200);
    }

    @Test
    void thePageTellsNothingOfOthersAndGivesNothingBack() {
        TestRound round = new TestRound().withOpenLink("").open();
        round.personal("Ben Reed").begin().send(1, "bens secret.pdf", TestRound.pdf("secret"));
        TestRound.Sender ada = round.personal("Ada Brook").begin();
        ada.send(1, "adas own.pdf", TestRound.pdf("own"));
        assertThat(ada.page().text()).doesNotContain("Ben", "secret", "own.pdf", "ada@", "\"id\"");
        TestRound.Sender anyone = round.openLink();
        assertThat(anyone.page().text()).doesNotContain("Ben", "Ada", "secret", "own.pdf");
        assertThat(anyone.page().json().path("items").get(0).path("arrived").asInt()).isZero();
        Http.Answer known = anyone.begin("Somebody", "ada@example.org");
        Http.Answer stranger = anyone.begin("Somebody", "new@example.org");
        assertThat(known.status()).isEqualTo(stranger.status());
        assertThat(known.json().propertyNames()).isEqualTo(stranger.json().propertyNames());
    }

    @Test
    void aSubmissionOfOneLinkCannotBeUsedThroughAnother() {
        TestRound round = new TestRound().open();
        TestRound.Sender ada = round.personal("Ada Brook").begin();
        TestRound.Sender ben = round.personal("Ben Reed");
        ben.submission = ada.submission;
        assertThat(ben.send(1, "a.pdf", TestRound.pdf("x")).problem()).isEqualTo("no-submission");
    }

    @Test
    void passcodesCannotBeGuessedForLong() {
        TestRound.Sender sender = new TestRound().withOpenLink("kingfisher").open().openLink();
        for (int i = 0; i < 5; i++) {
            assertThat(sender.http.post("/api/basket/passcode", "{\"passcode\":\"guess\"}", "Oak-Link", sender.token).status()).isEqualTo(403);
        }
        assertThat(sender.http.post("/api/basket/passcode", "{\"passcode\":\"kingfisher\"}", "Oak-Link", sender.token).status()).isEqualTo(429);
        sender.ticket = "99999999999." + "A".repeat(43);
        assertThat(sender.page().problem()).as("a forged ticket").isEqualTo("link-passcode-needed");
    }

    @Test
    void strangersCannotFillTheMemoryOrKeepTheWholeServerBusy() throws Exception {
        Http stranger = new Http();
        byte[] much = new byte[65 * 1024];
        assertThat(stranger.send("POST", "/api/basket/submissions", much, "Content-Type", "application/json").problem()).isEqualTo("body-too-large");
        var endless = java.net.http.HttpRequest.newBuilder(java.net.URI.create(RunningApp.URL + "/api/session")).header("Content-Type", "application/json")
                .POST(java.net.http.HttpRequest.BodyPublishers.ofInputStream(() -> new java.io.ByteArrayInputStream(much))).build();
        assertThat(stranger.exchange(endless).problem()).as("also without a length").isEqualTo("body-too-large");

        TestRound round = new TestRound().item("Anything", false, 1, 100, 1).open();
        TestRound.Sender ada = round.personal("Ada Brook").begin();
        java.net.URI url = java.net.URI.create(RunningApp.URL);
        java.util.List<java.net.Socket> slow = new java.util.ArrayList<>();
        try {
            java.util.List<String> locations = new java.util.ArrayList<>();
            for (int n = 0; n < 16; n++) {
                Http.Answer created = ada.create(2, n + ".bin", 1_000);
                assertThat(created.status()).as(created.text()).isEqualTo(201);
                locations.add(created.header("Location"));
                slow.add(sendSlowly(url, locations.get(n)));
            }
            java.time.Instant until = java.time.Instant.now().plusSeconds(10);
            String problem = "";
            while (!problem.equals("too-many-transfers") && java.time.Instant.now().isBefore(until)) {
                for (int n = 0; n < slow.size(); n++) {
                    if (slow.get(n).getInputStream().available() > 0) {
                        // This one came while the whole file below held the last place; it tries again, as a sender's page does.
                        slow.get(n).close();
                        slow.set(n, sendSlowly(url, locations.get(n)));
                    }
                }
                Http.Answer answer = ada.send(1, "a.exe.pdf", TestRound.pdf("x"));
                problem = answer.status() == 201 ? "" : answer.problem();
            }
            assertThat(problem).isEqualTo("too-many-transfers");
            assertThat(round.personal("Ben Reed").begin().send(1, "b.pdf", TestRound.pdf("y")).status()).as("another link").isEqualTo(201);
        } finally {
            for (java.net.Socket socket : slow) {
                socket.close();
            }
        }
    }

    /** Begins to send and never goes on. */
    private static java.net.Socket sendSlowly(java.net.URI url, String location) throws java.io.IOException {
        java.net.Socket socket = new java.net.Socket(url.getHost(), url.getPort());
        socket.getOutputStream().write(("PATCH " + location + " HTTP/1.1\r\nHost: x\r\nTus-Resumable: 1.0.0\r\nUpload-Offset: 0\r\nContent-Type: "
                + "application/offset+octet-stream\r\nContent-Length: 1000\r\n\r\nabc").getBytes(StandardCharsets.US_ASCII));
        return socket;
    }

    @Test
    void linksCannotBeReadFromACopyOfTheDatabase() throws Exception {
        String token = new TestRound().open().personal("Ada Brook").token;
        try (Stream<Path> files = Files.walk(RunningApp.DATA.resolve("db"))) {
            for (Path file : files.filter(Files::isRegularFile).toList()) {
                String content = new String(Files.readAllBytes(file), StandardCharsets.ISO_8859_1);
                assertThat(content.contains(token)).as("token in %s", file.getFileName()).isFalse();
            }
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"/", "/b/whatever", "/api/session", "/api/basket", "/robots.txt"})
    void everyAnswerCarriesTheHeadersThatProtect(String path) {
        Http.Answer answer = new Http().get(path);
        assertThat(answer.header("Content-Security-Policy")).contains("default-src 'none'", "script-src 'self';", "frame-ancestors 'none'").doesNotContain("unsafe");
        assertThat(answer.header("Referrer-Policy")).isEqualTo("no-referrer");
        assertThat(answer.header("X-Content-Type-Options")).isEqualTo("nosniff");
    }

    @Test
    void theDeskNeedsItsTokenAndItsCookieIsNotForScripts() {
        Http desk = Http.freshDesk();
        desk.forgetCsrf();
        Http.Answer forged = desk.post("/api/rounds", "{}");
        assertThat(forged.status()).isEqualTo(403);
        assertThat(forged.problem()).isEqualTo("csrf");
        Http fresh = new Http();
        fresh.get("/api/session");
        String cookies = String.join("\n", fresh.post("/api/session", "{\"email\":\"" + RunningApp.EMAIL + "\",\"password\":\"" + RunningApp.PASSWORD + "\"}")
                .response().headers().allValues("Set-Cookie"));
        assertThat(cookies).containsPattern("oak-session=[^;]+;.*HttpOnly").contains("SameSite=Lax");
    }

    @Test
    void wrongPasswordsAndUnknownAddressesAreAnsweredAlikeAndSlowedDown() {
        Http caller = new Http();
        caller.get("/api/session");
        Http.Answer unknown = caller.post("/api/session", "{\"email\":\"nobody@example.org\",\"password\":\"not the password\"}");
        Http.Answer wrong = caller.post("/api/session", "{\"email\":\"" + RunningApp.EMAIL + "\",\"password\":\"not the password\"}");
        assertThat(unknown.status()).isEqualTo(401);
        assertThat(unknown.json()).isEqualTo(wrong.json());
        assertThat(caller.post("/api/session", "null").status()).isEqualTo(400);
    }
}
