package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import tools.jackson.databind.JsonNode;

/** Every operation of the API description, so that none is forgotten: what strangers, forged requests and nonsense get. */
class EveryDoorTest {

    /** What strangers may call: the sender's side, signing in, the calendar feed by its address. */
    private static final Pattern OPEN = Pattern.compile("/api/(basket|place|pick-up|uploads|session|first-account|joining|password-reset)(/.*)?|/calendar/.*|/brand/.*");

    /** One of each for all operations: one caller may have so many connections only. */
    private static final Http STRANGER = new Http();
    private static final Http FORGED = Http.freshDesk();

    @BeforeAll
    static void theStrangerHasATokenAgainstForgery() {
        STRANGER.get("/api/session");
    }

    static Stream<String> operations() {
        List<String> operations = new ArrayList<>();
        JsonNode paths = Http.desk().get("/api/openapi.json").json().path("paths");
        paths.propertyNames().forEach(path -> paths.path(path).propertyNames().forEach(method -> {
            if (!OPEN.matcher(path).matches()) {
                operations.add(method.toUpperCase(Locale.ROOT) + " " + path);
            }
        }));
        assertThat(operations).hasSizeGreaterThan(70);
        return operations.stream();
    }

    static Stream<String> changing() {
        return operations().filter(operation -> !operation.startsWith("GET "));
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("operations")
    void aStrangerGetsNothing(String operation) {
        String[] parts = concrete(operation);
        Http.Answer answer = STRANGER.send(parts[0], parts[1], parts[0].equals("GET") ? null : "{}".getBytes(), "Content-Type", "application/json");
        assertThat(answer.status()).isEqualTo(401);
        assertThat(answer.problem()).isEqualTo("sign-in-needed");
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("changing")
    void aForgedRequestChangesNothing(String operation) {
        String[] parts = concrete(operation);
        FORGED.forgetCsrf();
        Http.Answer answer = FORGED.send(parts[0], parts[1], "{}".getBytes(), "Content-Type", "application/json");
        assertThat(answer.status()).isEqualTo(403);
        assertThat(answer.problem()).isEqualTo("csrf");
    }

    /** Ids that do not exist, and a body of the wrong shape: refused as a problem detail with a status of the 400s, never an error of the server. */
    @ParameterizedTest(name = "{0}")
    @MethodSource("operations")
    void nonsenseIsRefusedAndNeverBreaksTheServer(String operation) {
        if (operation.equals("GET /api/live")) {
            // A stream that goes on for as long as a desk is open; it takes nothing.
            return;
        }
        String[] parts = concrete(operation);
        byte[] body = parts[0].equals("GET") ? null : "[[\"nonsense\"".getBytes();
        Http.Answer answer = Http.desk().send(parts[0], parts[1], body, "Content-Type", "application/json");
        assertThat(answer.status()).as(answer.text()).isLessThan(500);
        if (answer.status() >= 400) {
            assertThat(answer.problem()).isNotEmpty();
            assertThat(answer.json().path("detail").asString()).isNotEmpty();
        } else {
            assertThat(operation).as("what needs neither an id nor a body, or takes any bytes").matches("GET .*|POST /api/(parcels|today/seen|feed|contacts/import|forms|post/test|findings/look|inward/look|mail-servers/check|second-factor|audit/check)|DELETE /api/feed");
        }
    }

    @ParameterizedTest(name = "{0} {1} {2}: {3}")
    @CsvSource(delimiter = '|', value = {
        "POST   | /api/contacts/merge | {\"keep\":999999,\"gone\":999998} | no-contact",
        "POST   | /api/contacts/999999/discard | | no-contact",
        "PUT    | /api/contacts/999999 | {\"version\":1,\"name\":\"x\",\"email\":\"x@example.org\"} | no-contact",
        "GET    | /api/contacts/999999 | | no-contact",
        "POST   | /api/contacts/import/unknown/preview | {\"mapping\":{\"columns\":[],\"headed\":false}} | no-import",
        "GET    | /api/contacts/import/unknown | | no-import",
        "POST   | /api/contact-acts/999999/undo | | no-act",
        "POST   | /api/acts/999999/undo | | no-act",
        "GET    | /api/rounds/999999/change | | no-round",
        "POST   | /api/rounds/999999/copy | | no-round",
        "POST   | /api/rounds/999999/people | {\"people\":[],\"groups\":[]} | no-round",
        "GET    | /api/rounds/999999/to-check | | no-round",
        "GET    | /api/rounds/999999/table.csv | | no-round",
        "POST   | /api/baskets/999999/accept-all | | no-basket",
        "DELETE | /api/templates/999999 | | no-template",
        "DELETE | /api/series/999999 | | no-series",
        "POST   | /api/series/999999/pause | {\"paused\":true} | no-series",
        "DELETE | /api/calendars/999999 | | no-calendar",
        "POST   | /api/calendars/999999/default | | no-calendar",
        "GET    | /api/holidays/zz?year=2026 | | not-found",
        "GET    | /api/holidays/gb?year=1800 | | not-found",
        "GET    | /api/forms/999999 | | no-form",
        "GET    | /api/letters/999999 | | no-letter",
        "POST   | /api/letters/999999/stop | | no-letter",
        "GET    | /api/baskets/999999/letters | | no-basket",
        "GET    | /api/contacts/999999/letters | | no-contact",
        "POST   | /api/rounds/999999/letters | {\"baskets\":[1]} | no-round",
        "GET    | /api/rounds/999999/letters | | no-round",
        "DELETE | /api/groups/nobody-knows-it | | group-in-use"})
    void whatIsNotThereIsSaidToBeMissing(String method, String path, String body, String problem) {
        Http.Answer answer = Http.desk().send(method, path, body == null && method.equals("GET") ? null : (body == null ? "" : body).getBytes(), "Content-Type", "application/json");
        assertThat(answer.problem()).isEqualTo(problem);
    }

    private static String[] concrete(String operation) {
        return operation.replaceAll("\\{(id|number)}", "999999").replaceAll("\\{[a-z]+}", "xx").replace("/api/holidays/xx", "/api/holidays/xx?year=2026").split(" ", 2);
    }
}
