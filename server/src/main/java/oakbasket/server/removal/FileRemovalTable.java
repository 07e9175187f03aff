package oakbasket.server.removal;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import oakbasket.server.storage.IdChunks;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** All SQL of the table file_removal. */
@Repository
class FileRemovalTable {

    private static final String SELECT = "SELECT id, file_id, path, reason, removed_at, removed_by, restored_at, restored_by FROM seen_file_removal file_removal ";

    private final JdbcClient jdbc;

    FileRemovalTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    void insert(long file, String path, String reason, long account, Instant now) {
        jdbc.sql("INSERT INTO file_removal (file_id, path, reason, removed_at, removed_by) VALUES (:file, :path, :reason, :now, :account)")
                .param("file", file).param("path", path).param("reason", reason).param("now", now).param("account", account).update();
    }

    /** The removal that keeps a file out; none when it is not out, or destroyed. */
    Optional<FileRemoval> standing(long file) {
        return jdbc.sql(SELECT + "WHERE file_id = :file AND restored_at IS NULL AND NOT EXISTS (SELECT 1 FROM seen_removed_file f WHERE f.id = file_id AND f.purged_at IS NOT NULL)").param("file", file).query(FileRemoval.class).optional();
    }

    /** How many rows changed: 0 when it was put back meanwhile. */
    int restore(long id, long account, Instant now) {
        return jdbc.sql("UPDATE file_removal SET restored_at = :now, restored_by = :account WHERE id = :id AND restored_at IS NULL").param("now", now)
                .param("account", account).param("id", id).update();
    }

    private static final String BIN = """
            SELECT r.id, r.file_id, r.path, r.reason, r.removed_at, r.removed_by, f.round_id, f.basket_id, f.item_id, f.size_bytes
            FROM seen_file_removal r JOIN seen_removed_file f ON f.id = r.file_id WHERE r.restored_at IS NULL AND f.purged_at IS NULL
            """;

    /** What lies in the bin, the newest first. */
    List<Binned> bin() {
        return jdbc.sql(BIN + "ORDER BY r.id DESC FETCH FIRST 1000 ROWS ONLY").query(Binned.class).list();
    }

    List<Binned> due(Instant before) {
        return jdbc.sql(BIN + "AND r.removed_at < :before ORDER BY r.id").param("before", before).query(Binned.class).list();
    }

    /** Every removal of these files, the oldest first. */
    List<FileRemoval> ofFiles(Collection<Long> files) {
        return IdChunks.ask(files, some -> jdbc.sql(SELECT + "WHERE file_id = ANY(?) ORDER BY id").param(some).query(FileRemoval.class).list());
    }
}
