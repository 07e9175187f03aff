package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** What a sheet says of groups, forms and calendars; series that meet trouble; what Today asks for because of all that. */
class SheetsAndSeriesTest {

    private final Http desk = Http.desk();

    @AfterEach
    void setTheClockBack() {
        RunningApp.CLOCK.set(Instant.parse("2026-06-01T09:00:00Z"));
    }

    @Test
    void whatASheetNamesMustStillBeThere() {
        TestRound round = new TestRound();
        round.sheet.putArray("groups").add("No such group");
        round.sheet.put("calendarId", 999_999);
        ObjectNode item = (ObjectNode) round.sheet.withArray("items").get(0);
        item.put("formId", 999_999).putArray("groups").add("Another that is gone");
        Http.Answer refused = round.tryOpen();
        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.at("groups")).contains("No such group");
        assertThat(refused.at("items[0].groups")).contains("Another that is gone");
        assertThat(refused.at("items[0].form")).contains("Add it again");
        assertThat(refused.at("calendarId")).contains("Choose another");
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource(delimiter = '|', value = {
        "a slip in an address        | perhaps slip@gmail.com is meant",
        "an item for some groups     | whoever is in none of them owes nothing",
        "an empty group              | Nobody is in the group",
        "a deadline on a weekend     | Nobody works on the day of the deadline: a weekend",
        "nothing required            | No item is required"})
    void whatIsAllowedButOddIsPointedOutAndDoesNotHinder(String odd, String words) {
        TestRound round = new TestRound();
        ObjectNode item = (ObjectNode) round.sheet.withArray("items").get(0);
        if (odd.startsWith("a slip")) {
            round.person("Slip", "slip@gmial.com");
        } else if (odd.startsWith("an item")) {
            contact("Someone", "someone.odd@example.org", "Odd ones");
            item.putArray("groups").add("Odd ones");
        } else if (odd.startsWith("an empty")) {
            long id = contact("Nobody", "nobody.odd@example.org", "Empty ones");
            desk.post("/api/groups/members", "{\"group\":\"Empty ones\",\"in\":false,\"contacts\":[" + id + "]}");
            round.sheet.putArray("groups").add("Empty ones");
        } else if (odd.startsWith("a deadline")) {
            round.sheet.put("deadlineDate", "2026-06-27");
        } else {
            item.put("required", false);
        }
        assertThat(round.begin().json().path("oddities").toString()).contains(words);
        assertThat(round.open().board().path("state").asString()).isEqualTo("GATHERING");
    }

    @Test
    void aRoundForGroupsAloneNeedsSomebodyInThem() {
        long id = contact("Only", "only.one@example.org", "One of them");
        TestRound round = new TestRound();
        round.sheet.putArray("people");
        round.sheet.putArray("groups").add("One of them");
        assertThat(round.open().board().path("rows")).hasSize(1);
        desk.post("/api/groups/members", "{\"group\":\"One of them\",\"in\":false,\"contacts\":[" + id + "]}");
        TestRound empty = new TestRound();
        empty.sheet.putArray("people");
        empty.sheet.putArray("groups").add("One of them");
        assertThat(empty.tryOpen().at("people")).contains("Nobody is in the groups");
    }

    @Test
    void whoIsAskedByNameAndByGroupIsAskedOnce() {
        contact("Twice Asked", "twice.asked@example.org", "Twice");
        TestRound round = new TestRound().person("Twice Asked", "twice.asked@example.org");
        round.sheet.putArray("groups").add("Twice");
        assertThat(round.open().board().path("rows")).hasSize(3);
        assertThat(round.desk.post("/api/rounds/" + round.id + "/people", "{\"people\":[],\"groups\":[\"Twice\"]}").json().path("changed").asInt()).isZero();
    }

    /** A series whose group has emptied prepares the round, says why it did not open, and Today asks for it. */
    @Test
    void aSeriesThatCannotOpenItsRoundLeavesADraftAndSaysWhy() {
        long id = contact("Gone Soon", "gone.soon@example.org", "Gone");
        TestRound round = series("Gone", "FREQ=MONTHLY;BYMONTHDAY=20", true);
        desk.post("/api/groups/members", "{\"group\":\"Gone\",\"in\":false,\"contacts\":[" + id + "]}");
        RunningApp.CLOCK.set(Instant.parse("2026-06-12T08:00:00Z"));
        JsonNode made = Waiting.until(() -> made(round), list -> list.size() == 1).get(0);
        assertThat(made.path("state").asString()).isEqualTo("DRAFT");
        assertThat(Waiting.until(() -> listed(round), one -> !one.path("trouble").asString().isEmpty()).path("trouble").asString()).contains("Nobody is in the groups");
        assertThat(desk.get("/api/today").json().path("needsYou").toString()).contains("prepared").contains(made.path("title").asString());
        end(round);
    }

