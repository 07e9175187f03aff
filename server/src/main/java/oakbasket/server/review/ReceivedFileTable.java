package oakbasket.server.review;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import oakbasket.core.standing.Review;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** All SQL of the table received_file. */
@Repository
class ReceivedFileTable {

    private static final String SELECT = """
            SELECT id, submission_id, round_id, basket_id, item_id, original_name, stored_path, size_bytes, sha256, media_type, received_at,
                   review, reviewed_at, review_reason
            FROM received_file
            """;

    private final JdbcClient jdbc;

    ReceivedFileTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    void insert(NewFile file, String pathKey) {
        jdbc.sql("""
                INSERT INTO received_file (upload_id, submission_id, round_id, basket_id, item_id, original_name, stored_path, path_key, size_bytes,
                    sha256, media_type, received_at)
                VALUES (:upload, :submission, :round, :basket, :item, :name, :path, :key, :size, :sha, :type, :at)""")
                .param("upload", file.uploadId()).param("submission", file.submissionId()).param("round", file.roundId())
                .param("basket", file.basketId()).param("item", file.itemId()).param("name", file.originalName()).param("path", file.storedPath())
                .param("key", pathKey).param("size", file.sizeBytes()).param("sha", file.sha256()).param("type", file.mediaType())
                .param("at", file.receivedAt()).update();
    }

    boolean pathTaken(String pathKey) {
        return jdbc.sql("SELECT EXISTS (SELECT 1 FROM received_file WHERE path_key = :key)").param("key", pathKey).query(Boolean.class).single();
    }

    Optional<ReceivedFile> byId(long id) {
        return jdbc.sql(SELECT + "WHERE id = :id").param("id", id).query(ReceivedFile.class).optional();
    }

    List<ReceivedFile> byIds(Collection<Long> ids) {
        return jdbc.sql(SELECT + "WHERE id = ANY(?) ORDER BY stored_path").param(ids.toArray(Long[]::new)).query(ReceivedFile.class).list();
    }

    List<ReceivedFile> ofRound(long roundId) {
        return jdbc.sql(SELECT + "WHERE round_id = :round ORDER BY received_at, id").param("round", roundId).query(ReceivedFile.class).list();
    }

    List<ReceivedFile> ofBasket(long basketId) {
        return jdbc.sql(SELECT + "WHERE basket_id = :basket ORDER BY received_at, id").param("basket", basketId).query(ReceivedFile.class).list();
    }

    List<ReceivedFile> ofSubmission(long submissionId) {
        return jdbc.sql(SELECT + "WHERE submission_id = :submission ORDER BY received_at, id").param("submission", submissionId)
                .query(ReceivedFile.class).list();
    }

    List<ReceivedFile> since(Instant since, int most) {
        return jdbc.sql(SELECT + "WHERE received_at > :since ORDER BY received_at DESC, id DESC FETCH FIRST :most ROWS ONLY")
                .param("since", since).param("most", most).query(ReceivedFile.class).list();
    }

    boolean receivedBy(String uploadId) {
        return jdbc.sql("SELECT EXISTS (SELECT 1 FROM received_file WHERE upload_id = :upload)").param("upload", uploadId).query(Boolean.class).single();
    }

    boolean anyOfSubmission(long submissionId) {
        return jdbc.sql("SELECT EXISTS (SELECT 1 FROM received_file WHERE submission_id = :submission)").param("submission", submissionId)
                .query(Boolean.class).single();
    }

    int countKeptFromOthers(long basketId, long itemId, long submissionId) {
        return jdbc.sql("""
                SELECT COUNT(*) FROM received_file
                WHERE basket_id = :basket AND item_id = :item AND review <> 'RETURNED' AND submission_id <> :submission""")
                .param("basket", basketId).param("item", itemId).param("submission", submissionId).query(Integer.class).single();
    }

    int countOfItem(long basketId, long itemId) {
        return jdbc.sql("SELECT COUNT(*) FROM received_file WHERE basket_id = :basket AND item_id = :item").param("basket", basketId)
                .param("item", itemId).query(Integer.class).single();
    }

    /** How many rows changed: 0 when the review was another meanwhile. */
    int review(long id, Review from, Review to, String reason, Instant at) {
        return jdbc.sql("UPDATE received_file SET review = :to, reviewed_at = :at, review_reason = :reason WHERE id = :id AND review = :from")
                .param("to", to.name()).param("at", to == Review.NONE ? null : at).param("reason", reason).param("id", id)
                .param("from", from.name()).update();
    }
}
