package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.PrintStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.springframework.boot.web.server.servlet.context.ServletWebServerApplicationContext;
import org.springframework.context.ConfigurableApplicationContext;

class FirstStartTest {

    @Test
    void theFirstAccountNeedsTheCodeOnTheConsoleAndDataSurvivesARestart() throws Exception {
        Path data = RunningApp.freshFolder();
        PrintStream console = System.out;
        ByteArrayOutputStream printed = new ByteArrayOutputStream();
        String code;
        System.setOut(new PrintStream(printed, true));
        ConfigurableApplicationContext first = RunningApp.startOn(data);
        try {
            System.setOut(console);
            Matcher shown = Pattern.compile("set-up code: (\\S+)").matcher(printed.toString());
            assertThat(shown.find()).isTrue();
            code = shown.group(1);
            Http caller = new Http(url(first));
            assertThat(caller.get("/api/session").json().path("setUpNeeded").asBoolean()).isTrue();
            assertThat(caller.post("/api/first-account", body("AAAA-AAAA-AAAA", "long enough password")).at("code")).contains("console");
            Http.Answer empty = caller.post("/api/first-account", "{\"code\":\"\",\"name\":\"\",\"email\":\"\",\"password\":\"\"}");
            assertThat(List.of("code", "name", "email", "password")).allSatisfy(field -> assertThat(empty.at(field)).as(field).isNotEmpty());
            assertThat(empty.at("name")).as("what is said of the name is about the name").doesNotContain("@").isNotEqualTo(empty.at("email"));
            assertThat(caller.post("/api/first-account", body(code, "short")).at("password")).contains("at least 12");
            assertThat(caller.post("/api/first-account", body(code, "ö".repeat(40))).at("password")).contains("72 bytes");
            assertThat(caller.post("/api/first-account", body(code, "long enough password")).status()).isEqualTo(201);
            assertThat(caller.get("/api/rounds").status()).isEqualTo(200);
            assertThat(caller.post("/api/first-account", body(code, "long enough password")).problem()).isEqualTo("already-set-up");
            assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(data.resolve("keys/sealing.key")))).isEqualTo("rw-------");
            assertThat(List.of("", "files", "incoming", "keys", "outbox", "db")).allSatisfy(folder ->
                    assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(data.resolve(folder)))).as("the folder “%s”", folder).isEqualTo("rwx------"));
        } finally {
            System.setOut(console);
            first.close();
        }
        try (ConfigurableApplicationContext second = RunningApp.startOn(data)) {
            Http caller = new Http(url(second));
            assertThat(caller.get("/api/session").json().path("setUpNeeded").asBoolean()).isFalse();
            assertThat(caller.post("/api/session", "{\"email\":\"wren@example.org\",\"password\":\"long enough password\"}").status()).isEqualTo(200);
        }
    }

    @Test
    void passwordsCannotBeGuessedForLong() {
        try (ConfigurableApplicationContext app = RunningApp.startOn(RunningApp.freshFolder())) {
            app.getBean(oakbasket.server.account.AccountService.class).make(new oakbasket.core.identity.Person("Wren",
                    oakbasket.core.identity.MailAddress.parse("wren@example.org")), "long enough password");
            Http caller = new Http(url(app));
            caller.get("/api/session");
            for (int i = 0; i < 10; i++) {
                assertThat(caller.post("/api/session", "{\"email\":\"wren@example.org\",\"password\":\"guess " + i + "\"}").problem()).isEqualTo("sign-in-wrong");
            }
            Http.Answer right = caller.post("/api/session", "{\"email\":\"wren@example.org\",\"password\":\"long enough password\"}");
            assertThat(right.status()).isEqualTo(429);
            assertThat(right.problem()).isEqualTo("too-many");
        }
    }

    private static String url(ConfigurableApplicationContext context) {
        return "http://localhost:" + ((ServletWebServerApplicationContext) context).getWebServer().getPort();
    }

    private static String body(String code, String password) {
        return Http.JSON.createObjectNode().put("code", code).put("name", "Wren").put("email", "wren@example.org").put("password", password).toString();
    }
}
