package oakbasket.server.held;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** All SQL of the table held_file. */
@Repository
class HeldFileTable {

    private final JdbcClient jdbc;

    HeldFileTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    void insert(HeldFile file) {
        jdbc.sql("""
                INSERT INTO held_file (upload_id, submission_id, round_id, item_id, original_name, size_bytes, sha256, media_type, received_at, found, waits)
                VALUES (:upload, :submission, :round, :item, :name, :size, :sha, :type, :at, :found, :waits)""")
                .param("upload", file.uploadId()).param("submission", file.submissionId()).param("round", file.roundId()).param("item", file.itemId())
                .param("name", file.originalName()).param("size", file.sizeBytes()).param("sha", file.sha256()).param("type", file.mediaType())
                .param("at", file.receivedAt()).param("found", file.found()).param("waits", file.waits()).update();
    }

    Optional<HeldFile> byId(long id) {
        return jdbc.sql("SELECT * FROM seen_held_file held_file WHERE id = :id").param("id", id).query(HeldFile.class).optional();
    }

    boolean lies(String uploadId) {
        return jdbc.sql("SELECT EXISTS (SELECT 1 FROM seen_held_file held_file WHERE upload_id = :upload AND outcome IS NULL)").param("upload", uploadId).query(Boolean.class).single();
    }

    /** What lies there, the newest first. */
    List<HeldFile> lying(int most) {
        return jdbc.sql("SELECT * FROM seen_held_file held_file WHERE outcome IS NULL ORDER BY id DESC FETCH FIRST :most ROWS ONLY").param("most", most).query(HeldFile.class).list();
    }

    /** What waits to be checked, the oldest first. */
    List<HeldFile> waiting() {
        return jdbc.sql("SELECT * FROM seen_held_file held_file WHERE outcome IS NULL AND waits ORDER BY id").query(HeldFile.class).list();
    }

    List<HeldFile> ofSubmission(long submissionId) {
        return jdbc.sql("SELECT * FROM seen_held_file held_file WHERE submission_id = :submission ORDER BY id").param("submission", submissionId).query(HeldFile.class).list();
    }

    List<HeldFile> ofBasket(long basketId) {
        return jdbc.sql("SELECT h.* FROM seen_held_file h JOIN seen_submission s ON s.id = h.submission_id WHERE s.basket_id = :basket ORDER BY h.id").param("basket", basketId)
                .query(HeldFile.class).list();
    }

    List<HeldFile> ownOf(long basketId) {
        return jdbc.sql("""
                SELECT h.* FROM seen_held_file h JOIN seen_submission s ON s.id = h.submission_id
                WHERE s.basket_id = :basket AND (s.claim IS NULL OR s.claim = 'ACCEPTED') ORDER BY h.id""").param("basket", basketId).query(HeldFile.class).list();
    }

    int lyingCount() {
        return jdbc.sql("SELECT COUNT(*) FROM seen_held_file held_file WHERE outcome IS NULL").query(Integer.class).single();
    }

    List<HeldFiles.PerRound> perRound() {
        return jdbc.sql("""
                SELECT h.round_id, r.title AS round, h.waits, COUNT(*) AS files FROM seen_held_file h JOIN seen_round r ON r.id = h.round_id
                WHERE h.outcome IS NULL GROUP BY h.round_id, r.title, h.waits ORDER BY h.round_id, h.waits""").query(HeldFiles.PerRound.class).list();
    }

    /** Says that something was found in what only waited. How many rows changed: 0 when it was settled meanwhile. */
    int condemn(long id, String found) {
        return jdbc.sql("UPDATE held_file SET found = :found, waits = FALSE WHERE id = :id AND outcome IS NULL AND waits").param("found", found).param("id", id).update();
    }

    /** How many rows changed: 0 when it was settled meanwhile. */
    int settle(long id, HeldFile.Outcome outcome, @Nullable Long account, Instant at) {
        return jdbc.sql("UPDATE held_file SET outcome = :outcome, settled_by = :account, settled_at = :at WHERE id = :id AND outcome IS NULL").param("outcome", outcome.name())
                .param("account", account).param("at", at).param("id", id).update();
    }
}
