package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.Statement;
import java.util.Random;
import oakbasket.core.receipt.ReceiptCode;
import org.flywaydb.core.Flyway;
import org.junit.jupiter.api.Test;
import org.springframework.boot.web.server.servlet.context.ServletWebServerApplicationContext;
import org.springframework.context.ConfigurableApplicationContext;
import tools.jackson.databind.JsonNode;

/** A data folder of the first version is opened by this one: nothing of it is lost, and all of it works as new data does. */
class UpgradeTest {

    /** A round in full swing as the first version kept it: an extension, an excused item, an excused person, a walk-in, a returned file, a draft. */
    private static final String[] FIRST_VERSION = {
        "INSERT INTO account (name, email, email_key, password_hash, created_at, last_look) VALUES ('Robin', 'robin@example.org', 'robin@example.org', '%s', CURRENT_TIMESTAMP, CURRENT_TIMESTAMP)",
        "INSERT INTO contact (name, email, email_key, organisation, created_at) VALUES ('Ada Brook', 'ada@example.org', 'ada@example.org', 'Brook Farm', CURRENT_TIMESTAMP)",
        "INSERT INTO contact (name, email, email_key, created_at) VALUES ('Ben Reed', 'ben@example.org', 'ben@example.org', CURRENT_TIMESTAMP)",
        "INSERT INTO contact (name, email, email_key, provisional, created_at) VALUES ('Tom Yarrow', 'tom@example.net', 'tom@example.net', TRUE, CURRENT_TIMESTAMP)",
        "INSERT INTO contact_group (name) VALUES ('Landowners')",
        "INSERT INTO contact_group_member (group_id, contact_id) VALUES (1, 1)",
        "INSERT INTO round (state, sheet, title, note, zone, deadline_date, deadline_time, folder_pattern, name_pattern, asked_by, created_at, changed_at, opened_at) VALUES "
            + "('GATHERING', '{\"title\":\"Old round\",\"people\":[{\"name\":\"Ada Brook\",\"email\":\"ada@example.org\"}],\"items\":[{\"title\":\"Consent\"}]}', 'Old round', 'Please', "
            + "'Europe/London', DATE '2026-06-30', TIME '17:00:00', '{round}', '{person}{ext}', 1, CURRENT_TIMESTAMP, CURRENT_TIMESTAMP, TIMESTAMP WITH TIME ZONE '2026-05-20 08:00:00Z')",
        "INSERT INTO round (state, sheet, title, note, asked_by, created_at, changed_at) VALUES ('DRAFT', '{\"title\":\"Old draft\",\"deadlineDate\":\"someday\",\"peopleText\":\"half a li\"}', "
            + "'Old draft', '', 1, CURRENT_TIMESTAMP, CURRENT_TIMESTAMP)",
        "INSERT INTO checklist_item (round_id, position, title, help, required, min_files, max_files, kinds, max_bytes) VALUES (1, 1, 'Consent', 'Page 4', TRUE, 1, 2, 'PDF', 1000000)",
        "INSERT INTO checklist_item (round_id, position, title, help, required, min_files, max_files, kinds, max_bytes) VALUES (1, 2, 'Map', '', TRUE, 1, 2, '', 1000000)",
        "INSERT INTO basket (round_id, contact_id, walk_in, asked_at, extension_date, extension_reason) VALUES (1, 1, FALSE, CURRENT_TIMESTAMP, DATE '2026-07-05', 'away')",
        "INSERT INTO basket (round_id, contact_id, walk_in, waived_at) VALUES (1, 2, FALSE, TIMESTAMP WITH TIME ZONE '2026-05-25 08:00:00Z')",
        "INSERT INTO basket (round_id, contact_id, walk_in) VALUES (1, 3, TRUE)",
        "INSERT INTO waiver (basket_id, item_id, waived_at) VALUES (1, 2, CURRENT_TIMESTAMP)",
        "INSERT INTO link (round_id, basket_id, token_hash, token_sealed, created_at) VALUES (1, 1, HASH('SHA-256', 'token'), X'00', CURRENT_TIMESTAMP)",
        "INSERT INTO submission (basket_id, link_id, key_hash, receipt_code, started_at) VALUES (1, 1, HASH('SHA-256', 'a'), '%c', CURRENT_TIMESTAMP)",
        "INSERT INTO received_file (upload_id, submission_id, round_id, basket_id, item_id, original_name, stored_path, path_key, size_bytes, sha256, media_type, received_at, review, reviewed_at, "
            + "review_reason) VALUES ('u1', 1, 1, 1, 1, 'scan.pdf', 'Old round/Ada Brook.pdf', 'old round/ada brook.pdf', 3, HASH('SHA-256', 'x'), 'application/pdf', "
            + "TIMESTAMP WITH TIME ZONE '2026-05-22 08:00:00Z', 'RETURNED', TIMESTAMP WITH TIME ZONE '2026-05-23 08:00:00Z', 'Not signed')"};

