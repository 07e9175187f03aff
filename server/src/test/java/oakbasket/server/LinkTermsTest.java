package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** What coordinators do to links holds at once on links that were handed out, is told, and can be undone. */
class LinkTermsTest {

    private static final Instant NOW = Instant.parse("2026-06-01T09:00:00Z");

    private final TestRound round = new TestRound().item("Photos", false, 1, 9, 5).withOpenLink("").open();
    private final TestRound.Sender ada = round.personal("Ada Brook");
    private final long id = link("Ada Brook").path("id").asLong();

    @AfterEach
    void setTheClockBack() {
        RunningApp.CLOCK.set(NOW);
    }

    @ParameterizedTest(name = "{0}: {1}, undone by undoing")
    @CsvSource({"PAUSE, link-paused, PAUSED", "WITHDRAW, link-unknown, WITHDRAWN"})
    void stoppingHoldsAtOnceAndIsTakenBack(String kind, String problem, String state) {
        JsonNode done = act(kind, id).json();
        assertThat(done.path("changed").asInt()).isEqualTo(1);
        assertThat(ada.page().problem()).isEqualTo(problem);
        assertThat(link("Ada Brook").path("state").asString()).isEqualTo(state);
        assertThat(act(kind, id).json().path("changed").asInt()).as("again changes nothing").isZero();
        assertThat(undo(done).status()).isEqualTo(200);
        assertThat(ada.page().status()).isEqualTo(200);
        assertThat(undo(done).problem()).isEqualTo("undone-already");
        assertThat(round.panel("Ada Brook").path("story").toString()).contains("\"what\":\"link-" + kind.toLowerCase(java.util.Locale.ROOT) + "\"", "\"undone\":true");
        assertThat(round.desk.get("/api/rounds/" + round.id + "/acts").json().get(0).path("link").asBoolean()).isTrue();
    }

    @Test
    void anEndedLinkIsRenewedUnderItsAddressAndTheNewEndHolds() {
        assertThat(terms(form().put("ends", "UNTIL").put("endsOn", "2026-06-02").put("endsAt", "10:30")).status()).isEqualTo(200);
        RunningApp.CLOCK.set(Instant.parse("2026-06-02T09:29:59Z"));
        assertThat(ada.page().status()).as("10:30 in London is 9:30 in June").isEqualTo(200);
        RunningApp.CLOCK.set(Instant.parse("2026-06-02T09:30:00Z"));
        assertThat(ada.page().problem()).isEqualTo("link-closed");
        assertThat(round.desk.post("/api/links/acts", "{\"kind\":\"RENEW\",\"ids\":[" + id + "],\"all\":null,\"days\":2,\"passcode\":null}").status()).isEqualTo(200);
        assertThat(ada.page().status()).isEqualTo(200);
        RunningApp.CLOCK.set(Instant.parse("2026-06-04T09:30:02Z"));
        assertThat(ada.page().problem()).isEqualTo("link-closed");
        assertThat(round.desk.get("/api/links/" + id).json().path("story").toString()).contains("until 2 Jun 2026", "for 2 days");
    }

    @Test
    void aLinkThatBeginsLaterWaits() {
        terms(form().put("ends", "DAYS").put("days", 1).put("beginsOn", "2026-06-03").put("beginsAt", "08:00"));
        assertThat(ada.page().problem()).isEqualTo("link-not-begun");
        assertThat(link("Ada Brook").path("state").asString()).isEqualTo("WAITING");
        RunningApp.CLOCK.set(Instant.parse("2026-06-03T07:00:00Z"));
        assertThat(ada.page().status()).isEqualTo(200);
        RunningApp.CLOCK.set(Instant.parse("2026-06-04T07:00:00Z"));
        assertThat(ada.page().problem()).isEqualTo("link-closed");
    }

