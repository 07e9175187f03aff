package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import jakarta.mail.internet.MimeMessage;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import oakbasket.server.digest.DigestLooks;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** A coordinator is told of what came, as they want it: each file once, none of nothing, nothing of rounds they did not want to hear of. */
class DigestTest {

    private final Http desk = Http.desk();
    private final Instant before = RunningApp.CLOCK.instant();

    @BeforeEach
    void whatCameBeforeIsNotTold() {
        RunningApp.CLOCK.set(Instant.parse("2026-06-02T10:00:00Z"));
    }

    @AfterEach
    void nobodyIsToldAnyMore() {
        desk.put("/api/digest", "{\"plan\":\"NEVER\"}");
        RunningApp.CLOCK.set(before);
    }

    private static void send(TestRound round, String person, String... names) {
        TestRound.Sender sender = round.personal(person).begin();
        for (String name : names) {
            assertThat(sender.send(2, name, (name + round.id).getBytes(StandardCharsets.UTF_8)).status()).isEqualTo(201);
        }
        sender.finish();
    }

    private static void later(Duration time) {
        RunningApp.CLOCK.set(RunningApp.CLOCK.instant().plus(time));
        DigestLooks.twice(RunningApp.bean(DigestLooks.TYPE));
    }

    private static List<MimeMessage> told(TestRound round) {
        return Outbox.to(RunningApp.EMAIL).stream().filter(mail -> Outbox.subject(mail).startsWith("Papers that came") && Outbox.text(mail).contains(round.title())).toList();
    }

    @Test
    void whatCameIsToldOnceByRoundAndPersonWithTheWayToIt() {
        TestRound round = new TestRound().onlyPeople("Ada Brook", "Ben Reed").item("Notes", false, 1, 90, 1).open();
        send(round, "Ada Brook", "before.txt");
        assertThat(desk.put("/api/digest", "{\"plan\":\"AT_ONCE\"}").json().path("plan").asString()).isEqualTo("AT_ONCE");
        later(Duration.ofMinutes(5));
        assertThat(told(round)).as("only what comes from then on").isEmpty();
        send(round, "Ada Brook", "1.txt", "2.txt", "3.txt", "4.txt", "5.txt", "6.txt", "7.txt");
        send(round, "Ben Reed", "ben.txt");
        later(Duration.ofMinutes(1));
        assertThat(told(round)).as("more may come").isEmpty();
        later(Duration.ofMinutes(2));
        assertThat(told(round)).hasSize(1);
        String text = Outbox.text(told(round).get(0));
        assertThat(Outbox.subject(told(round).get(0))).isEqualTo("Papers that came: 8");
        assertThat(text).as("the end of the trail, kept where nobody can change it").containsPattern("ended with entry [0-9,]+, hash [0-9a-f]{64}\\.");
        assertThat(text).contains("- Ada Brook, Tue 2 Jun, 11:0").contains("(identified by their own link)").contains(" and 2 more").contains("- Ben Reed, ")
                .contains("/rounds/" + round.id + "?basket=" + round.row("Ben Reed").path("id")).doesNotContain("before");
        later(Duration.ofHours(2));
        assertThat(told(round)).as("nothing when there is nothing").hasSize(1);
    }

    @Test
    void roundsCanBeLeftOutAndWhatIsPutInAtTheDeskIsKnownThere() {
        TestRound loud = new TestRound().onlyPeople("Ada Brook").item("Notes", false, 1, 90, 1).open();
        TestRound quiet = new TestRound().onlyPeople("Ben Reed").item("Notes", false, 1, 90, 1).open();
        desk.put("/api/digest", "{\"plan\":\"HOURLY\",\"muted\":[" + quiet.id + "]}");
        later(Duration.ofMinutes(1));
        send(quiet, "Ben Reed", "quiet.txt");
        long paper = desk.send("POST", "/api/loose?name=desk.txt", "desk".getBytes(StandardCharsets.UTF_8)).json().path("id").asLong();
        long item = desk.get("/api/tray/choices/" + loud.id).json().path("items").get(1).path("id").asLong();
        assertThat(desk.post("/api/loose/file", "{\"ids\":[" + paper + "],\"basketId\":" + loud.row("Ada Brook").path("id") + ",\"itemId\":" + item + "}").status()).isEqualTo(204);
        later(Duration.ofHours(2));
        assertThat(told(quiet)).isEmpty();
        assertThat(told(loud)).isEmpty();
        send(loud, "Ada Brook", "loud.txt");
        later(Duration.ofMinutes(30));
        later(Duration.ofMinutes(40));
        assertThat(told(loud)).hasSize(1);
        assertThat(Outbox.text(told(loud).get(0))).doesNotContain(quiet.title());
        assertThat(desk.put("/api/digest", "{\"muted\":[1]}").status()).isEqualTo(400);
        assertThat(desk.put("/api/digest", "{\"plan\":\"SOMETIMES\"}").status()).isEqualTo(400);
    }

    @Test
    void linksThatBeginToEndSoonAreToldOnceInTheMorningAndAgainOnlyAfterTheirEndWasChanged() {
        TestRound round = new TestRound().onlyPeople("Ada Brook", "Ben Reed").open();
        TestRound quiet = new TestRound().onlyPeople("Cy Marsh").open();
        long ada = desk.get("/api/links?round=" + round.id + "&find=Ada").json().path("links").get(0).path("id").asLong();
        desk.put("/api/digest", "{\"plan\":\"HOURLY\",\"muted\":[" + quiet.id + "]}");
        long other = desk.get("/api/links?round=" + quiet.id).json().path("links").get(0).path("id").asLong();
        endsOn(ada, "2026-06-18");
        endsOn(other, "2026-06-18");
        later(Duration.ofHours(23));
        assertThat(ending(round)).as("16 days ahead").isEmpty();
        later(Duration.ofHours(46));
        assertThat(ending(round)).hasSize(1);
        assertThat(Outbox.text(ending(round).get(0))).contains("- " + round.title() + ": 1 link, the first on Thu 18 Jun, 1").contains(" Ada Brook\n")
                .contains("/links?round=" + round.id + "&listing=ENDS_SOON").doesNotContain(quiet.title());
        later(Duration.ofDays(2));
        assertThat(ending(round)).as("once").hasSize(1);
        endsOn(ada, "2026-06-20");
        later(Duration.ofDays(1));
        assertThat(ending(round)).as("another end").hasSize(2);
    }

    private void endsOn(long link, String at) {
        int version = desk.get("/api/links/" + link).json().path("link").path("version").asInt();
        Http.Answer changed = desk.put("/api/links/" + link + "/terms", "{\"version\":" + version + ",\"ends\":\"UNTIL\",\"endsOn\":\"" + at + "\",\"endsAt\":\"12:00\"}");
        assertThat(changed.status()).as(changed.text()).isLessThan(300);
    }

    private static List<MimeMessage> ending(TestRound round) {
        return Outbox.to(RunningApp.EMAIL).stream().filter(mail -> Outbox.subject(mail).startsWith("Links that end soon") && Outbox.text(mail).contains(round.title())).toList();
    }
}
