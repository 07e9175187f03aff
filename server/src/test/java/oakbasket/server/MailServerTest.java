package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.ServerSetup;
import jakarta.mail.internet.InternetAddress;
import jakarta.mail.internet.MimeMessage;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.server.account.AccountService;
import oakbasket.server.post.Postman;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.boot.web.server.servlet.context.ServletWebServerApplicationContext;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.jdbc.core.simple.JdbcClient;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** The post with a mail server: a real conversation with GreenMail, and with a server that refuses as RFC 5321 (4.2) lets it. */
class MailServerTest {

    private static final int PORT = freePort();
    private static final Path DATA = RunningApp.freshFolder();
    private static final Instant FIRST_DAY = Instant.parse("2026-06-01T09:00:00Z");
    private static final Duration BETWEEN_TESTS = Duration.ofDays(2);
    private static int tests;

    private static @Nullable ConfigurableApplicationContext app;
    private final GreenMail green = new GreenMail(new ServerSetup(PORT, "127.0.0.1", ServerSetup.PROTOCOL_SMTP));
    private Instant begin;
    private Http desk;

    /** Whatever listens on the port is the mail server; the application that talks to it is started once. */
    @BeforeEach
    void start() {
        begin = FIRST_DAY.plus(BETWEEN_TESTS.multipliedBy(tests++));
        RunningApp.CLOCK.set(begin);
        if (app == null) {
            restart();
        }
        signIn();
    }

    @AfterEach
    void nothingIsLeftForTheNextTest() {
        app.getBean(JdbcClient.class).sql("UPDATE letter SET state = 'STOPPED' WHERE state = 'WAITING'").update();
        RunningApp.CLOCK.set(FIRST_DAY);
        green.stop();
    }

    @AfterAll
    static void stop() {
        app.close();
        app = null;
    }

    @Test
    void namesAndWordsOfAllScriptsSurviveTheWay() throws Exception {
        green.start();
        long round = round("Zoë Ångström 川", "zoe@bücher.example", "Überflutung, Sommer 川");
        afterAMinute();
        MimeMessage mail = green.getReceivedMessages()[0];
        assertThat(mail.getSubject()).isEqualTo("Überflutung, Sommer 川: papers we need from you");
        assertThat(((InternetAddress) mail.getAllRecipients()[0]).getPersonal()).isEqualTo("Zoë Ångström 川");
        assertThat(((InternetAddress) mail.getAllRecipients()[0]).getAddress()).as("RFC 5890: the domain in its ASCII form").isEqualTo("zoe@xn--bcher-kva.example");
        assertThat(((InternetAddress) mail.getFrom()[0]).getAddress()).isEqualTo("office@example.org");
        assertThat(Outbox.text(mail)).contains("Dear Zoë Ångström 川,", "http://oak.example.org/b/");
        assertThat((String) Outbox.part(mail, "text/html").getContent()).contains("川,</p>", "<a href=\"http://oak.example.org/b/");
        assertThat(state(round)).isEqualTo("SENT");
        assertThat(desk.post("/api/post/test", "").status()).isEqualTo(204);
        assertThat(green.getReceivedMessages()).hasSize(2);
        assertThat(desk.get("/api/post").json().path("server").asString()).isEqualTo("127.0.0.1");
    }

