package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Properties;
import java.util.stream.Stream;
import oakbasket.core.audit.AuditChain;
import oakbasket.core.audit.AuditKind;
import oakbasket.core.audit.AuditRecord;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.core.team.Role;
import oakbasket.server.account.AccountService;
import oakbasket.server.audit.CheckAudit;
import org.junit.jupiter.api.Test;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.jdbc.core.simple.JdbcClient;
import tools.jackson.databind.JsonNode;

/** Who did, saw and took away what, from where; and whether somebody changed what was written. */
class AuditTest {

    private final Http desk = Http.desk();

    private List<JsonNode> entries(String query) {
        return desk.get("/api/audit?" + query).json().path("entries").valueStream().toList();
    }

    @Test
    void whatIsDoneSeenAndTakenAwayIsWrittenWithWhoAndWhereFrom() {
        TestTeam one = TestTeam.of(Role.COORDINATOR);
        TestTeam reader = TestTeam.of(Role.READER);
        TestRound round = new TestRound(one.desk).onlyPeople("Ada Trail").item("Notes", false, 1, 9, 1).open();
        TestRound.Sender sender = round.personal("Ada Trail").begin();
        sender.send(2, "trail.txt", "what was sent".getBytes(StandardCharsets.UTF_8));
        sender.finish();
        long file = round.panel("Ada Trail").path("files").get(0).path("id").asLong();
        reader.desk.get("/api/files/" + file);
        reader.desk.get("/api/baskets/" + round.row("Ada Trail").path("id"));
        reader.desk.get("/api/baskets/" + round.row("Ada Trail").path("id"));
        reader.desk.post("/api/rounds/" + round.id + "/close", "");
        reader.desk.get("/api/rounds");
        one.desk.post("/api/rounds/" + round.id + "/close", "");
        List<String> did = entries("account=" + one.id()).stream().map(entry -> entry.path("words").asString() + ": " + entry.path("subject").asString()).toList();
        assertThat(did).contains("closed a round: " + round.title(), "opened a round: " + round.title(), "signed in: ");
        List<JsonNode> read = entries("account=" + reader.id());
        assertThat(read.stream().map(entry -> entry.path("kind").asString() + " " + entry.path("words").asString() + ": " + entry.path("subject").asString()).toList())
                .containsExactly("REFUSED closed a round: " + round.title(), "SAW saw a basket: Ada Trail, " + round.title(), "TOOK took a file away: Ada Trail, trail.txt", "SIGNED signed in: ");
        assertThat(read.get(0).path("caller").asString()).isEqualTo("127.0.0.1");
        assertThat(entries("account=" + reader.id() + "&kind=TOOK")).hasSize(1);
        assertThat(entries("find=trail.txt")).isNotEmpty().allMatch(entry -> entry.toString().contains("trail.txt"));
        assertThat(entries("account=" + reader.id() + "&until=2020-01-01")).isEmpty();
        assertThat(reader.desk.get("/api/audit").problem()).isEqualTo("role");
        Http stranger = new Http();
        stranger.get("/api/session");
        stranger.post("/api/session", "{\"email\":\"" + reader.account.email() + "\",\"password\":\"not theirs\"}");
        List<JsonNode> tried = entries("kind=SIGNED").stream().filter(entry -> entry.path("who").asString().equals(reader.account.email())).toList();
        assertThat(tried).as("who could not sign in did not").anyMatch(entry -> entry.path("words").asString().equals("could not sign in")).noneMatch(entry -> entry.path("status").asInt() == 401 && entry.path("words").asString().equals("signed in"));
        Http.Answer csv = desk.get("/api/audit.csv?account=" + reader.id());
        assertThat(csv.header("Content-Type")).startsWith("text/csv");
        assertThat(csv.text().lines()).hasSize(5);
        assertThat(csv.text()).contains("took a file away").contains("POST /api/rounds/{id}/close");
    }

    @Test
    void whoeverIsKeptOutIsWrittenToo() {
        Http stranger = new Http();
        stranger.get("/api/session");
        stranger.post("/api/session", "{\"email\":\"Guess@Example.org\",\"password\":\"not the one at all\"}");
        JsonNode entry = entries("find=guess@example.org").get(0);
        assertThat(entry.path("status").asInt()).isEqualTo(401);
        assertThat(entry.toString()).doesNotContain("not the one");
    }

