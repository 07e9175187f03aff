package oakbasket.server.decode;

import java.time.Instant;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** All SQL of the table undecodable: contents that ended a child process, which are not tried again. */
@Repository
class UndecodableTable {

    /** Older ones are forgotten, and would cost one more child. */
    private static final int MOST = 20_000;

    private final JdbcClient jdbc;

    UndecodableTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    boolean has(byte[] sha256, String work) {
        return jdbc.sql("SELECT EXISTS (SELECT 1 FROM undecodable WHERE sha256 = :sha256 AND work = :work)").param("sha256", sha256).param("work", work).query(Boolean.class).single();
    }

    void note(byte[] sha256, String work, Instant at) {
        jdbc.sql("MERGE INTO undecodable (sha256, work, noted_at) KEY (sha256, work) VALUES (:sha256, :work, :at)").param("sha256", sha256).param("work", work).param("at", at).update();
        jdbc.sql("DELETE FROM undecodable WHERE noted_at < (SELECT MIN(noted_at) FROM (SELECT noted_at FROM undecodable ORDER BY noted_at DESC FETCH FIRST :most ROWS ONLY))").param("most", MOST).update();
    }
}