    @Test
    void nothingOfTheFirstVersionIsLost() throws Exception {
        Path data = RunningApp.freshFolder();
        Files.createDirectories(data.resolve("db"));
        String url = "jdbc:h2:file:" + data.resolve("db").resolve("oak-basket");
        Flyway.configure().dataSource(url, "sa", "").locations("classpath:db/migration").target("001").load().migrate();
        ReceiptCode receipt = ReceiptCode.random(new Random(1));
        String hash = new org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder(4).encode(RunningApp.PASSWORD);
        try (Connection database = DriverManager.getConnection(url, "sa", ""); Statement sql = database.createStatement()) {
            for (String row : FIRST_VERSION) {
                sql.execute(row.replace("'%s'", "'" + hash + "'").replace("%c", receipt.text()));
            }
        }
        try (ConfigurableApplicationContext app = RunningApp.startOn(data)) {
            Http desk = new Http("http://localhost:" + ((ServletWebServerApplicationContext) app).getWebServer().getPort());
            desk.get("/api/session");
            assertThat(desk.post("/api/session", "{\"email\":\"robin@example.org\",\"password\":\"" + RunningApp.PASSWORD + "\"}").status()).isEqualTo(200);
            JsonNode board = desk.get("/api/rounds/1/board").json();
            JsonNode ada = board.path("rows").get(0);
            assertThat(ada.path("name").asString() + ada.path("groups").asString()).isEqualTo("Ada BrookLandowners");
            assertThat(ada.path("deadline").asString()).startsWith("2026-07-05T22:59:59");
            assertThat(ReadTile.of(ada, 0).standing()).isEqualTo("RETURNED");
            assertThat(ReadTile.of(ada, 1).standing()).isEqualTo("WAIVED");
            assertThat(board.path("rows").get(1).path("waived").asBoolean()).isTrue();
            assertThat(board.path("rows").get(2).path("provisional").asBoolean()).isTrue();
            assertThat(board.path("counts").path("walkIns").asInt()).isEqualTo(1);
            assertThat(desk.get("/api/rounds/2/sheet").json().path("sheet").path("peopleText").asString()).isEqualTo("half a li");
            assertThat(desk.get("/api/search?find=" + receipt).json().toString()).contains("Ada Brook");
            assertThat(desk.get("/api/contacts/1").json().path("rounds").get(0).path("files").get(0).path("reviewReason").asString()).isEqualTo("Not signed");

            String act = "{\"kind\":\"PAUSE\",\"on\":true,\"baskets\":[{\"id\":1,\"version\":" + ada.path("version") + "}]}";
            assertThat(desk.post("/api/rounds/1/acts", act).status()).isEqualTo(200);
            JsonNode changing = desk.get("/api/rounds/1/change").json();
            assertThat(changing.path("sheet").path("items")).hasSize(2);
            assertThat(desk.post("/api/rounds/1/change/preview", changing.toString()).json().path("affected")).isEmpty();
            assertThat(desk.post("/api/rounds/1/copy", "").json().path("sheet").path("people").toString()).contains("ada@example.org");
        }
    }
}