    @Test
    void aPasscodeSetLaterIsAskedOfWhoeverWasIn() {
        assertThat(round.desk.put("/api/links/" + id + "/passcode", "{\"version\":" + version() + ",\"passcode\":\"kingfisher\"}").status()).isEqualTo(200);
        assertThat(ada.page().problem()).isEqualTo("link-passcode-needed");
        ada.ticket = ada.http.post("/api/basket/passcode", "{\"passcode\":\"kingfisher\"}", "Oak-Link", ada.token).json().path("ticket").asString();
        assertThat(ada.page().status()).isEqualTo(200);
        JsonNode changed = round.desk.put("/api/links/" + id + "/passcode", "{\"version\":" + version() + ",\"passcode\":\"heron-on-ice\"}").json();
        assertThat(ada.page().problem()).as("the ticket of the passcode before").isEqualTo("link-passcode-needed");
        undo(changed);
        assertThat(ada.page().status()).isEqualTo(200);
        assertThat(round.desk.put("/api/links/" + id + "/passcode", "{\"version\":" + version() + ",\"passcode\":\"short\"}").at("passcode")).contains("6 to 64");
        assertThat(round.desk.get("/api/links/" + id).text()).doesNotContain("$2a$", "kingfisher");
    }

    @Test
    void aNewAddressKillsTheOldOneUntilItIsUndone() {
        JsonNode done = round.desk.post("/api/links/" + id + "/address", "{\"version\":" + version() + "}").json();
        assertThat(ada.page().problem()).isEqualTo("link-unknown");
        TestRound.Sender anew = round.personal("Ada Brook");
        assertThat(anew.page().status()).isEqualTo(200);
        undo(done);
        assertThat(anew.page().problem()).isEqualTo("link-unknown");
        assertThat(ada.page().status()).isEqualTo(200);
    }

    @Test
    void theReadablePartProvesNothing() {
        terms(form().put("name", "Winter Planting"));
        String url = round.desk.get("/api/links/" + id).json().path("url").asString();
        assertThat(url).endsWith("/b/winter-planting/" + ada.token);
        assertThat(ada.http.get("/b/anything-else/" + ada.token).status()).isEqualTo(200);
        assertThat(new TestRound.Sender("winter-planting").page().problem()).isEqualTo("link-unknown");
    }

    @Test
    void filesOneTooManyOrTooLargeAreRefusedBeforeTheirBytes() {
        ada.begin();
        terms(form().put("files", 2).put("fileMebibytes", 1).put("totalMebibytes", 2));
        assertThat(ada.create(2, "big.pdf", (1 << 20) + 1).problem()).isEqualTo("link-file-size");
        assertThat(ada.page().json().path("items").get(1).path("maxBytes").asLong()).isEqualTo(1 << 20);
        assertThat(ada.send(2, "one.pdf", TestRound.pdf("1")).status()).isEqualTo(201);
        assertThat(ada.create(2, "two.pdf", 1 << 20).status()).isEqualTo(201);
        assertThat(ada.create(2, "three.pdf", 9).problem()).as("what is on its way counts").isEqualTo("link-files");
        terms(form().put("files", 9).put("totalMebibytes", 1));
        assertThat(ada.create(2, "three.pdf", 9).problem()).isEqualTo("link-total");
        assertThat(round.desk.get("/api/today").json().path("needsYou").toString()).as("who answers for it hears of it").contains("{\"what\":\"link-full\",\"roundId\":" + round.id);
        terms(form());
        assertThat(ada.create(2, "three.pdf", 9).status()).isEqualTo(201);
    }

    /** Twenty first files at once through an open link for three sendings: three come in, and who was too late is told. */
    @Test
    void noMoreSendingsThanAllowedComeInAtOnce() throws Exception {
        long open = openLink().path("id").asLong();
        assertThat(put(open, form(open).put("uses", 3)).status()).isEqualTo(200);
        List<TestRound.Sender> walkIns = new ArrayList<>();
        for (int i = 0; i < 20; i++) {
            TestRound.Sender sender = round.openLink();
            sender.begin("Walker " + i, "walker" + i + "." + round.id + "@example.org");
            walkIns.add(sender);
        }
        ExecutorService pool = Executors.newFixedThreadPool(10);
        List<Future<String>> answers = walkIns.stream().map(one -> pool.submit(() -> {
            Http.Answer answer = one.send(2, "a.pdf", TestRound.pdf(one.submission));
            return answer.status() == 201 ? "in" : answer.problem();
        })).toList();
        List<String> said = new ArrayList<>();
        for (Future<String> answer : answers) {
            said.add(answer.get());
        }
        pool.shutdown();
        assertThat(said).filteredOn("in"::equals).hasSize(3);
        assertThat(said).filteredOn("link-used-up"::equals).hasSize(17);
        TestRound.Sender in = walkIns.get(said.indexOf("in"));
        assertThat(in.send(2, "b.pdf", TestRound.pdf("more")).status()).as("whoever is in goes on").isEqualTo(201);
        assertThat(openLink().path("state").asString()).isEqualTo("USED_UP");
        assertThat(openLink().path("files").asInt()).isEqualTo(4);
    }

