package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import oakbasket.server.post.Postman;
import oakbasket.server.post.ReminderRounds;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** What day it is, and what time, where the people are: places where the day of UTC is another one. Source: IANA tz database. */
class ZonesTest {

    private final Http desk = Http.desk();

    @BeforeEach
    @AfterEach
    void setTheClockBack() {
        RunningApp.CLOCK.set(Instant.parse("2026-06-01T09:00:00Z"));
    }

    /** Deadlines on the 22nd, opened ten days before: on the 12th of June of the round's own zone. */
    @ParameterizedTest(name = "in {0} the 12th of June has begun at {2} and not at {1}")
    @CsvSource({"Pacific/Auckland, 2026-06-11T11:59:00Z, 2026-06-11T12:01:00Z", "America/New_York, 2026-06-12T03:58:00Z, 2026-06-12T04:01:00Z",
        "Asia/Kathmandu, 2026-06-11T18:14:00Z, 2026-06-11T18:16:00Z"})
    void aSeriesOpensOnTheDayOfItsOwnZone(String zone, String notYet, String now) {
        String group = "Day of " + zone;
        TestRound round = series(group, zone);
        TestRound utc = series(group, "UTC");
        RunningApp.CLOCK.set(Instant.parse(notYet));
        // Of the two, the one in UTC is due earlier or later; what is looked at in between is seen by a third that is always due.
        TestRound witness = series(group, "Pacific/Kiritimati");
        Waiting.until(() -> made(witness), list -> !list.isEmpty());
        assertThat(made(round)).isEmpty();
        RunningApp.CLOCK.set(Instant.parse(now));
        assertThat(Waiting.until(() -> made(round), list -> !list.isEmpty())).hasSize(1);
        boolean utcDay = Instant.parse(now).isAfter(Instant.parse("2026-06-12T00:00:00Z"));
        assertThat(made(utc).isEmpty()).as("by the day of UTC it would be otherwise").isNotEqualTo(utcDay);
        List.of(round, utc, witness).forEach(this::end);
    }

    @ParameterizedTest(name = "{0}, 17:00, for a reader in {1}")
    @CsvSource(delimiter = '|', value = {
        "Asia/Kathmandu   |                  | Tuesday 30 June 2026, 17:00 (Nepal Time)",
        "America/New_York | Pacific/Auckland | Tuesday 30 June 2026, 17:00 (Eastern Time), which is Wednesday 1 July 2026, 09:00 where you are",
        "Pacific/Auckland | America/New_York | Tuesday 30 June 2026, 17:00 (New Zealand Time), which is Tuesday 30 June 2026, 01:00 where you are"})
    void aLetterTellsTheDeadlineInTheReadersOwnTime(String zone, String readersZone, String told) {
        String name = "Reader " + zone.replaceAll("\\W", " ");
        String email = "reader." + zone.toLowerCase().replaceAll("\\W", "") + "@example.org";
        desk.post("/api/contacts", Http.JSON.createObjectNode().put("name", name).put("email", email).put("zone", readersZone == null ? "" : readersZone).toString());
        TestRound round = new TestRound();
        round.sheet.putArray("people");
        round.person(name, email).withLetters("{\"invite\":true,\"tellReturned\":false,\"steps\":[{\"days\":-5,\"unit\":\"CALENDAR\",\"at\":\"09:00\"}]}").sheet.put("zone", zone);
        round.open();
        RunningApp.CLOCK.set(Instant.parse("2026-06-01T09:05:00Z"));
        RunningApp.bean(Postman.class).deliver();
        assertThat(Outbox.text(Outbox.to(name).get(0))).as("invitation").contains(told);
        RunningApp.bean(ReminderRounds.class).look();
        for (Instant at = Instant.parse("2026-06-24T12:00:00Z"); Outbox.to(name).size() < 2 && at.isBefore(Instant.parse("2026-06-27T00:00:00Z")); at = at.plusSeconds(3_600)) {
            RunningApp.CLOCK.set(at);
            RunningApp.bean(ReminderRounds.class).look();
            RunningApp.bean(Postman.class).deliver();
        }
        assertThat(Outbox.text(Outbox.to(name).get(1))).as("reminder").contains(told);
    }

    @Test
    void anImportChangesAZoneAndSaysSo() {
        String email = "moved.away@example.org";
        desk.post("/api/contacts", "{\"name\":\"Moved Away\",\"email\":\"" + email + "\",\"zone\":\"Europe/London\"}");
        byte[] table = ("name,e-mail,time zone\nMoved Away," + email + ",Asia/Kathmandu\n").getBytes();
        JsonNode staged = desk.send("POST", "/api/contacts/import?charset=&delimiter=", table, "Content-Type", "text/csv").json();
        String mapping = "{\"columns\":" + staged.path("columns") + ",\"headed\":" + staged.path("headed") + "}";
        JsonNode preview = desk.post("/api/contacts/import/" + staged.path("id").asString() + "/preview", "{\"mapping\":" + mapping + ",\"verdict\":\"CHANGED\",\"from\":0}").json();
        assertThat(preview.path("changed").asInt()).as(preview.toString()).isEqualTo(1);
        assertThat(preview.path("lines").get(0).path("changes").toString()).contains("zone");
        desk.post("/api/contacts/import/" + staged.path("id").asString() + "/apply", "{\"mapping\":" + mapping + ",\"source\":\"table\"}");
        JsonNode found = Waiting.until(() -> desk.get("/api/contacts?find=" + email).json().path("contacts").get(0), one -> !one.path("zone").asString().equals("Europe/London"));
        assertThat(found.path("zone").asString()).isEqualTo("Asia/Kathmandu");
    }

    private TestRound series(String group, String zone) {
        desk.post("/api/contacts", "{\"name\":\"" + group + "\",\"email\":\"" + group.toLowerCase().replaceAll("\\W", "") + "@example.org\",\"groups\":[\"" + group + "\"]}");
        TestRound round = new TestRound();
        round.sheet.putArray("people");
        round.sheet.putArray("groups").add(group);
        round.sheet.put("zone", zone);
        round.begin();
        String terms = "{\"rule\":\"FREQ=MONTHLY;BYMONTHDAY=22\",\"startsOn\":\"2026-06-12\",\"opensDaysBefore\":10,\"opensItself\":false}";
        assertThat(desk.post("/api/series", "{\"roundId\":" + round.id + ",\"terms\":" + terms + "}").status()).isEqualTo(201);
        return round;
    }

    private List<JsonNode> made(TestRound round) {
        List<JsonNode> made = new ArrayList<>();
        desk.get("/api/rounds").json().forEach(one -> {
            if (!one.path("seriesId").isNull() && one.path("title").asString().startsWith(round.title() + ",")) {
                made.add(one);
            }
        });
        return made;
    }

    private void end(TestRound round) {
        desk.get("/api/series").json().forEach(one -> {
            if (one.path("title").asString().equals(round.title())) {
                desk.send("DELETE", "/api/series/" + one.path("id"), null);
            }
        });
    }
}
