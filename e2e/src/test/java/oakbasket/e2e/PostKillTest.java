package oakbasket.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.icegreen.greenmail.user.GreenMailUser;
import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.ServerSetup;
import jakarta.mail.MessagingException;
import jakarta.mail.Session;
import jakarta.mail.internet.MimeMessage;
import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Properties;
import java.util.Random;
import java.util.concurrent.ConcurrentHashMap;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/**
 * Kills the real process at random points while letters are handed to a mail server and while messages come in. In the end every letter arrived exactly once, or somebody was asked about it; and every message was dealt with
 * exactly once.
 */
class PostKillTest {

    /** A few in every run; 5,000 letters and 1,000 messages with 20 kills each by bench/post.sh. */
    private static final int KILLS = number("POST_KILLS", 2);
    private static final int LETTERS = number("POST_LETTERS", 100);
    private static final int MESSAGES = number("POST_MESSAGES", 40);
    private static final String COLLECTING = "papers@oak.example.org";
    private static final int WAIT_SECONDS = 600;

    private final GreenMail green = new GreenMail(new ServerSetup[] {new ServerSetup(0, "127.0.0.1", ServerSetup.PROTOCOL_SMTP), new ServerSetup(0, "127.0.0.1", ServerSetup.PROTOCOL_IMAP)});
    private final Map<String, Integer> arrived = new ConcurrentHashMap<>();
    private final Random random = new Random();
    private final long seed = System.nanoTime();
    private GreenMailUser collector;

    private static int number(String name, int usual) {
        return Integer.parseInt(System.getenv().getOrDefault(name, String.valueOf(usual)));
    }

    @BeforeEach
    void start() throws Exception {
        random.setSeed(seed);
        green.start();
        collector = green.getUserManager().createUser(COLLECTING, "papers", "secret");
        green.getUserManager().setMessageDeliveryHandler((message, to) -> {
            arrived.merge(to.getEmail(), 1, Integer::sum);
            GreenMailUser known = green.getUserManager().getUserByEmail(to.getEmail());
            return known != null ? known : green.getUserManager().createUser(to.getEmail(), to.getEmail(), "x");
        });
    }

    @AfterEach
    void stop() {
        green.stop();
    }

    @Test
    void everyLetterArrivesOnceOrIsAskedAbout() throws Exception {
        try (PackagedApp app = app()) {
            Api api = new Api(app.url());
            long round = round(api, "Invited", LETTERS, true);
            int asked = 0;
            for (int kill = 0; kill < KILLS; kill++) {
                int before = arrived.size();
                await(() -> arrived.size() > before || waiting(new Api(app.url())) == 0);
                Thread.sleep(random.nextInt(1_500));
                app.kill();
                app.start();
                asked += settle(new Api(app.url()));
            }
            await(() -> waiting(new Api(app.url())) == 0);
            asked += settle(new Api(app.url()));
            await(() -> waiting(new Api(app.url())) == 0);
            api = new Api(app.url());
            assertThat(api.get("/api/letters?round=" + round).path("counts").path("UNCERTAIN").asInt()).isZero();
            for (int n = 0; n < LETTERS; n++) {
                assertThat(arrived).as("seed %d: person %d", seed, n).containsEntry("person." + n + "@invited.example.org", 1);
            }
            assertThat(asked).as("seed %d: at most the one under way at each kill", seed).isLessThanOrEqualTo(KILLS);
            System.out.printf("%d letters, %d kills: each arrived once; %d were asked about%n", LETTERS, KILLS, asked);
        }
    }

    /** Does what a coordinator does: looks whether an uncertain letter arrived, says so or sends it again. Says how many there were. */
    private int settle(Api api) {
        int settled = 0;
        for (JsonNode letter : api.get("/api/letters?state=UNCERTAIN").path("letters")) {
            boolean there = arrived.containsKey(letter.path("address").asString());
            assertThat(api.post("/api/letters/" + letter.path("id") + (there ? "/arrived" : "/again"), "").statusCode()).isEqualTo(204);
            settled++;
        }
        return settled;
    }

    private static int waiting(Api api) {
        JsonNode counts = api.get("/api/letters").path("counts");
        return counts.path("WAITING").asInt(0) + counts.path("SENDING").asInt(0);
    }

    @Test
    void everyMessageIsDealtWithOnce() throws Exception {
        int strangers = MESSAGES / 10;
        int known = MESSAGES - strangers;
        try (PackagedApp app = app()) {
            Api api = new Api(app.url());
            long round = round(api, "Writing", known, false);
            int filesBefore = files(api);
            int n = 0;
            for (JsonNode row : api.get("/api/rounds/" + round + "/board").path("rows")) {
                String to = api.get("/api/baskets/" + row.path("id") + "/mail-way").path("address").asString();
                deliver(row.path("email").asString(), to, n++);
            }
            for (int s = 0; s < strangers; s++) {
                deliver("stranger." + s + "@example.net", COLLECTING, n++);
            }
            for (int kill = 0; kill < KILLS; kill++) {
                int before = dealtWith(new Api(app.url()));
                await(() -> dealtWith(new Api(app.url())) > before || dealtWith(new Api(app.url())) == MESSAGES);
                Thread.sleep(random.nextInt(1_500));
                app.kill();
                app.start();
            }
            await(() -> dealtWith(new Api(app.url())) == MESSAGES);
            Thread.sleep(5_000);
            Api after = new Api(app.url());
            Map<String, Integer> kinds = new HashMap<>();
            int uncertain = 0;
            for (JsonNode message : all(after)) {
                kinds.merge(message.path("kind").asString() + " " + message.path("parts").get(0).path("outcome").asString(), 1, Integer::sum);
                uncertain += message.path("answerState").asString().equals("UNCERTAIN") ? 1 : 0;
            }
            assertThat(kinds).as("seed %d", seed).isEqualTo(Map.of("PAPERS FILED", known, "PAPERS TRAY", strangers));
            assertThat(files(after) - filesBefore).as("seed %d: files", seed).isEqualTo(known);
            for (JsonNode row : after.get("/api/rounds/" + round + "/board").path("rows")) {
                assertThat(row.path("files").asInt()).as("seed %d: %s", seed, row.path("name")).isEqualTo(1);
            }
            int lost = uncertain;
            assertThat(lost).as("seed %d: at most the one under way at each kill", seed).isLessThanOrEqualTo(KILLS);
            assertThat(arrived.values()).as("seed %d: nobody is answered twice", seed).allMatch(times -> times == 1);
            assertThat(arrived.size()).isBetween(MESSAGES - lost, MESSAGES);
            System.out.printf("%d messages, %d kills: each dealt with once, %d answered, of %d answers it is not known%n", MESSAGES, KILLS, arrived.size(), lost);
        }
    }