    @Test
    void theListFindsSortsAndWarns() {
        terms(form().put("ends", "DAYS").put("days", 14));
        round.personal("Ben Reed").begin().send(1, "a.pdf", TestRound.pdf("ben"));
        JsonNode all = list("find=" + round.title().replace(" ", "%20") + "&by=FILES&down=true");
        assertThat(all.path("links").get(0).path("person").asString()).isEqualTo("Ben Reed");
        assertThat(all.path("links").get(0).path("lastUse").asString()).startsWith("2026-06-01T09:00:0");
        assertThat(all.path("counts").path("ENDS_SOON").asInt()).isEqualTo(1);
        assertThat(list("listing=ENDS_SOON&round=" + round.id).path("links").get(0).path("person").asString()).isEqualTo("Ada Brook");
        assertThat(list("find=BEN@EXAMPLE&round=" + round.id).path("total").asInt()).isEqualTo(1);
        assertThat(round.desk.get("/api/today").json().path("needsYou").toString()).contains("{\"what\":\"link-ends\",\"roundId\":" + round.id);
    }

    @Test
    void aMissingFolderIsFoundAndMended() throws IOException {
        ada.begin().send(1, "a.pdf", TestRound.pdf("x"));
        assertThat(link("Ada Brook").path("folderGone").asBoolean()).isFalse();
        Path folder = RunningApp.DATA.resolve("files").resolve(round.title());
        Path away = folder.resolveSibling(round.title() + " moved away");
        Files.move(folder, away);
        assertThat(link("Ada Brook").path("folderGone").asBoolean()).isTrue();
        Files.writeString(folder, "in the way");
        assertThat(round.desk.post("/api/links/folders/" + round.id, "").problem()).isEqualTo("folder-is-file");
        Files.delete(folder);
        assertThat(round.desk.post("/api/links/folders/" + round.id, "").json().path("made").asInt()).isEqualTo(1);
        assertThat(link("Ada Brook").path("folderGone").asBoolean()).isFalse();
    }

    @Test
    void manyAtOnceAreOneActAndWhatChangedSinceIsNotUndone() {
        JsonNode done = round.desk.post("/api/links/acts", "{\"kind\":\"PAUSE\",\"ids\":null,\"all\":{\"find\":\"\",\"listing\":\"LIVE\",\"round\":" + round.id + "},\"days\":null,\"passcode\":null}").json();
        assertThat(done.path("changed").asInt()).isEqualTo(3);
        assertThat(round.openLink().page().problem()).isEqualTo("link-paused");
        act("GO_ON", id);
        assertThat(undo(done).problem()).isEqualTo("links-changed-since");
        assertThat(round.openLink().page().problem()).as("nothing half undone").isEqualTo("link-paused");
    }

