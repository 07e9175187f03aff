package oakbasket.server.findings;

import java.time.Instant;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import oakbasket.core.naming.ClashNumber;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** All SQL of the tables disk_finding and disk_seen. */
@Repository
class FindingTable {

    /** How a file looked when it was last as it should be. */
    record Seen(long fileId, long sizeBytes, Instant changedAt) {
    }

    private static final String SELECT = "SELECT id, kind, place, file_id, size_bytes, sha256, found_at, left_alone FROM seen_disk_finding disk_finding ";

    private final JdbcClient jdbc;

    FindingTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    List<Finding> all() {
        return jdbc.sql(SELECT + "ORDER BY kind, place").query(Finding.class).list();
    }

    Optional<Finding> byId(long id) {
        return jdbc.sql(SELECT + "WHERE id = :id").param("id", id).query(Finding.class).optional();
    }

    /** How many of some kinds nobody has decided about. */
    int open(Collection<Finding.Kind> kinds) {
        return jdbc.sql("SELECT COUNT(*) FROM seen_disk_finding disk_finding WHERE NOT left_alone AND kind = ANY(?)").param(kinds.stream().map(Finding.Kind::name).toArray(String[]::new)).query(Integer.class).single();
    }

    void put(Finding.Kind kind, String place, @Nullable Long file, long size, byte @Nullable [] sha256, Instant at) {
        jdbc.sql("INSERT INTO disk_finding (kind, place, path_key, file_id, size_bytes, sha256, found_at) VALUES (:kind, :place, :key, :file, :size, :sha, :at)").param("kind", kind.name())
                .param("place", place).param("key", ClashNumber.key(place)).param("file", file).param("size", size).param("sha", sha256).param("at", at).update();
    }

    void remove(long id) {
        jdbc.sql("DELETE FROM disk_finding WHERE id = :id").param("id", id).update();
    }

    void leaveAlone(long id, boolean alone) {
        jdbc.sql("UPDATE disk_finding SET left_alone = :alone WHERE id = :id").param("alone", alone).param("id", id).update();
    }

    Map<Long, Seen> seen() {
        Map<Long, Seen> seen = new HashMap<>();
        jdbc.sql("SELECT file_id, size_bytes, changed_at FROM disk_seen").query(Seen.class).list().forEach(one -> seen.put(one.fileId(), one));
        return seen;
    }

    void see(Seen one) {
        jdbc.sql("MERGE INTO disk_seen (file_id, size_bytes, changed_at) KEY (file_id) VALUES (:file, :size, :at)").param("file", one.fileId()).param("size", one.sizeBytes())
                .param("at", one.changedAt()).update();
    }
}