    @Test
    void ofALetterUnderWayWhenTheServerDiedSomebodyIsAskedAndSentAgainItHasTheSameId() throws Exception {
        green.start();
        long round = round("Ada Brook", "ada@example.org", "Consent");
        afterAMinute();
        app.getBean(JdbcClient.class).sql("UPDATE letter SET state = 'SENDING' WHERE id = :id").param("id", letter(round).path("id").asLong()).update();
        app.close();
        restart();
        signIn();
        app.getBean(Postman.class).deliver();
        assertThat(state(round)).as("it may have gone").isEqualTo("UNCERTAIN");
        assertThat(undelivered()).isEqualTo(1);
        assertThat(green.getReceivedMessages()).hasSize(1);
        long id = letter(round).path("id").asLong();
        assertThat(desk.post("/api/letters/" + id + "/again", "").status()).isEqualTo(204);
        app.getBean(Postman.class).deliver();
        assertThat(state(round)).isEqualTo("SENT");
        assertThat(desk.post("/api/letters/" + id + "/arrived", "").problem()).isEqualTo("letter-gone");
        app.getBean(JdbcClient.class).sql("UPDATE letter SET state = 'UNCERTAIN' WHERE id = :id").param("id", id).update();
        assertThat(desk.post("/api/letters/" + id + "/arrived", "").status()).isEqualTo(204);
        assertThat(state(round)).isEqualTo("SENT");
        assertThat(green.getReceivedMessages()).hasSize(2);
        assertThat(green.getReceivedMessages()[0].getMessageID()).isEqualTo(green.getReceivedMessages()[1].getMessageID());
    }

    private int undelivered() {
        return desk.get("/api/post").json().path("undelivered").asInt();
    }

    private void mend(JsonNode contact, String email) {
        ObjectNode form = ((ObjectNode) contact).deepCopy().put("email", email);
        assertThat(desk.put("/api/contacts/" + contact.path("id"), form.toString()).status()).isEqualTo(200);
    }

    @Test
    void anAddressThatDoesNotExistIsToldAndNotChasedAgain() throws Exception {
        try (RefusingServer refusing = new RefusingServer("550 5.1.1 There is no such mailbox here")) {
            long round = round("Ada Brook", "ada@example.org", "Consent");
            afterAMinute();
            assertThat(state(round)).isEqualTo("FAILED");
            assertThat(letter(round).path("trouble").asString()).contains("no such mailbox");
            assertThat(row(round).path("progress").asString()).as("nobody was asked").isEqualTo("NOT_ASKED");
            assertThat(undelivered()).as("letters that need somebody").isEqualTo(1);
            JsonNode contact = desk.get("/api/contacts/" + row(round).path("contactId")).json().path("contact");
            mend(contact, "mended." + round + "@example.org");
            assertThat(undelivered()).as("the address was mended").isZero();
            mend(desk.get("/api/contacts/" + row(round).path("contactId")).json().path("contact"), contact.path("email").asString());
            assertThat(undelivered()).as("and is as it was").isEqualTo(1);
            desk.post("/api/baskets/" + row(round).path("id").asLong() + "/handed-over", "");
            assertThat(desk.get("/api/baskets/" + row(round).path("id").asLong() + "/letters").json().path("next").path("reason").asString()).isEqualTo("UNREACHABLE");
            assertThat(desk.post("/api/letters/" + letter(round).path("id").asLong() + "/again", "").status()).isEqualTo(204);
            assertThat(state(round)).isEqualTo("WAITING");
        }
    }

    @Test
    void aServerThatIsBusyIsTriedAgainForADayThenGivenUp() throws Exception {
        try (RefusingServer refusing = new RefusingServer("451 4.7.1 Please try again later")) {
            long round = round("Ada Brook", "ada@example.org", "Consent");
            afterAMinute();
            assertThat(state(round)).isEqualTo("WAITING");
            assertThat(letter(round).path("trouble").asString()).contains("try again later");
            Instant began = begin.plusSeconds(120);
            Instant gone = began;
            for (int n = 0; n < 20 && state(round).equals("WAITING"); n++) {
                gone = Instant.parse(letter(round).path("at").asString()).plusSeconds(1);
                RunningApp.CLOCK.set(gone);
                app.getBean(Postman.class).deliver();
            }
            assertThat(state(round)).isEqualTo("FAILED");
            assertThat(Duration.between(began, gone).toHours()).isBetween(20L, 26L);
        }
    }