    /** Every operation that is noted has words, so that nobody has to read addresses. */
    @Test
    void everythingNotedHasWords() throws IOException {
        Properties words = new Properties();
        try (var in = Files.newBufferedReader(Path.of("src/main/resources/messages/words.properties"), StandardCharsets.UTF_8)) {
            words.load(in);
        }
        List<String> unsaid = List.of("preview", "read", "check", "trial", "look", "example", "import", "seen", "who", "files");
        try (Stream<String> lines = Files.lines(Path.of("src/test/resources/permissions.txt"))) {
            assertThat(lines.filter(line -> !line.startsWith("#") && !line.contains(" GET ")).map(line -> line.replaceFirst("^\\S+ +(\\S+) +(\\S+)", "$1 $2"))
                    .filter(operation -> unsaid.stream().noneMatch(end -> operation.endsWith("/" + end)))
                    .filter(operation -> !words.containsKey("audit.did." + operation.replace(" /api/", ".").replace('/', '.').replaceAll("[{}]", "")))).isEmpty();
        }
    }

    /** In an application of its own, whose trail somebody then changes in the database behind it. */
    @Test
    void theCommandFindsWhatWasChangedLeftOutOrCutOff() throws IOException {
        Path data = RunningApp.freshFolder();
        String head;
        try (ConfigurableApplicationContext app = RunningApp.startOn(data)) {
            app.getBean(AccountService.class).make(new Person("Robin Fenn", MailAddress.parse(RunningApp.EMAIL)), RunningApp.PASSWORD);
            Http other = new Http("http://localhost:" + app.getEnvironment().getProperty("local.server.port"));
            other.get("/api/session");
            other.post("/api/session", "{\"email\":\"" + RunningApp.EMAIL + "\",\"password\":\"" + RunningApp.PASSWORD + "\"}");
            for (int i = 0; i < 5; i++) {
                other.post("/api/rounds", "{\"title\":\"Draft " + i + "\"}");
            }
            JsonNode checked = other.post("/api/audit/check", "").json();
            assertThat(checked.path("entries").asInt()).isGreaterThanOrEqualTo(6);
            assertThat(checked.path("wrongAt").isNull()).isTrue();
            head = checked.path("head").asString();
        }
        assertThat(CheckAudit.run("check-audit", "--oakbasket.data=" + data, "--head=" + head)).isZero();
        change(data, "UPDATE audit_entry SET who = 'Somebody else' WHERE number = 3");
        assertThat(CheckAudit.run("check-audit", "--oakbasket.data=" + data)).as("changed").isEqualTo(1);
        change(data, "UPDATE audit_entry SET who = 'Robin Fenn' WHERE number = 3");
        assertThat(CheckAudit.run("check-audit", "--oakbasket.data=" + data)).as("as it was").isZero();
        change(data, "DELETE FROM audit_entry WHERE number = (SELECT MAX(number) FROM audit_entry)");
        change(data, "DELETE FROM audit_entry WHERE number = (SELECT MAX(number) FROM audit_entry)");
        assertThat(CheckAudit.run("check-audit", "--oakbasket.data=" + data)).as("an end that was cut off is missed: it is noted outside of the database").isEqualTo(1);
        try (ConfigurableApplicationContext app = RunningApp.startOn(data)) {
            Http other = new Http("http://localhost:" + app.getEnvironment().getProperty("local.server.port"));
            other.get("/api/session");
            other.post("/api/session", "{\"email\":\"" + RunningApp.EMAIL + "\",\"password\":\"" + RunningApp.PASSWORD + "\"}");
            other.post("/api/rounds", "{\"title\":\"As many as were cut off, and more\"}");
            other.post("/api/rounds", "{\"title\":\"One more\"}");
            assertThat(other.post("/api/audit/check", "").json().path("wrongAt").asLong()).as("also at the desk, and after as many new ones").isPositive();
        }
        assertThat(CheckAudit.run("check-audit", "--oakbasket.data=" + data)).as("nothing was noted over it").isEqualTo(1);
        java.nio.file.Files.writeString(data.resolve("keys/audit-head"), "1 " + "0".repeat(64) + " " + "0".repeat(64));
        assertThat(CheckAudit.run("check-audit", "--oakbasket.data=" + data)).as("a note that nobody with the key made").isEqualTo(1);
        assertThat(CheckAudit.run("check-audit", "--oakbasket.data=" + data, "--head=" + head)).as("but by a hash noted before").isEqualTo(1);
        change(data, "DELETE FROM audit_entry WHERE number = 2");
        assertThat(CheckAudit.run("check-audit", "--oakbasket.data=" + data)).as("left out").isEqualTo(1);
    }

