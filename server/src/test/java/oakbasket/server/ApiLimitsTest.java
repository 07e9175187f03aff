package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** What the API description says can be typed is taken, and one letter more is refused: the desk takes its limits from there. */
class ApiLimitsTest {

    private final TestRound round = new TestRound().item("Anything", false, 1, 1, 10);

    @ParameterizedTest(name = "{1} of {0}")
    @CsvSource({
        "ContactForm, name, POST, /api/contacts, '{\"version\":0,\"name\":\"%s\",\"email\":\"limit@example.org\",\"groups\":[]}', 201",
        "ContactForm, organisation, POST, /api/contacts, '{\"version\":0,\"name\":\"Lim It\",\"email\":\"limit2@example.org\",\"organisation\":\"%s\",\"groups\":[]}', 201",
        "ContactForm, reference, POST, /api/contacts, '{\"version\":0,\"name\":\"Lim It\",\"email\":\"limit3@example.org\",\"reference\":\"%s\",\"groups\":[]}', 201",
        "TypedText, subject, POST, /api/letter-texts/example, '{\"subject\":\"%s\",\"body\":\"{papers}\"}', 200",
        "CloseDay, name, POST, /api/calendars/1/day, '{\"day\":\"2099-01-05\",\"name\":\"%s\"}', 200"})
    void theLimitIsTheLimit(String schema, String field, String method, String path, String body, int taken) {
        JsonNode property = round.desk.get("/api/openapi.json").json().path("components").path("schemas").path(schema).path("properties").path(field);
        int longest = property.path("maxLength").asInt();
        assertThat(longest).isPositive();
        Http.Answer over = round.desk.send(method, path, body.formatted("x".repeat(longest + 1)).getBytes(), "Content-Type", "application/json");
        assertThat(over.status()).as(over.text()).isEqualTo(422);
        assertThat(over.text()).contains("\"field\":\"" + field + "\"");
        Http.Answer at = round.desk.send(method, path, body.formatted("x".repeat(longest)).getBytes(), "Content-Type", "application/json");
        assertThat(at.status()).as(at.text()).isEqualTo(taken);
    }
}
