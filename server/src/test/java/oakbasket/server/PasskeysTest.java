package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import oakbasket.core.team.Role;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;

/** What the server offers to devices and what it refuses of their answers; that right ones are taken is shown with a browser's own authenticator. */
class PasskeysTest {

    private static final Instant NOW = Instant.parse("2026-06-01T09:00:00Z");

    @AfterEach
    void setTheClockBack() {
        RunningApp.CLOCK.set(NOW);
    }

    /** As a browser does that opens the page of signing in. */
    private static Http stranger() {
        Http http = new Http();
        http.get("/api/session");
        return http;
    }

    private static Http.Answer offer(Http http, String password) {
        return http.post("/api/passkeys", "{\"password\":\"" + password + "\"}");
    }

    private static String answer(Object offer, String answer) {
        return Http.JSON.createObjectNode().put("offer", String.valueOf(offer)).put("label", "phone").put("answer", answer).toString();
    }

    @Test
    void aDeviceIsAskedForAKeyThatStaysAndKnowsWhoHoldsIt() {
        TestTeam ann = TestTeam.of(Role.READER);
        assertThat(offer(ann.desk, "wrong").status()).as("without the password").isEqualTo(422);
        Http.Answer offered = offer(ann.desk, RunningApp.PASSWORD);
        JsonNode options = Http.JSON.readTree(offered.json().path("options").asString());
        assertThat(options.path("rp").path("id").asString()).isEqualTo("localhost");
        assertThat(options.path("authenticatorSelection").path("residentKey").asString()).isEqualTo("required");
        assertThat(options.path("authenticatorSelection").path("userVerification").asString()).isEqualTo("required");
        assertThat(options.path("challenge").asString()).hasSizeGreaterThanOrEqualTo(43);
        assertThat(options.path("user").path("id").asString()).as("what devices keep tells nothing of the account").doesNotContain("@").isNotEqualTo(String.valueOf(ann.id()));
        JsonNode signing = Http.JSON.readTree(stranger().post("/api/session/passkey-offer", "").json().path("options").asString());
        assertThat(signing.path("userVerification").asString()).isEqualTo("required");
        assertThat(signing.path("allowCredentials")).as("nobody learns who has one").isEmpty();
        JsonNode other = Http.JSON.readTree(stranger().post("/api/session/passkey-offer", "").json().path("options").asString());
        assertThat(other.path("challenge")).isNotEqualTo(signing.path("challenge"));
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "{}", "[]", "null", "{\"id\":\"x\",\"rawId\":\"x\",\"type\":\"public-key\",\"response\":{\"attestationObject\":\"AA\",\"clientDataJSON\":\"AA\",\"transports\":[\"internal\"]}}"})
    void whatIsNoAnswerIsRefused(String said) {
        TestTeam ben = TestTeam.of(Role.COORDINATOR);
        String offer = offer(ben.desk, RunningApp.PASSWORD).json().path("offer").asString();
        assertThat(ben.desk.put("/api/passkeys", answer(offer, said)).problem()).isEqualTo("passkey-refused");
        assertThat(ben.desk.put("/api/passkeys", answer(offer, said)).problem()).as("an offer is taken once").isEqualTo("passkey-over");
        assertThat(ben.desk.get("/api/passkeys").json()).isEmpty();
    }

    @Test
    void anOfferHoldsForWhomItWasMadeAndForFiveMinutes() {
        TestTeam cy = TestTeam.of(Role.COORDINATOR);
        TestTeam di = TestTeam.of(Role.COORDINATOR);
        String ofCy = offer(cy.desk, RunningApp.PASSWORD).json().path("offer").asString();
        assertThat(di.desk.put("/api/passkeys", answer(ofCy, "{}")).problem()).isEqualTo("passkey-over");
        assertThat(di.desk.put("/api/passkeys", answer("made up", "{}")).problem()).isEqualTo("passkey-over");
        RunningApp.CLOCK.set(NOW.plusSeconds(299));
        assertThat(cy.desk.put("/api/passkeys", answer(ofCy, "{}")).problem()).isEqualTo("passkey-refused");
        String late = offer(cy.desk, RunningApp.PASSWORD).json().path("offer").asString();
        RunningApp.CLOCK.set(NOW.plusSeconds(299 + 300));
        assertThat(cy.desk.put("/api/passkeys", answer(late, "{}")).problem()).isEqualTo("passkey-over");
        assertThat(cy.desk.send("DELETE", "/api/passkeys/987654", null).status()).isEqualTo(404);
        assertThat(cy.desk.put("/api/passkeys", "{\"offer\":\"x\",\"label\":\" \",\"answer\":\"\"}").json().path("errors").get(0).path("field").asString()).isEqualTo("label");
    }
}
