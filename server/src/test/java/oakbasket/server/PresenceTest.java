package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import oakbasket.core.team.Role;
import org.junit.jupiter.api.Test;

/** Who looks at the same round: seen by the others at once, forgotten by itself, and told to nobody who does not see the round. */
class PresenceTest {

    private static List<String> others(Http desk, TestRound round, String basket) {
        return desk.post("/api/presence/" + round.id, "{\"basket\":" + basket + "}").json().valueStream().map(one -> one.path("name").asString() + ":" + one.path("person").asString()).toList();
    }

    @Test
    void colleaguesSeeEachOtherWhileTheyAreThere() {
        Instant before = RunningApp.CLOCK.instant();
        TestRound round = new TestRound().onlyPeople("Ada There").open();
        TestTeam one = TestTeam.of(Role.COORDINATOR);
        TestTeam reader = TestTeam.of(Role.READER);
        String basket = round.row("Ada There").path("id").toString();
        assertThat(others(one.desk, round, "null")).isEmpty();
        assertThat(others(reader.desk, round, basket)).containsExactly(one.account.name() + ":");
        assertThat(others(one.desk, round, "null")).containsExactly(reader.account.name() + ":Ada There");
        assertThat(reader.desk.send("DELETE", "/api/presence/" + round.id, null).status()).isEqualTo(204);
        assertThat(others(one.desk, round, "null")).isEmpty();
        others(reader.desk, round, "null");
        try {
            RunningApp.CLOCK.set(before.plus(Duration.ofMinutes(1)));
            assertThat(others(one.desk, round, "null")).as("whoever was not heard of has gone").isEmpty();
        } finally {
            RunningApp.CLOCK.set(before);
        }
        assertThat(round.desk.put("/api/sharing/" + round.id, "{\"owner\":" + Http.desk().get("/api/session").json().path("account") + ",\"wholeOffice\":false,\"with\":[]}").status()).isEqualTo(200);
        assertThat(one.desk.post("/api/presence/" + round.id, "{\"basket\":null}").status()).isEqualTo(404);
        assertThat(one.desk.post("/api/presence/987654", "{}").status()).isEqualTo(404);
    }
}
