package oakbasket.server.upload;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** All SQL of the table upload. */
@Repository
class UploadTable {

    private static final String SELECT = """
            SELECT id, submission_id, item_id, file_name, length_bytes, offset_bytes, state, touched_at, metadata FROM upload
            """;

    private final JdbcClient jdbc;

    UploadTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    void insert(String id, long submissionId, long itemId, String fileName, long length, Instant now, String metadata) {
        jdbc.sql("""
                INSERT INTO upload (id, submission_id, item_id, file_name, length_bytes, state, touched_at, metadata)
                VALUES (:id, :submission, :item, :name, :length, 'OPEN', :now, :metadata)""").param("metadata", metadata)
                .param("id", id).param("submission", submissionId).param("item", itemId).param("name", fileName).param("length", length)
                .param("now", now).update();
    }

    /** Gives an upload a row that came whole with its beginning. */
    void insertWhole(String id, long submissionId, long itemId, String fileName, long length, Upload.State state, Instant at) {
        jdbc.sql("""
                INSERT INTO upload (id, submission_id, item_id, file_name, length_bytes, offset_bytes, state, touched_at)
                VALUES (:id, :submission, :item, :name, :length, :length, :state, :at)""").param("state", state.name())
                .param("id", id).param("submission", submissionId).param("item", itemId).param("name", fileName).param("length", length).param("at", at).update();
    }

    Optional<Upload> byId(String id) {
        return jdbc.sql(SELECT + "WHERE id = :id").param("id", id).query(Upload.class).optional();
    }

    /**
     * Uploads of one item of these submissions that arrive or have arrived, but for some.
     *
     * @param filesOnly whether archives are opened and do not count
     */
    int countLive(Collection<Long> submissions, long itemId, Collection<String> butNot, boolean filesOnly) {
        return jdbc.sql("SELECT COUNT(*) FROM upload WHERE submission_id = ANY(?) AND item_id = ? AND state NOT IN ('REFUSED', 'FOUND', 'OPENED') AND NOT (id = ANY(?))"
                + (filesOnly ? " AND LOWER(file_name) NOT LIKE '%.zip'" : "")).param(submissions.toArray(Long[]::new)).param(itemId).param(butNot.toArray(String[]::new)).query(Integer.class).single();
    }

    /** How many rows changed: 0 when the offset was not the expected one. */
    int advance(String id, long expected, long offset, Instant now) {
        return jdbc.sql("UPDATE upload SET offset_bytes = :offset, touched_at = :now WHERE id = :id AND offset_bytes = :expected AND state = 'OPEN'")
                .param("offset", offset).param("now", now).param("id", id).param("expected", expected).update();
    }

    /** How many rows changed: 0 when it was settled already. */
    int finish(String id, Upload.State to) {
        return jdbc.sql("UPDATE upload SET state = :to, offset_bytes = length_bytes WHERE id = :id AND state IN ('OPEN', 'WAITING', 'FOUND')").param("to", to.name())
                .param("id", id).update();
    }

    /** Opens an upload again that says it is done although nothing was recorded of it. */
    int reopen(String id) {
        return jdbc.sql("UPDATE upload SET state = 'OPEN' WHERE id = :id AND state = 'DONE'").param("id", id).update();
    }

    int delete(String id) {
        return jdbc.sql("DELETE FROM upload WHERE id = :id AND state = 'OPEN'").param("id", id).update();
    }

    List<Upload> inState(Upload.State state) {
        return jdbc.sql(SELECT + "WHERE state = :state").param("state", state.name()).query(Upload.class).list();
    }

    List<Upload> untouchedSince(Instant before) {
        return jdbc.sql(SELECT + "WHERE state = 'OPEN' AND touched_at < :before").param("before", before).query(Upload.class).list();
    }
}
