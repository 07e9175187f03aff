package oakbasket.server.tray;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import oakbasket.server.storage.Known;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import tools.jackson.databind.json.JsonMapper;

/** All SQL of the table tray_act. */
@Repository
class TrayTable {

    /** A file as it was before a decision. */
    record FileBefore(long file, long basket, long item, boolean inTray, boolean assigned) {
    }

    /**
     * What one decision changed.
     *
     * @param senders the sendings whose sender was looked at
     * @param round whose rules got a rule; null when none did
     * @param rulesBefore the version of those rules before
     */
    record Before(List<FileBefore> files, List<Long> senders, @Nullable Long round, int rulesBefore, int rulesAfter) {
    }

    private final JdbcClient jdbc;
    private final JsonMapper json;

    TrayTable(JdbcClient jdbc, JsonMapper json) {
        this.jdbc = jdbc;
        this.json = json;
    }

    long insert(Instant at, long account, Before before) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("INSERT INTO tray_act (at, account_id, before) VALUES (:at, :account, :before)").param("at", at).param("account", account).param("before", json.writeValueAsString(before)).update(key, "id");
        return Known.id(key);
    }

    Optional<Before> standing(long id) {
        return jdbc.sql("SELECT before FROM tray_act WHERE id = :id AND undone_at IS NULL").param("id", id).query(String.class).optional().map(text -> json.readValue(text, Before.class));
    }

    int undo(long id, Instant at) {
        return jdbc.sql("UPDATE tray_act SET undone_at = :at WHERE id = :id AND undone_at IS NULL").param("at", at).param("id", id).update();
    }
}
