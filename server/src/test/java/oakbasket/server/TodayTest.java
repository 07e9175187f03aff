package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

class TodayTest {

    @AfterEach
    void setTheClockBack() {
        RunningApp.CLOCK.set(Instant.parse("2026-06-01T09:00:00Z"));
    }

    /** After everything that other tests receive, since only the newest files are shown. */
    @Test
    void arrivalsAreGroupedByPersonAndNewUntilTheyWereSeen() {
        RunningApp.CLOCK.set(Instant.parse("2026-09-01T09:00:00Z"));
        TestRound round = new TestRound();
        round.sheet.put("deadlineDate", "2026-09-20");
        round.open();
        round.desk.post("/api/today/seen", "");
        TestRound.Sender ada = round.personal("Ada Brook").begin();
        ada.send(1, "a.pdf", TestRound.pdf("1"));
        ada.send(1, "b.pdf", TestRound.pdf("2"));
        JsonNode in = mine(round, "justIn").get(0);
        assertThat(in.path("person").asString()).isEqualTo("Ada Brook");
        assertThat(in.path("files").asInt()).isEqualTo(2);
        assertThat(in.path("unseen").asBoolean()).isTrue();
        assertThat(in.path("names").get(0).asString()).isEqualTo("Ada Brook - Consent (2).pdf");
        round.desk.post("/api/today/seen", "");
        assertThat(mine(round, "justIn").get(0).path("unseen").asBoolean()).isFalse();
    }

    @Test
    void whatNeedsTheCoordinatorIsCountedPerRound() {
        TestRound round = new TestRound().withOpenLink("").open();
        assertThat(needs(round)).containsExactly("hand-over 2");
        round.personal("Ada Brook").begin().send(1, "a.pdf", TestRound.pdf("x"));
        TestRound.Sender stranger = round.openLink();
        stranger.begin("Tom Yarrow", "tom@example.net");
        stranger.send(1, "t.pdf", TestRound.pdf("y"));
        assertThat(needs(round)).containsExactly("check 2", "hand-over 1", "walk-in 1");
        RunningApp.CLOCK.set(Instant.parse("2026-06-30T16:00:01Z"));
        assertThat(needs(round)).containsExactly("check 2", "overdue 1", "hand-over 1", "walk-in 1");
        round.desk.post("/api/rounds/" + round.id + "/close", "");
        assertThat(needs(round)).as("a closed round asks for nothing").isEmpty();
    }

    @Test
    void deadlinesOfTheNextTwoWeeksComeUpOnTheirDayWithThoseWhoStillOwe() {
        RunningApp.CLOCK.set(Instant.parse("2026-06-20T09:00:00Z"));
        TestRound round = new TestRound().open();
        round.personal("Ada Brook").begin().send(1, "a.pdf", TestRound.pdf("x"));
        round.act("EXTEND", "Ben Reed", "\"date\":\"2026-07-02\",\"reason\":\"away\"");
        List<String> found = new ArrayList<>();
        JsonNode days = round.desk.get("/api/today").json().path("comingUp");
        assertThat(days).hasSize(14);
        for (JsonNode day : days) {
            for (JsonNode deadline : day.path("deadlines")) {
                if (deadline.path("roundId").asLong() == round.id) {
                    found.add(day.path("date").asString() + " " + deadline.path("owing").asInt() + "/" + deadline.path("asked").asInt() + " " + deadline.path("extension").asBoolean());
                }
            }
        }
        assertThat(found).containsExactly("2026-06-30 0/1 false", "2026-07-02 1/1 true");
    }

    private static List<String> needs(TestRound round) {
        return mine(round, "needsYou").stream().map(one -> one.path("what").asString() + " " + one.path("count").asInt()).toList();
    }

    private static List<JsonNode> mine(TestRound round, String part) {
        List<JsonNode> found = new ArrayList<>();
        round.desk.get("/api/today").json().path(part).forEach(one -> {
            if (one.path("roundId").asLong() == round.id) {
                found.add(one);
            }
        });
        return found;
    }
}