    /** Whoever can write to the database alone has no key: what they write anew is noticed without any note of its end. */
    @Test
    void aTrailThatWasWrittenAnewWithoutTheKeyIsFound() throws IOException {
        Path data = RunningApp.freshFolder();
        try (ConfigurableApplicationContext app = RunningApp.startOn(data)) {
            Http stranger = new Http("http://localhost:" + app.getEnvironment().getProperty("local.server.port"));
            stranger.get("/api/session");
            for (int i = 0; i < 4; i++) {
                stranger.post("/api/session", "{\"email\":\"nobody@example.org\",\"password\":\"wrong wrong wrong\"}");
            }
        }
        java.nio.file.Files.delete(data.resolve("keys/audit-head"));
        assertThat(CheckAudit.run("check-audit", "--oakbasket.data=" + data)).isZero();
        List<AuditRecord> entries = client(data).sql("SELECT * FROM audit_entry WHERE number <= 3 ORDER BY number").query((row, n) -> new AuditRecord(row.getLong("number"), row.getObject("at", Instant.class),
                row.getLong("account_id"), row.getString("who"), row.getString("caller"), AuditKind.valueOf(row.getString("kind")), row.getString("operation"), "somebody else", row.getInt("status"))).list();
        assertThat(entries).hasSize(3);
        change(data, "DELETE FROM audit_entry WHERE number > 3");
        byte[] before = AuditChain.BEGINNING;
        for (AuditRecord entry : entries) {
            before = AuditChain.hash(before, entry);
            client(data).sql("UPDATE audit_entry SET subject = 'somebody else', hash = ? WHERE number = ?").params(before, entry.number()).update();
        }
        assertThat(CheckAudit.run("check-audit", "--oakbasket.data=" + data)).isEqualTo(1);
    }

    private static JdbcClient client(Path data) {
        return JdbcClient.create(new org.springframework.jdbc.datasource.DriverManagerDataSource("jdbc:h2:file:" + data.resolve("db/oak-basket").toAbsolutePath(), "sa", ""));
    }

    private static void change(Path data, String sql) {
        client(data).sql(sql).update();
    }

    @Test
    void whatPeopleOutsideTakeAwayIsWrittenTooWhatGoesTogetherOnce() {
        TestParcel parcel = new TestParcel().person("Ed Outside").file("plan of ed.txt", "plan".getBytes(StandardCharsets.UTF_8)).file("map of ed.txt", "map".getBytes(StandardCharsets.UTF_8)).handOut();
        TestParcel.Taker ed = parcel.taker("Ed Outside");
        assertThat(ed.take(1, "plan of ed.txt").status()).isEqualTo(200);
        assertThat(ed.all().status()).isEqualTo(200);
        List<JsonNode> took = Waiting.until(() -> entries("kind=TOOK&find=Ed+Outside"), found -> found.size() >= 2);
        assertThat(took).extracting(entry -> entry.path("words").asString() + ": " + entry.path("subject").asString()).containsExactlyInAnyOrder(
                "took away what was handed out: " + parcel.sheet.path("title").asString() + ": plan of ed.txt", "took away what was handed out: " + parcel.sheet.path("title").asString() + ": 2 files");
        assertThat(took).allMatch(entry -> entry.path("who").asString().equals("Ed Outside") && !entry.path("caller").asString().isEmpty());
    }
}
