package oakbasket.server.retention;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** All SQL of the table retention_hold. */
@Repository
class HoldTable {

    private static final String SELECT = "SELECT id, round_id, reason, held_at, held_by FROM seen_retention_hold retention_hold WHERE released_at IS NULL ";

    private final JdbcClient jdbc;

    HoldTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    List<Hold> standing() {
        return jdbc.sql(SELECT + "ORDER BY id").query(Hold.class).list();
    }

    Optional<Hold> of(long round) {
        return jdbc.sql(SELECT + "AND round_id = :round ORDER BY id FETCH FIRST ROW ONLY").param("round", round).query(Hold.class).optional();
    }

    void insert(long round, String reason, Instant at, long account) {
        jdbc.sql("INSERT INTO retention_hold (round_id, reason, held_at, held_by) VALUES (:round, :reason, :at, :account)").param("round", round).param("reason", reason).param("at", at)
                .param("account", account).update();
    }

    /** How many rows changed: 0 when none stood. */
    int release(long round, Instant at, long account) {
        return jdbc.sql("UPDATE retention_hold SET released_at = :at, released_by = :account WHERE round_id = :round AND released_at IS NULL").param("at", at).param("account", account)
                .param("round", round).update();
    }
}