    private PackagedApp app() {
        Path data = PackagedApp.freshFolder();
        return new PackagedApp(data, "--oakbasket.demo=true", "--spring.mail.host=127.0.0.1", "--spring.mail.port=" + green.getSmtp().getPort(), "--oakbasket.mail-from=office@oak.example.org",
                "--oakbasket.collecting-address=" + COLLECTING, "--oakbasket.mailbox.host=127.0.0.1", "--oakbasket.mailbox.port=" + green.getImap().getPort(), "--oakbasket.mailbox.security=NONE",
                "--oakbasket.mailbox.user=papers", "--oakbasket.mailbox.password=secret", "--oakbasket.letter-hold=PT0S", "--oakbasket.inward-first=PT0.2S", "--oakbasket.inward-every=PT1S", "--oakbasket.post-every=PT0.2S");
    }

    private static long round(Api api, String title, int people, boolean invite) {
        StringBuilder asked = new StringBuilder();
        for (int n = 0; n < people; n++) {
            asked.append(n == 0 ? "" : ",").append("{\"name\":\"Person ").append(n).append("\",\"email\":\"person.").append(n).append('@').append(title.toLowerCase()).append(".example.org\"}");
        }
        String sheet = "{\"title\":\"" + title + "\",\"items\":[{\"title\":\"Paper\",\"required\":true,\"minFiles\":1,\"maxFiles\":5,\"kinds\":[],\"maxMebibytes\":5}],\"people\":[" + asked
                + "],\"deadlineDate\":\"2027-06-30\",\"deadlineTime\":\"17:00\",\"zone\":\"Europe/London\",\"folderPattern\":\"{round}/{person}\",\"namePattern\":\"{original}\",\"letters\":{\"invite\":" + invite + "}}";
        JsonNode draft = Api.json(api.post("/api/rounds", sheet));
        long id = draft.path("head").path("id").asLong();
        assertThat(api.post("/api/rounds/" + id + "/open", "{\"version\":" + draft.path("head").path("version") + "}").statusCode()).isEqualTo(204);
        JsonNode settings = api.get("/api/letter-settings");
        api.send("PUT", "/api/letter-settings", settings.toString().replaceFirst("\"perMinute\":\\d+", "\"perMinute\":0").getBytes(StandardCharsets.UTF_8), "Content-Type", "application/json");
        return id;
    }

    private void deliver(String from, String to, int n) throws MessagingException {
        String message = "From: " + from + "\r\nTo: " + to + "\r\nSubject: paper\r\nMessage-ID: <m" + n + "@example.org>\r\nMIME-Version: 1.0\r\nContent-Type: multipart/mixed; boundary=b\r\n\r\n--b\r\n\r\nHere.\r\n--b\r\n"
                + "Content-Type: text/plain; name=paper" + n + ".txt\r\nContent-Disposition: attachment; filename=paper" + n + ".txt\r\n\r\nThe paper of " + n + "\r\n--b--\r\n";
        collector.deliver(new MimeMessage(Session.getInstance(new Properties()), new ByteArrayInputStream(message.getBytes(StandardCharsets.UTF_8))));
    }

    private static Iterable<JsonNode> all(Api api) {
        List<JsonNode> all = new ArrayList<>();
        JsonNode page = api.get("/api/inward?all=true");
        while (true) {
            page.path("messages").forEach(all::add);
            if (!page.path("more").asBoolean()) {
                return all;
            }
            page = api.get("/api/inward?all=true&before=" + all.get(all.size() - 1).path("id"));
        }
    }

    private static int dealtWith(Api api) {
        int dealt = 0;
        for (JsonNode message : all(api)) {
            dealt += message.path("kind").asString().equals("NEW") ? 0 : 1;
        }
        return dealt;
    }

    private static int files(Api api) {
        int files = 0;
        for (JsonNode round : api.get("/api/rounds")) {
            if (round.path("title").asString().equals("Writing")) {
                for (JsonNode row : api.get("/api/rounds/" + round.path("id") + "/board").path("rows")) {
                    files += row.path("files").asInt();
                }
            }
        }
        return files;
    }

    private interface Condition {
        boolean holds() throws Exception;
    }

    private static void await(Condition condition) throws Exception {
        long end = System.nanoTime() + WAIT_SECONDS * 1_000_000_000L;
        while (!condition.holds()) {
            if (System.nanoTime() > end) {
                throw new AssertionError("Still waiting");
            }
            Thread.sleep(100);
        }
    }
}
