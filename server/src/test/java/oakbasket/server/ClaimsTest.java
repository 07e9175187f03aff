package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Nobody speaks for somebody else: what comes under an asked person's address through an open link is kept apart until the coordinator says yes. */
class ClaimsTest {

    private final TestRound round = new TestRound().item("Certificate", false, 1, 1, 1, "PDF").withOpenLink("").open();

    private TestRound.Sender claiming(String email, byte[] content) {
        TestRound.Sender stranger = round.openLink();
        stranger.begin("Mallory", email);
        Http.Answer sent = stranger.send(1, "consent.pdf", content);
        assertThat(sent.status()).as(sent.text()).isEqualTo(201);
        return stranger;
    }

    private long submission() {
        return round.panel("Ada Brook").path("files").get(0).path("submissionId").asLong();
    }

    private Http.Answer decide(long submission, String from, String to) {
        return round.desk.post("/api/claims/" + submission, "{\"from\":\"" + from + "\",\"to\":\"" + to + "\"}");
    }

    @Test
    void aStrangerUnderSomebodysAddressCompletesNothingAndTakesNoPlace() {
        JsonNode before = round.row("Ada Brook");
        claiming("ada@example.org", TestRound.pdf("not hers"));
        JsonNode after = round.row("Ada Brook");
        assertThat(after.path("progress")).isEqualTo(before.path("progress"));
        assertThat(after.path("timeliness")).isEqualTo(before.path("timeliness"));
        assertThat(after.path("tiles")).isEqualTo(before.path("tiles"));
        assertThat(after.path("files").asInt()).isZero();
        assertThat(after.path("lastArrival").isNull()).isTrue();
        assertThat(round.board().path("counts").path("claimed").asInt()).isEqualTo(1);
        assertThat(round.board().path("counts").path("senders").asInt()).isZero();

        TestRound.Sender ada = round.personal("Ada Brook").begin();
        assertThat(ada.page().json().path("items").get(0).path("arrived").asInt()).as("shown to nobody outside the office").isZero();
        assertThat(ada.send(1, "mine.pdf", TestRound.pdf("hers")).status()).as("her own place is free").isEqualTo(201);
        assertThat(round.standing("Ada Brook", 0)).isEqualTo("ARRIVED");
        assertThat(ada.finish().json().path("files").get(0).path("sentBefore").asBoolean()).isFalse();
    }

    @Test
    void aClaimLiesApartOnDiskAndGoesToItsPlaceWithTheYes() throws Exception {
        byte[] content = TestRound.pdf("claimed");
        claiming("ADA@example.org", content);
        String apart = round.panel("Ada Brook").path("files").get(0).path("path").asString();
        assertThat(apart).startsWith("Claimed, to be confirmed/");
        long submission = submission();

        assertThat(decide(submission, "OPEN", "ACCEPTED").status()).isEqualTo(204);
        JsonNode file = round.panel("Ada Brook").path("files").get(0);
        assertThat(file.path("path").asString()).isEqualTo(round.title() + "/Ada Brook/Ada Brook - Consent.pdf");
        assertThat(RunningApp.DATA.resolve("files").resolve(file.path("path").asString())).hasBinaryContent(content);
        assertThat(RunningApp.DATA.resolve("files").resolve(apart)).doesNotExist();
        assertThat(round.standing("Ada Brook", 0)).isEqualTo("ARRIVED");
        assertThat(round.row("Ada Brook").path("claimed").asInt()).isZero();

        assertThat(decide(submission, "OPEN", "DECLINED").problem()).as("a colleague was faster").isEqualTo("changed-elsewhere");
        assertThat(decide(submission, "ACCEPTED", "OPEN").status()).as("taken back").isEqualTo(204);
        assertThat(round.standing("Ada Brook", 0)).isEqualTo("WANTED");
        assertThat(round.panel("Ada Brook").path("files").get(0).path("path").asString()).startsWith("Claimed, to be confirmed/");
        try (Stream<Path> files = Files.walk(RunningApp.DATA.resolve("files"))) {
            assertThat(files.filter(Files::isRegularFile).filter(path -> path.toString().contains(round.title()))).as("one file, one name").hasSize(1);
        }
    }

    @Test
    void aNoKeepsTheFileAndNeverCountsIt() {
        claiming("ada@example.org", TestRound.pdf("x"));
        long submission = submission();
        assertThat(waiting()).as("whose it is waits for the coordinator").hasSize(1);
        assertThat(decide(submission, "OPEN", "DECLINED").status()).isEqualTo(204);
        assertThat(waiting()).as("what is not theirs waits for nobody").isEmpty();
        JsonNode file = round.panel("Ada Brook").path("files").get(0);
        assertThat(file.path("claim").asString()).isEqualTo("DECLINED");
        assertThat(round.row("Ada Brook").path("files").asInt()).isZero();
        long id = file.path("id").asLong();
        assertThat(round.desk.post("/api/files/" + id + "/review", "{\"from\":\"NONE\",\"to\":\"ACCEPTED\"}").problem()).isEqualTo("claim-first");
        assertThat(round.desk.get("/api/files/" + id).status()).as("still there to be looked at").isEqualTo(200);
        assertThat(round.desk.get("/api/files.zip?round=" + round.id).problem()).as("and not among what is handed over").isEqualTo("no-files-chosen");
        assertThat(decide(999_999, "OPEN", "ACCEPTED").problem()).isEqualTo("no-claim");
        assertThat(round.desk.post("/api/claims/" + submission, "{}").status()).isEqualTo(400);
    }