    /** RFC 6531: such an address needs a server that says it can carry it; where the one that is set does not, it is refused at its field, wherever it is typed. */
    @Test
    void anAddressWithOtherLettersIsWrittenToOrRefusedWhereItIsTyped() throws Exception {
        List<String> addresses = List.of("jürgen@example.org", "用户@example.org");
        try (RefusingServer able = new RefusingServer("EHLO", "250-able.example.org\r\n250 SMTPUTF8")) {
            for (String address : addresses) {
                begin = begin.plus(Duration.ofHours(1));
                RunningApp.CLOCK.set(begin);
                long round = round("Jürgen Able", address, "Consent");
                afterAMinute();
                assertThat(state(round)).as(address).isEqualTo("SENT");
                assertThat(able.heard).as("RFC 6531, 3.4").anyMatch(line -> line.startsWith("MAIL FROM:") && line.contains("SMTPUTF8")).anyMatch(line -> line.equals("RCPT TO:<" + address + ">"));
            }
            able.heard.clear();
            begin = begin.plus(Duration.ofHours(1));
            RunningApp.CLOCK.set(begin);
            round("Ada Brook", "ada@bücher.example", "Consent");
            afterAMinute();
            assertThat(able.heard).as("others are spared it").anyMatch(line -> line.startsWith("RCPT TO:<ada@xn--bcher-kva.example>")).noneMatch(line -> line.contains("SMTPUTF8"));
        }
        begin = begin.plus(Duration.ofHours(1));
        RunningApp.CLOCK.set(begin);
        long waiting = round("Jürgen Early", "jürgen.early@example.org", "Typed while the server could");
        try (RefusingServer plain = new RefusingServer("NOTHING", "")) {
            afterAMinute();
            assertThat(state(waiting)).isEqualTo("FAILED");
            assertThat(letter(waiting).path("trouble").asString()).contains("jürgen.early@example.org", "before the @");
            assertThat(plain.heard).noneMatch(line -> line.startsWith("RCPT"));
            String person = "{\"name\":\"J\",\"email\":\"jürgen@example.org\"}";
            assertThat(desk.post("/api/contacts", "{\"name\":\"J\",\"email\":\"jürgen.new@example.org\",\"organisation\":\"\",\"reference\":\"\",\"language\":\"\",\"zone\":\"\",\"notes\":\"\",\"groups\":[]}").at("email")).contains("before the @");
            assertThat(desk.post("/api/rounds/" + waiting + "/people", "{\"people\":[" + person + "],\"groups\":[]}").at("people[0]")).contains("before the @");
            assertThat(desk.post("/api/team/invitations", "{\"name\":\"J\",\"email\":\"jürgen@example.org\",\"role\":\"READER\"}").at("email")).contains("before the @");
            long parcel = desk.post("/api/parcels", "").json().path("id").asLong();
            assertThat(desk.put("/api/parcels/" + parcel, "{\"version\":1,\"title\":\"P\",\"message\":\"\",\"days\":3,\"keptDays\":3,\"open\":false,\"byLetter\":true,\"whenReady\":false,\"people\":[" + person + "]}").at("people[0]")).contains("before the @");
        }
    }

    @Test
    void anOfficeThatMayNotSendIsToldAndLosesNothing() throws Exception {
        try (RefusingServer refusing = new RefusingServer("MAIL", "550 5.7.1 This sender is not allowed")) {
            long round = round("Ada Brook", "ada@example.org", "Consent");
            afterAMinute();
            assertThat(state(round)).isEqualTo("WAITING");
            assertThat(desk.get("/api/post").json().path("trouble").asString()).contains("does not let this office send", "not allowed");
        }
    }

    @Test
    void withoutAServerEverythingWaitsAndNothingIsGivenUp() throws Exception {
        long round = round("Ada Brook", "ada@example.org", "Consent");
        afterAMinute();
        assertThat(desk.get("/api/post").json().path("trouble").asString()).isEqualTo("The mail server does not answer");
        for (int n = 1; n < 20; n++) {
            RunningApp.CLOCK.set(begin.plusSeconds(n * 3600L));
            app.getBean(Postman.class).deliver();
        }
        assertThat(state(round)).isEqualTo("WAITING");
        assertThat(desk.post("/api/post/test", "").status()).isEqualTo(502);
    }