    @Test
    void takingSomebodyOutWithdrawsAndPuttingBackGivesBackOnlyThat() {
        round.act("REMOVE", "Ada Brook", "\"on\":true");
        assertThat(ada.page().problem()).isEqualTo("link-unknown");
        assertThat(act("GIVE_BACK", id).json().path("changed").asInt()).as("who is out gets nothing back by the link").isZero();
        assertThat(ada.page().problem()).isEqualTo("link-unknown");
        round.act("REMOVE", "Ada Brook", "\"on\":false");
        assertThat(ada.page().status()).isEqualTo(200);
        act("WITHDRAW", id);
        RunningApp.CLOCK.set(NOW.plus(Duration.ofMinutes(1)));
        round.act("REMOVE", "Ada Brook", "\"on\":true");
        round.act("REMOVE", "Ada Brook", "\"on\":false");
        assertThat(ada.page().problem()).as("what was withdrawn before stays so").isEqualTo("link-unknown");
    }

    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(delimiter = '|', value = {
        "{\"ends\":\"UNTIL\",\"endsOn\":\"2026-05-31\"} | ends | already",
        "{\"ends\":\"UNTIL\",\"endsOn\":\"2026-12-31\"} | ends | 180 days",
        "{\"ends\":\"UNTIL\",\"endsOn\":\"tomorrow\"} | ends | Not a date",
        "{\"ends\":\"DAYS\",\"days\":181} | days | 1 to 180",
        "{\"ends\":\"DAYS\",\"days\":null,\"passcode\":null} | days | 1 to 180",
        "{\"beginsOn\":\"2026-06-03\",\"beginsAt\":\"noon\"} | begins | Not a time",
        "{\"uses\":0} | uses | 1 to",
        "{\"fileMebibytes\":2,\"totalMebibytes\":1} | fileMebibytes | larger",
        "{\"totalMebibytes\":99999999999} | totalMebibytes | 1 to",
        "{\"name\":\"///\"} | name | letters"})
    void badTermsAreToldAtTheirField(String typed, String field, String words) {
        ObjectNode form = form();
        form.setAll((ObjectNode) Http.JSON.readTree(typed));
        Http.Answer refused = terms(form);
        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.at(field)).contains(words);
        assertThat(link("Ada Brook").path("version").asInt()).isEqualTo(1);
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {"{}", "{\"kind\":\"PAUSE\",\"ids\":[null]}", "{\"kind\":\"RENEW\",\"ids\":[]}", "{\"kind\":\"RENEW\",\"ids\":[1],\"days\":0}", "{\"kind\":\"NONE\",\"ids\":[1]}"})
    void oddActsAreRefused(String body) {
        assertThat(round.desk.post("/api/links/acts", body).status()).isBetween(400, 422);
        assertThat(round.desk.put("/api/links/" + id + "/terms", "{}").status()).isBetween(400, 422);
        assertThat(round.desk.post("/api/handouts", body).status()).isBetween(400, 422);
    }

    @Test
    void aSecondCoordinatorIsTold() {
        ObjectNode stale = form();
        act("PAUSE", id);
        assertThat(terms(stale).problem()).isEqualTo("changed-elsewhere");
        assertThat(new Http().get("/api/links/" + id).status()).as("strangers").isEqualTo(401);
    }

    private JsonNode list(String query) {
        return round.desk.get("/api/links?" + query).json();
    }

    private JsonNode link(String person) {
        for (JsonNode link : list("round=" + round.id).path("links")) {
            if (link.path("person").asString("").equals(person)) {
                return link;
            }
        }
        throw new AssertionError("No link of " + person);
    }

    private JsonNode openLink() {
        for (JsonNode link : list("round=" + round.id).path("links")) {
            if (link.path("person").isNull()) {
                return link;
            }
        }
        throw new AssertionError("No open link");
    }

    private int version() {
        return round.desk.get("/api/links/" + id).json().path("link").path("version").asInt();
    }

    private ObjectNode form() {
        return form(id);
    }

    private ObjectNode form(long link) {
        return Http.JSON.createObjectNode().put("version", round.desk.get("/api/links/" + link).json().path("link").path("version").asInt()).put("ends", "GATHERING");
    }

    private Http.Answer terms(ObjectNode form) {
        return put(id, form);
    }

    private Http.Answer put(long link, ObjectNode form) {
        return round.desk.put("/api/links/" + link + "/terms", form.toString());
    }

    private Http.Answer act(String kind, long link) {
        return round.desk.post("/api/links/acts", "{\"kind\":\"" + kind + "\",\"ids\":[" + link + "],\"all\":null,\"days\":null,\"passcode\":null}");
    }

    private Http.Answer undo(JsonNode done) {
        return round.desk.post("/api/links/acts/" + done.path("act").asLong() + "/undo", "");
    }
}