    private JsonNode waiting() {
        return round.desk.get("/api/rounds/" + round.id + "/to-check").json().path("files");
    }

    @Test
    void whatAStrangerMerelyBeginsMakesNobodyAndChangesNothing() {
        int contacts = round.desk.get("/api/contacts").json().path("total").asInt();
        String story = round.panel("Ada Brook").path("story").toString();
        for (int n = 0; n < 20; n++) {
            round.openLink().begin("Nobody " + n, "nobody" + n + "." + round.id + "@example.net");
            round.openLink().begin("Mallory", "ada@example.org");
        }
        TestRound.Sender half = round.openLink();
        half.begin("Half Sent", "half." + round.id + "@example.net");
        String location = half.create(1, "half.pdf", 100).header("Location");
        half.patch(location, 0, new byte[50]);
        assertThat(round.desk.get("/api/contacts").json().path("total").asInt()).isEqualTo(contacts);
        assertThat(round.board().path("rows")).hasSize(2);
        assertThat(round.panel("Ada Brook").path("story").toString()).isEqualTo(story);
        half.patch(location, 50, new byte[50]);
        assertThat(round.board().path("rows")).as("refused bytes make nobody either").hasSize(2);
    }

    @Test
    void aRemovedPersonComesBackWithTheFirstFileAndNotBefore() {
        round.act("REMOVE", "Ada Brook", "\"on\":true");
        TestRound.Sender stranger = round.openLink();
        stranger.begin("Ada", "ada@example.org");
        assertThat(round.row("Ada Brook").path("removed").asBoolean()).isTrue();
        stranger.send(1, "a.pdf", TestRound.pdf("a"));
        assertThat(round.row("Ada Brook").path("removed").asBoolean()).isFalse();
        assertThat(round.row("Ada Brook").path("claimed").asInt()).as("still only claimed").isEqualTo(1);
    }

    @Test
    void aCorrectedNameAndAddressAreTheOnesThatCount() {
        TestRound.Sender sender = round.openLink();
        sender.begin("Jo Wrong", "jo.wrong." + round.id + "@example.net");
        assertThat(sender.send(1, "tool.exe", TestRound.pdf("x")).problem()).isEqualTo("kind-program");
        assertThat(correct(sender, "Jo Right", "not an address").at("email")).isNotEmpty();
        assertThat(correct(sender, "Jo Right", "jo.right." + round.id + "@example.net").status()).isEqualTo(204);
        sender.send(1, "paper.pdf", TestRound.pdf("jo"));
        assertThat(round.row("Jo Right").path("files").asInt()).isEqualTo(1);
        assertThat(round.board().path("rows").toString()).doesNotContain("Jo Wrong");
    }

    @Test
    void whatHasArrivedGoesAlongWithACorrection() {
        TestRound.Sender sender = round.openLink();
        String wrong = "kim.wrong." + round.id + "@example.net";
        sender.begin("Kim Wrong", wrong);
        sender.send(1, "paper.pdf", TestRound.pdf("kim"));
        assertThat(correct(sender, "Kim Right", "kim.right." + round.id + "@example.net").status()).isEqualTo(204);
        JsonNode file = round.panel("Kim Right").path("files").get(0);
        assertThat(file.path("path").asString()).contains("/Kim Right/");
        assertThat(RunningApp.DATA.resolve("files").resolve(file.path("path").asString())).exists();
        assertThat(round.board().path("rows").toString()).as("nobody is left over").doesNotContain("Kim Wrong");
        assertThat(round.desk.get("/api/contacts?find=" + wrong).json().path("contacts")).isEmpty();
        sender.finish();
        assertThat(correct(sender, "Kim Late", "kim.late@example.net").problem()).isEqualTo("submission-finished");
    }

    @Test
    void aLimitPerItemHoldsOverSubmissionsOfOneSenderAndShutsNobodyElseOut() {
        String address = "max." + round.id + "@example.net";
        for (int n = 0; n < 2; n++) {
            TestRound.Sender sender = round.openLink();
            sender.begin("Max", address);
            Http.Answer sent = sender.send(2, n + ".pdf", TestRound.pdf("" + n));
            assertThat(n == 0 ? sent.status() : 201).as(sent.text()).isEqualTo(201);
            assertThat(n == 1 ? sent.problem() : "too-many-files").isEqualTo("too-many-files");
        }
        TestRound.Sender other = round.openLink();
        other.begin("Other", "other." + round.id + "@example.net");
        assertThat(other.send(2, "o.pdf", TestRound.pdf("o")).status()).isEqualTo(201);
        long file = round.panel("Max").path("files").get(0).path("id").asLong();
        round.desk.post("/api/files/" + file + "/review", "{\"from\":\"NONE\",\"to\":\"RETURNED\",\"reason\":\"Unsigned\"}");
        TestRound.Sender again = round.openLink();
        again.begin("Max", address);
        assertThat(again.send(2, "again.pdf", TestRound.pdf("again")).status()).as("what was returned gives its place free").isEqualTo(201);
    }

    private static Http.Answer correct(TestRound.Sender sender, String name, String email) {
        return sender.http.send("PUT", "/api/basket/submissions", ("{\"name\":\"" + name + "\",\"email\":\"" + email + "\"}").getBytes(), "Content-Type", "application/json",
                "Oak-Link", sender.token, "Oak-Submission", sender.submission);
    }
}