    // --- helpers

    private static int freePort() {
        try (ServerSocket any = new ServerSocket(0)) {
            return any.getLocalPort();
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
    }

    private static void restart() {
        app = RunningApp.startOn(DATA, "--spring.mail.host=127.0.0.1", "--spring.mail.port=" + PORT, "--oakbasket.mail-from=office@example.org",
                "--oakbasket.public-address=http://oak.example.org/");
    }

    private void signIn() {
        if (app.getBean(AccountService.class).setUpNeeded()) {
            app.getBean(AccountService.class).make(new Person("Robin Fenn", MailAddress.parse(RunningApp.EMAIL)), RunningApp.PASSWORD);
        }
        desk = new Http("http://localhost:" + ((ServletWebServerApplicationContext) app).getWebServer().getPort());
        desk.get("/api/session");
        desk.post("/api/session", "{\"email\":\"" + RunningApp.EMAIL + "\",\"password\":\"" + RunningApp.PASSWORD + "\"}");
    }

    private long round(String name, String email, String title) {
        TestRound sheet = new TestRound().withLetters("{\"invite\":true}");
        sheet.sheet.put("title", title).putArray("people").addObject().put("name", name).put("email", email);
        JsonNode draft = desk.post("/api/rounds", sheet.sheet.toString()).json();
        long id = draft.path("head").path("id").asLong();
        Http.Answer opened = desk.post("/api/rounds/" + id + "/open", "{\"version\":1}");
        assertThat(opened.status()).as(opened.text()).isEqualTo(204);
        return id;
    }

    private void afterAMinute() {
        RunningApp.CLOCK.set(begin.plusSeconds(120));
        app.getBean(Postman.class).deliver();
    }

    private JsonNode row(long round) {
        return desk.get("/api/rounds/" + round + "/board").json().path("rows").get(0);
    }

    private JsonNode letter(long round) {
        return desk.get("/api/letters?round=" + round).json().path("letters").get(0);
    }

    private String state(long round) {
        return letter(round).path("state").asString();
    }

    /** A mail server that answers one command always with the same reply. */
    private static final class RefusingServer implements AutoCloseable {
        private final ServerSocket socket = new ServerSocket(PORT);
        private final String refused;
        private final String reply;
        private final List<String> heard = new CopyOnWriteArrayList<>();

        /** Refuses every recipient. */
        RefusingServer(String reply) throws IOException {
            this("RCPT", reply);
        }

        RefusingServer(String refused, String reply) throws IOException {
            this.refused = refused;
            this.reply = reply;
            Thread thread = new Thread(this::serve, "refusing");
            thread.setDaemon(true);
            thread.start();
        }

        private void serve() {
            while (!socket.isClosed()) {
                try (Socket caller = socket.accept(); BufferedReader in = new BufferedReader(new InputStreamReader(caller.getInputStream(), StandardCharsets.UTF_8))) {
                    say(caller, "220 refusing.example.org");
                    boolean letter = false;
                    for (String line = in.readLine(); line != null; line = in.readLine()) {
                        heard.add(line);
                        letter = letter ? !line.equals(".") : line.equals("DATA");
                        if (!letter || line.equals("DATA")) {
                            say(caller, line.startsWith(refused) ? reply : letter ? "354 Go on" : line.startsWith("QUIT") ? "221 Bye" : "250 Fine");
                        }
                    }
                } catch (IOException gone) {
                    // The caller went, or the server is closed; both end the conversation.
                }
            }
        }

        private static void say(Socket caller, String line) throws IOException {
            caller.getOutputStream().write((line + "\r\n").getBytes(StandardCharsets.US_ASCII));
        }

        @Override
        public void close() throws IOException {
            socket.close();
        }
    }
}
