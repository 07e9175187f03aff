package oakbasket.server.storage;

import java.time.Instant;
import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** All SQL of the table known_bytes: what files on the disk held when they were read last, by their marks. */
@Repository
class KnownBytesTable {

    private final JdbcClient jdbc;

    KnownBytesTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    Map<String, byte[]> of(Collection<String> marks) {
        Map<String, byte[]> found = new HashMap<>();
        jdbc.sql("SELECT mark, sha256 FROM known_bytes WHERE mark = ANY(?)").param(marks.toArray(String[]::new)).query((row, n) -> found.put(row.getString("mark"), row.getBytes("sha256"))).list();
        return found;
    }

    void note(String mark, byte[] sha256, Instant at) {
        jdbc.sql("MERGE INTO known_bytes (mark, sha256, noted_at) KEY (mark) VALUES (:mark, :sha256, :at)").param("mark", mark).param("sha256", sha256).param("at", at).update();
    }

    int forgetBefore(Instant at, int most) {
        return jdbc.sql("DELETE FROM known_bytes WHERE mark IN (SELECT mark FROM known_bytes WHERE noted_at < :at FETCH FIRST :most ROWS ONLY)").param("at", at).param("most", most).update();
    }
}
