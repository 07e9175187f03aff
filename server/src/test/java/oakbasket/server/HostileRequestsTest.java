package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.CookieManager;
import java.net.URI;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;

/** Hundreds of requests that somebody with bad intentions would try, made from the API description: all refused, none breaks the server. */
class HostileRequestsTest {

    private static final Set<Integer> REFUSALS = Set.of(400, 401, 403, 404, 405, 406, 411, 412, 413, 414, 415, 422, 429, 431, 501, 505);

    /** Each operation of the description, with ids filled in. */
    static List<String[]> operations() {
        List<String[]> operations = new ArrayList<>();
        JsonNode paths = Http.desk().get("/api/openapi.json").json().path("paths");
        paths.propertyNames().forEach(path -> paths.path(path).propertyNames().forEach(method ->
                operations.add(new String[] {method.toUpperCase(Locale.ROOT), path.replaceAll("\\{(id|number)}", "1").replaceAll("\\{[a-zA-Z]+}", "xx")})));
        return operations.stream().filter(operation -> !operation[0].equals("OPTIONS")).toList();
    }

    /** Ways to write an address so that a filter and a handler might read it differently. */
    static Stream<String> disguises() {
        return operations().stream().flatMap(operation -> {
            String path = operation[1];
            int last = path.lastIndexOf('/') + 1;
            String encoded = path.substring(0, last) + "%" + Integer.toHexString(path.charAt(last)) + path.substring(last + 1);
            return Stream.of(encoded, encoded.replace("%", "%25"), path + ";jsessionid=1", path + "/", "/" + path, path.replaceFirst("/api/", "/API/"), "/assets/..;" + path,
                    "/b/../.." + path, path.replaceFirst("/", "/%2e/"), path + "%00", path + "%0d%0aSet-Cookie:%20a=b").map(disguised -> operation[0] + " " + disguised);
        });
    }

    @Test
    void noDisguiseOfAnAddressLetsAStrangerIn() {
        Map<String, Integer> answers = new TreeMap<>();
        List<String> asked = disguises().toList();
        assertThat(asked).hasSizeGreaterThan(500);
        for (String request : asked) {
            RawCaller.RawAnswer answer = RawCaller.say(request + " HTTP/1.1\r\nHost: x\r\nConnection: close\r\nContent-Type: application/json\r\nContent-Length: 2\r\n\r\n{}");
            answers.merge("" + answer.status(), 1, Integer::sum);
            boolean harmless = answer.status() == 200 && (answer.header("Content-Type").startsWith("text/html") || request.matches("GET /api/%73ession|GET /(api)/session"));
            assertThat(REFUSALS.contains(answer.status()) || harmless).as("%s: %d %s", request, answer.status(), answer.body()).isTrue();
            assertThat(answer.header("Set-Cookie")).as(request).doesNotContain("a=b");
            assertThat(answer.header("X-Content-Type-Options")).as(request).isEqualTo("nosniff");
        }
        assertThat(answers.keySet()).as("%s", answers).doesNotContain("0", "500");
    }

    /** Methods, headers, ids and bodies that nobody expects, by somebody who is signed in and by a stranger. */
    static Stream<String> oddities() {
        List<String> heads = List.of("Content-Type: */*", "Content-Type: text/xml", "Content-Type: application/json;charset=no-such", "Accept: no/such;q=x", "Content-Type: multipart/form-data",
                "Accept-Language: en,de,fr,es,pl,ar,cy,ga,gd,nl,it;q=0.1,x-*", "Accept-Encoding: gzip;q=9,\u00e4", "Range: bytes=-,9-1", "Cookie: oak-session=\"; oak-session=..", "If-None-Match: \"");
        return operations().stream().flatMap(operation -> Stream.concat(
                heads.stream().map(head -> operation[0] + " " + operation[1] + " HTTP/1.1\r\n" + head),
                Stream.of("9223372036854775807", "-1", "0", "1e9", "%F0%9F%90%9F", "1'--").filter(id -> operation[1].contains("/1") || operation[1].contains("/xx"))
                        .map(id -> operation[0] + " " + operation[1].replaceFirst("/(1|xx)(?=/|$)", "/" + id) + " HTTP/1.1\r\nContent-Type: application/json")));
    }

    @Test
    void nothingOddBreaksTheServer() {
        List<String> asked = oddities().filter(request -> !request.contains("/api/live")).toList();
        assertThat(asked).hasSizeGreaterThan(1_000);
        String session = sessionHeaders();
        int n = 0;
        List<String> broken = new ArrayList<>();
        for (String request : asked) {
            boolean signedIn = n++ % 2 == 0 && !request.startsWith("DELETE /api/session") && !request.contains("Cookie:");
            String body = List.of("[]", "{}", "null", "{\"a\":", "[[[[[[[[", "\"\\ud800\"", "0").get(n % 7);
            RawCaller.RawAnswer answer = RawCaller.say(request + "\r\nHost: x\r\nConnection: close\r\n" + (signedIn ? session : "") + "Content-Length: " + body.length() + "\r\n\r\n" + body);
            if (answer.status() < 200 || answer.status() > 499) {
                broken.add("%s with %s, signed in %s: %d %s".formatted(request, body, signedIn, answer.status(), answer.body()));
            }
        }
        assertThat(broken).isEmpty();
    }

