package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.server.account.AccountService;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.boot.web.server.servlet.context.ServletWebServerApplicationContext;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.jdbc.core.simple.JdbcClient;

/** The own password, and sessions that outlive the server. Source: OWASP Session Management and Authentication Cheat Sheets. */
class OwnAccountTest {

    private static final String EMAIL = "own@example.org";
    private static final String PASSWORD = "a long enough one";

    private java.nio.file.Path data;
    private ConfigurableApplicationContext app;
    private String base;

    @BeforeEach
    void start() {
        data = RunningApp.freshFolder();
        begin();
        app.getBean(AccountService.class).make(new Person("Own", MailAddress.parse(EMAIL)), PASSWORD);
    }

    private void begin() {
        app = RunningApp.startOn(data);
        base = "http://localhost:" + ((ServletWebServerApplicationContext) app).getWebServer().getPort();
    }

    @AfterEach
    void stop() {
        app.close();
    }

    private Http signedIn(String password) {
        Http desk = new Http(base);
        desk.get("/api/session");
        desk.post("/api/session", "{\"email\":\"" + EMAIL + "\",\"password\":\"" + password + "\"}");
        return desk;
    }

    private static Http.Answer change(Http desk, String present, String next) {
        return desk.post("/api/session/password", "{\"present\":\"" + present + "\",\"password\":\"" + next + "\"}");
    }

    @Test
    void aNewPasswordEndsEveryOtherSession() {
        Http here = signedIn(PASSWORD);
        Http elsewhere = signedIn(PASSWORD);
        assertThat(change(here, PASSWORD, "another long one").status()).isEqualTo(204);
        assertThat(here.get("/api/rounds").status()).isEqualTo(200);
        assertThat(elsewhere.get("/api/rounds").status()).isEqualTo(401);
        assertThat(signedIn(PASSWORD).get("/api/rounds").status()).isEqualTo(401);
        assertThat(signedIn("another long one").get("/api/rounds").status()).isEqualTo(200);
    }

    @Test
    void aWrongOrAShortOneChangesNothingAndGuessingIsCounted() {
        Http desk = signedIn(PASSWORD);
        assertThat(change(desk, "not this one at all", "another long one").text()).contains("\"field\":\"present\"");
        assertThat(change(desk, PASSWORD, "short").text()).contains("\"field\":\"password\"");
        List<Integer> statuses = new ArrayList<>();
        for (int n = 0; n < 12; n++) {
            statuses.add(change(desk, "guess number " + n, "another long one").status());
        }
        assertThat(statuses).contains(429);
        assertThat(signedIn(PASSWORD).get("/api/rounds").status()).isEqualTo(200);
    }

    @Test
    void aSessionOutlivesTheServer() {
        Http desk = signedIn(PASSWORD);
        String cookie = desk.cookie("oak-session");
        app.close();
        begin();
        assertThat(new Http(base).get("/api/rounds", "Cookie", "oak-session=" + cookie).status()).isEqualTo(200);
    }

    /** Whoever has a copy of the database, and not the keys beside it, cannot come in by the sessions in it. */
    @Test
    void aSessionCannotBeTakenFromACopyOfTheDatabase() {
        signedIn(PASSWORD);
        List<String> ids = app.getBean(JdbcClient.class).sql("SELECT session_id FROM spring_session").query(String.class).list();
        assertThat(ids).isNotEmpty();
        for (String id : ids) {
            String encoded = java.util.Base64.getEncoder().encodeToString(id.getBytes());
            for (String guess : List.of(id, encoded, id + ".", java.util.Base64.getEncoder().encodeToString((id + ".AAAA").getBytes()))) {
                assertThat(new Http(base).get("/api/rounds", "Cookie", "oak-session=" + guess).status()).as(guess).isEqualTo(401);
            }
        }
    }
}
