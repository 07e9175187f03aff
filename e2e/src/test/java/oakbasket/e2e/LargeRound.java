package oakbasket.e2e;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.LocalDate;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Makes a round of many baskets and fills it straight in the database, with the application stopped: a hundred thousand real uploads would take longer than
 * everything that is to be looked at. Seven of ten cells get a file, some reviewed; every name, time and count differs.
 */
final class LargeRound {

    private static final JsonMapper JSON = new JsonMapper();
    static final int ITEMS = 12;

    private LargeRound() {
    }

    /** Opens a round of so many people and fills it; the application runs again afterwards. Its id is returned. */
    static long make(PackagedApp app, int people) {
        Api api = new Api(app.url());
        long id = open(api, people);
        app.stop();
        fill(app.data, id);
        app.start();
        return id;
    }

    private static long open(Api api, int people) {
        ObjectNode sheet = JSON.createObjectNode().put("title", "Round of " + people).put("deadlineDate", LocalDate.now().plusDays(20).toString()).put("zone", "Europe/London")
                .put("folderPattern", "{round}/{person}").put("namePattern", "{person} - {item}{ext}");
        ArrayNode steps = sheet.putObject("letters").put("repeatTimes", 3).putArray("steps");
        steps.addObject().put("days", -5).put("unit", "WORKING").put("at", "09:00");
        steps.addObject().put("days", 1).put("unit", "WORKING").put("at", "09:00");
        ArrayNode items = sheet.putArray("items");
        for (int i = 1; i <= ITEMS; i++) {
            items.addObject().put("title", "Document " + i).put("required", i % 4 != 0).put("minFiles", 1).put("maxFiles", 3);
        }
        ArrayNode asked = sheet.putArray("people");
        for (int i = 0; i < people; i++) {
            asked.addObject().put("name", given(i) + " " + family(i)).put("email", given(i).toLowerCase() + "." + family(i).toLowerCase() + i + "@example.org");
        }
        long id = Api.json(api.post("/api/rounds", sheet.toString())).path("head").path("id").asLong();
        if (api.post("/api/rounds/" + id + "/open", "{\"version\":1}").statusCode() != 204) {
            throw new IllegalStateException("The round did not open");
        }
        return id;
    }

    private static void fill(Path data, long round) {
        String url = "jdbc:h2:file:" + data.toAbsolutePath().resolve("db").resolve("oak-basket");
        try (Connection database = DriverManager.getConnection(url, "sa", ""); Statement sql = database.createStatement()) {
            sql.execute("UPDATE round SET opened_at = DATEADD(DAY, -12, CURRENT_TIMESTAMP) WHERE id = " + round);
            sql.execute("UPDATE basket SET asked_at = DATEADD(DAY, -12, CURRENT_TIMESTAMP), opened_at = CASE WHEN MOD(id, 5) > 0 THEN DATEADD(MINUTE, MOD(id * 37, 9000), "
                    + "DATEADD(DAY, -11, CURRENT_TIMESTAMP)) END WHERE round_id = " + round);
            sql.execute("INSERT INTO submission (basket_id, link_id, key_hash, receipt_code, started_at, finished_at) SELECT b.id, l.id, HASH('SHA-256', 'submission ' || b.id), "
                    + "LPAD(CAST(b.id AS VARCHAR), 12, 'A'), CURRENT_TIMESTAMP, CURRENT_TIMESTAMP FROM basket b JOIN link l ON l.basket_id = b.id WHERE b.round_id = " + round);
            sql.execute("""
                    INSERT INTO received_file (upload_id, submission_id, round_id, basket_id, item_id, original_name, stored_path, path_key, size_bytes, sha256, media_type,
                        received_at, review, reviewed_at)
                    SELECT LPAD(CAST(b.id * 100 + i.position AS VARCHAR), 32, '0'), s.id, b.round_id, b.id, i.id, 'scan.pdf', 'x/' || b.id || '/' || i.id, 'x/' || b.id || '/' || i.id,
                        1000, HASH('SHA-256', CAST(b.id * 100 + i.position AS VARCHAR)), 'application/pdf', DATEADD(SECOND, MOD(b.id * 7919 + i.position * 104729, 900000), DATEADD(DAY, -11, CURRENT_TIMESTAMP)),
                        CASE MOD(b.id + i.position, 3) WHEN 0 THEN 'ACCEPTED' WHEN 1 THEN CASE WHEN MOD(b.id, 7) = 0 THEN 'RETURNED' ELSE 'NONE' END ELSE 'NONE' END,
                        CASE WHEN MOD(b.id + i.position, 3) = 0 OR MOD(b.id + i.position, 3) = 1 AND MOD(b.id, 7) = 0 THEN DATEADD(HOUR, -3, CURRENT_TIMESTAMP) END
                    FROM basket b JOIN submission s ON s.basket_id = b.id JOIN checklist_item i ON i.round_id = b.round_id
                    WHERE MOD(b.id * 31 + i.position * 17, 10) < 7 AND b.round_id =\s""" + round);
            sql.execute("UPDATE submission s SET files = (SELECT COUNT(*) FROM received_file f WHERE f.submission_id = s.id), "
                    + "bytes = (SELECT COALESCE(SUM(size_bytes), 0) FROM received_file f WHERE f.submission_id = s.id), "
                    + "last_file_at = (SELECT MAX(received_at) FROM received_file f WHERE f.submission_id = s.id)");
            sql.execute("INSERT INTO letter (contact_id, kind, state, batch, made_at, not_before, settled_at, to_address) SELECT contact_id, 'INVITATION', 'SENT', id, asked_at, asked_at, "
                    + "DATEADD(SECOND, MOD(id, 3000), asked_at), '' FROM basket WHERE round_id = " + round);
            sql.execute("INSERT INTO letter_basket (letter_id, basket_id, round_id) SELECT l.id, b.id, b.round_id FROM basket b JOIN letter l ON l.batch = b.id AND l.contact_id = b.contact_id "
                    + "WHERE b.round_id = " + round);
        } catch (SQLException problem) {
            throw new IllegalStateException(problem);
        }
    }

    private static String given(int n) {
        String[] names = {"Ada", "Ben", "Cerys", "Dilys", "Edwin", "Fern", "Gwen", "Hugh", "Iris", "Jory", "Kit", "Lowen", "Mabon", "Nest", "Olwen", "Perran"};
        return names[n % names.length];
    }

    private static String family(int n) {
        String[] names = {"Alder", "Brook", "Copse", "Dale", "Elder", "Ford", "Grove", "Heath", "Isles", "Lock", "Mere", "Nook", "Orchard", "Pool", "Reed", "Sallow", "Thorn", "Weir", "Yarrow"};
        return names[(n / 16) % names.length] + (n < 304 ? "" : Character.toString((char) ('a' + n % 23)) + (char) ('a' + n / 7 % 23));
    }
}