    private static String sessionHeaders() {
        Http desk = Http.freshDesk();
        try {
            String cookies = ((CookieManager) desk.client().cookieHandler().orElseThrow()).get(URI.create(RunningApp.URL), Map.of()).getOrDefault("Cookie", List.of()).stream()
                    .collect(Collectors.joining("; "));
            String token = Stream.of(cookies.split("; ")).filter(cookie -> cookie.startsWith("XSRF-TOKEN=")).findFirst().orElseThrow().substring("XSRF-TOKEN=".length());
            return "Cookie: " + cookies + "\r\nX-XSRF-TOKEN: " + token + "\r\n";
        } catch (java.io.IOException problem) {
            throw new java.io.UncheckedIOException(problem);
        }
    }

    /** A body that is too long is refused by what is served, however its address is written, with a length and without one. */
    @ParameterizedTest
    @ValueSource(strings = {"POST /api/session", "POST /api/first-account", "POST /api/basket/passcode", "POST /api/basket/submissions", "POST /api/basket/submissions/finish",
        "POST /api/%62asket/submissions", "POST /api/basket;x=1/submissions", "POST /api//basket/submissions", "PUT /api/basket/submissions", "POST /api/rounds/../basket/submissions",
        "POST /api/uploads/../basket/submissions", "POST /api/nothing", "POST /"})
    void aLongBodyIsNeverReadWholeForAStranger(String request) {
        String long1 = "{\"name\":\"" + "x".repeat(70_000) + "\"}";
        RawCaller.RawAnswer announced = RawCaller.say(request + " HTTP/1.1\r\nHost: x\r\nConnection: close\r\nContent-Type: application/json\r\nContent-Length: 94371840\r\n\r\n" + "x".repeat(1_000));
        assertThat(announced.status()).as(announced.body()).isIn(400, 413);
        RawCaller.RawAnswer chunked = RawCaller.say(request + " HTTP/1.1\r\nHost: x\r\nConnection: close\r\nContent-Type: application/json\r\nTransfer-Encoding: chunked\r\n\r\n"
                + Integer.toHexString(long1.length()) + "\r\n" + long1 + "\r\n0\r\n\r\n");
        assertThat(chunked.status()).as(chunked.body()).isIn(400, 413);
        RawCaller.RawAnswer both = RawCaller.say(request + " HTTP/1.1\r\nHost: x\r\nConnection: close\r\nContent-Length: 5\r\nTransfer-Encoding: chunked\r\n\r\n0\r\n\r\n");
        assertThat(both.status()).as("RFC 9112 §6.1: a length and chunks at once").isEqualTo(400);
    }

    static Stream<String> unreadable() {
        return Stream.of("GET /b/\u0001 HTTP/1.1\r\nHost: x", "GET /b/%zz HTTP/1.1\r\nHost: x", "GET /b/<script> HTTP/1.1\r\nHost: x", "GET /" + "a".repeat(20_000) + " HTTP/1.1\r\nHost: x",
                "GET / HTTP/1.1", "GET / HTTP/1.1\r\nHost: x\r\nHost: y", "GET / HTTP/9.9\r\nHost: x", "BREW / HTTP/1.1\r\nHost: x", "GET / HTTP/1.1\r\nHost: x\r\n folded: y",
                "GET / HTTP/1.1\r\nHost: x\r\nContent-Length: -1", "GET / HTTP/1.1\r\nHost: x\r\nBad Header: 1", "GET / HTTP/1.1\r\nHost: x\r\n" + "X: y\r\n".repeat(4_000) + "Y: z",
                "GET http://[::1/ HTTP/1.1\r\nHost: x", "TRACE / HTTP/1.1\r\nHost: x", "\u0016\u0003\u0001 HTTP/1.1\r\nHost: x", "GET /b/a\\..\\.. HTTP/1.1\r\nHost: x");
    }

    /** What the container itself cannot read is refused in our words too, with the headers that protect. */
    @ParameterizedTest
    @MethodSource("unreadable")
    void whatCannotBeReadIsAProblemDetailWithTheHeadersThatProtect(String head) {
        RawCaller.RawAnswer answer = RawCaller.say(head + "\r\nConnection: close\r\n\r\n");
        assertThat(answer.status()).as(answer.body()).isBetween(400, 505);
        assertThat(answer.status()).isNotEqualTo(500);
        assertThat(answer.header("Content-Type")).startsWith("application/problem+json");
        assertThat(answer.header("Content-Security-Policy")).contains("default-src 'none'");
        assertThat(answer.header("Cross-Origin-Opener-Policy")).isEqualTo("same-origin");
        assertThat(answer.header("Server")).isEmpty();
        assertThat(answer.body()).doesNotContain("jetty", "Jetty", "java.", "script>");
    }

    @ParameterizedTest
    @ValueSource(strings = {"/b/TOKEN/", "/b/", "/b", "/B/TOKEN", "/b/TOKEN/more/of/it", "/b/%F0%9F%90%9F"})
    void aBadlyCopiedLinkOpensThePageThatSaysWhatToDo(String path) {
        Http.Answer page = new Http().get(path);
        assertThat(page.status()).isEqualTo(200);
        assertThat(page.header("Content-Type")).startsWith("text/html");
        assertThat(page.text()).contains("<div id=\"app\"");
    }
}
