package oakbasket.server.loose;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import oakbasket.server.storage.Known;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;

/** All SQL of the table loose_file. */
@Repository
class LooseTable {

    private static final String SELECT = """
            SELECT id, upload_id, came_by, found_at, file_name, size_bytes, sha256, media_type, unchecked, came_at, account_id, state, submission_id, file_id, from_address, basket_hint FROM loose_file
            """;

    private final JdbcClient jdbc;

    LooseTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    long insert(LooseFile file) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                INSERT INTO loose_file (upload_id, came_by, found_at, file_name, size_bytes, sha256, media_type, unchecked, came_at, account_id, state, from_address, basket_hint)
                VALUES (:upload, :way, :found, :name, :size, :sha, :type, :unchecked, :at, :account, 'OPEN', :from, :hint)""").param("from", file.fromAddress()).param("hint", file.basketHint()).param("upload", file.uploadId()).param("way", file.cameBy().name())
                .param("found", file.foundAt()).param("name", file.fileName()).param("size", file.sizeBytes()).param("sha", file.sha256()).param("type", file.mediaType())
                .param("unchecked", file.unchecked()).param("at", file.cameAt()).param("account", file.accountId()).update(key, "id");
        return Known.id(key);
    }

    List<LooseFile> inState(LooseFile.State state, int most) {
        return jdbc.sql(SELECT + "WHERE state = :state ORDER BY id FETCH FIRST :most ROWS ONLY").param("state", state.name()).param("most", most).query(LooseFile.class).list();
    }

    int count(LooseFile.State state) {
        return jdbc.sql("SELECT COUNT(*) FROM loose_file WHERE state = :state").param("state", state.name()).query(Integer.class).single();
    }

    Optional<LooseFile> byId(long id) {
        return jdbc.sql(SELECT + "WHERE id = :id").param("id", id).query(LooseFile.class).optional();
    }

    Optional<LooseFile> byUpload(String uploadId) {
        return jdbc.sql(SELECT + "WHERE upload_id = :upload").param("upload", uploadId).query(LooseFile.class).optional();
    }

    boolean knows(String uploadId) {
        return jdbc.sql("SELECT EXISTS (SELECT 1 FROM loose_file WHERE upload_id = :upload AND state <> 'FILED')").param("upload", uploadId).query(Boolean.class).single();
    }

    /** How many rows changed: 0 when somebody was faster. */
    int turn(long id, LooseFile.State from, LooseFile.State to, @Nullable Instant at, @Nullable Long account) {
        return jdbc.sql("UPDATE loose_file SET state = :to, settled_at = :at, settled_by = :account WHERE id = :id AND state = :from").param("to", to.name())
                .param("at", at, java.sql.Types.TIMESTAMP_WITH_TIMEZONE).param("account", account).param("id", id).param("from", from.name()).update();
    }

    void filed(long id, long submission, long file) {
        jdbc.sql("UPDATE loose_file SET state = 'FILED', submission_id = :submission, file_id = :file WHERE id = :id").param("submission", submission).param("file", file).param("id", id).update();
    }

    int back(long id, String uploadId) {
        return jdbc.sql("UPDATE loose_file SET state = 'OPEN', upload_id = :upload, submission_id = NULL, file_id = NULL, settled_at = NULL, settled_by = NULL WHERE id = :id AND state = 'FILED'")
                .param("upload", uploadId).param("id", id).update();
    }

    /** What was taken out before an instant. */
    List<LooseFile> outBefore(Instant before) {
        return jdbc.sql(SELECT + "WHERE state = 'OUT' AND settled_at < :before").param("before", before).query(LooseFile.class).list();
    }

    void remove(long id) {
        jdbc.sql("DELETE FROM loose_file WHERE id = :id").param("id", id).update();
    }
}