    @Test
    void aPausedSeriesMakesNothingAndAfterAStandstillOnlyTheNewest() {
        contact("Weekly", "weekly.one@example.org", "Weekly ones");
        TestRound round = series("Weekly ones", "FREQ=WEEKLY;BYDAY=MO", false);
        String id = listed(round).path("id").asString();
        desk.post("/api/series/" + id + "/pause", "{\"paused\":true}");
        RunningApp.CLOCK.set(Instant.parse("2026-07-20T08:00:00Z"));
        assertThat(listed(round).path("coming").get(0).path("deadline").asString()).isEqualTo("2026-07-20");
        // Another series that is due at the same look: once it has made its round, the paused one was looked at, too.
        contact("Weekly too", "weekly.two@example.org", "Weekly others");
        TestRound other = series("Weekly others", "FREQ=WEEKLY;BYDAY=MO", false);
        Waiting.until(() -> made(other), list -> !list.isEmpty());
        assertThat(made(round)).isEmpty();
        end(other);
        desk.post("/api/series/" + id + "/pause", "{\"paused\":false}");
        List<JsonNode> made = Waiting.until(() -> made(round), list -> !list.isEmpty());
        assertThat(made).singleElement().satisfies(one -> assertThat(one.path("title").asString()).endsWith(", 27 July 2026"));
        JsonNode draft = desk.get("/api/rounds/" + made.get(0).path("id") + "/sheet").json().path("sheet");
        assertThat(draft.path("deadlineDate").asString()).isEqualTo("2026-07-27");
        assertThat(draft.path("closingDate").asString() + draft.path("keepUntil").asString()).as("dates of its own").isEmpty();
        end(round);
    }

    /** The deadline of a series keeps clear of a holiday of the calendar its round names. */
    @Test
    void aSeriesKeepsClearOfTheHolidaysOfItsCalendar() {
        String calendar = desk.post("/api/calendars", "{\"name\":\"For series\",\"weekend\":[\"SATURDAY\",\"SUNDAY\"],\"country\":\"gb\",\"region\":\"eng\"}").json().path("id").asString();
        String terms = "{\"rule\":\"FREQ=YEARLY;BYMONTH=12;BYMONTHDAY=28\",\"startsOn\":\"2026-06-01\",\"opensDaysBefore\":7,\"shift\":\"%s\"}";
        String body = "{\"calendarId\":" + calendar + ",\"terms\":" + terms + "}";
        // 28 December 2026 is the substitute day for Boxing Day, and the 26th and 27th are a weekend after Christmas Day.
        assertThat(first(body.formatted("EARLIER"))).isEqualTo("2026-12-24");
        assertThat(first(body.formatted("LATER"))).isEqualTo("2026-12-29");
        assertThat(first(body.formatted("KEEP"))).isEqualTo("2026-12-28");
    }

    @Test
    void todayLeavesOutWhoIsPausedExcusedOrRemoved() {
        TestRound round = new TestRound().person("Cy", "cy.today@example.org").person("Di", "di.today@example.org").open();
        RunningApp.CLOCK.set(Instant.parse("2026-07-01T09:00:00Z"));
        assertThat(overdue(round)).isEqualTo(4);
        round.act("PAUSE", "Ada Brook", "\"on\":true");
        assertThat(overdue(round)).isEqualTo(3);
        round.act("EXCUSE", "Ben Reed", "\"on\":true");
        assertThat(overdue(round)).isEqualTo(2);
        round.act("REMOVE", "Cy", "\"on\":true");
        assertThat(overdue(round)).isEqualTo(1);
        round.act("EXTEND", "Di", "\"date\":\"2026-07-09\",\"reason\":\"flood\"");
        assertThat(overdue(round)).isZero();
    }

    private int overdue(TestRound round) {
        for (JsonNode need : desk.get("/api/today").json().path("needsYou")) {
            if (need.path("roundId").asLong() == round.id && need.path("what").asString().equals("overdue")) {
                return need.path("count").asInt();
            }
        }
        return 0;
    }

    private String first(String body) {
        return desk.post("/api/series/preview", body).json().path("coming").get(0).path("deadline").asString();
    }

    private TestRound series(String group, String rule, boolean itself) {
        TestRound round = new TestRound();
        round.sheet.putArray("people");
        round.sheet.putArray("groups").add(group);
        round.begin();
        String terms = "{\"rule\":\"" + rule + "\",\"startsOn\":\"2026-06-12\",\"opensDaysBefore\":10,\"opensItself\":" + itself + "}";
        assertThat(desk.post("/api/series", "{\"roundId\":" + round.id + ",\"terms\":" + terms + "}").status()).isEqualTo(201);
        return round;
    }

    private JsonNode listed(TestRound round) {
        for (JsonNode one : desk.get("/api/series").json()) {
            if (one.path("title").asString().equals(round.title())) {
                return one;
            }
        }
        throw new AssertionError("No series of " + round.title());
    }

    private void end(TestRound round) {
        assertThat(desk.send("DELETE", "/api/series/" + listed(round).path("id"), null).status()).isEqualTo(204);
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

    private long contact(String name, String email, String group) {
        return desk.post("/api/contacts", "{\"name\":\"" + name + "\",\"email\":\"" + email + "\",\"groups\":[\"" + group + "\"]}").json().path("contact").path("id").asLong();
    }

    @Test
    void aSeriesWithoutTermsIsNotReadAtAll() {
        Http desk = Http.desk();
        assertThat(desk.post("/api/series", "{}").status()).isEqualTo(400);
        assertThat(desk.post("/api/series/preview", "{}").status()).isEqualTo(400);
    }
}
