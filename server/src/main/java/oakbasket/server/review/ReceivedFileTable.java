package oakbasket.server.review;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import oakbasket.core.naming.Folded;
import oakbasket.core.standing.FileFact;
import oakbasket.core.standing.Review;
import oakbasket.server.storage.IdChunks;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** All SQL of the tables received_file and removed_file. */
@Repository
class ReceivedFileTable {

    private static final String SELECT = """
            SELECT id, submission_id, round_id, basket_id, item_id, original_name, stored_path, size_bytes, sha256, media_type, received_at,
                   review, reviewed_at, review_reason, kept_apart, unchecked, opened, in_tray, tray_decided, assigned, other_path, purged_at
            FROM seen_received_file received_file
            """;

    /** Everything that a removed file keeps. */
    private static final String ALL = """
            id, upload_id, submission_id, round_id, basket_id, item_id, original_name, stored_path, path_key, size_bytes, sha256, media_type, received_at, review, reviewed_at,
            review_reason, kept_apart, unchecked, opened, in_tray, tray_decided, assigned, purged_at, purging""";

    private final JdbcClient jdbc;

    ReceivedFileTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    void insert(NewFile file, String pathKey) {
        jdbc.sql("""
                INSERT INTO received_file (upload_id, submission_id, round_id, basket_id, item_id, original_name, stored_path, path_key, size_bytes,
                    sha256, media_type, received_at, kept_apart, unchecked, opened)
                VALUES (:upload, :submission, :round, :basket, :item, :name, :path, :key, :size, :sha, :type, :at, :apart, :unchecked, :opened)""")
                .param("upload", file.uploadId()).param("submission", file.submissionId()).param("round", file.roundId())
                .param("basket", file.basketId()).param("item", file.itemId()).param("name", file.originalName()).param("path", file.storedPath())
                .param("key", pathKey).param("size", file.sizeBytes()).param("sha", file.sha256()).param("type", file.mediaType())
                .param("at", file.receivedAt()).param("apart", file.keptApart()).param("unchecked", file.unchecked()).param("opened", file.opened()).update();
    }

    boolean pathTaken(String pathKey) {
        return jdbc.sql("SELECT EXISTS (SELECT 1 FROM seen_received_file received_file WHERE path_key = :key UNION ALL SELECT 1 FROM seen_removed_file removed_file WHERE path_key = :key)").param("key", pathKey).query(Boolean.class).single();
    }

    Optional<ReceivedFile> byId(long id) {
        return jdbc.sql(SELECT + "WHERE id = :id").param("id", id).query(ReceivedFile.class).optional();
    }

    List<ReceivedFile> byIds(Collection<Long> ids) {
        return IdChunks.ask(ids, some -> jdbc.sql(SELECT + "WHERE id = ANY(?)").param(some).query(ReceivedFile.class).list()).stream()
                .sorted(Comparator.comparing(ReceivedFile::storedPath)).toList();
    }

    List<ReceivedFiles.TopFolder> topFolders() {
        return jdbc.sql("SELECT DISTINCT round_id, SUBSTRING(stored_path FROM 1 FOR LOCATE('/', stored_path) - 1) AS name FROM seen_received_file received_file WHERE LOCATE('/', stored_path) > 1 AND stored_path NOT LIKE ':%'")
                .query(ReceivedFiles.TopFolder.class).list();
    }

    List<ReceivedFile> ofRound(long roundId) {
        return jdbc.sql(SELECT + "WHERE round_id = :round ORDER BY received_at, id").param("round", roundId).query(ReceivedFile.class).list();
    }

    List<ReceivedFile> ofBasket(long basketId) {
        return jdbc.sql(SELECT + "WHERE basket_id = :basket ORDER BY received_at, id").param("basket", basketId).query(ReceivedFile.class).list();
    }

    List<ReceivedFile> ofBaskets(Collection<Long> basketIds) {
        return IdChunks.ask(basketIds, some -> jdbc.sql(SELECT + "WHERE basket_id = ANY(?) ORDER BY received_at, id").param(some).query(ReceivedFile.class).list());
    }

    /** What the rules need of all files of a round, by basket, the oldest first. */
    Map<Long, List<ReceivedFiles.ItemFact>> factsOfRound(long roundId) {
        return facts("round_id = ?", roundId);
    }

    Map<Long, List<ReceivedFiles.ItemFact>> factsOfBaskets(Collection<Long> basketIds) {
        return facts("basket_id = ANY(?)", (Object) basketIds.toArray(Long[]::new));
    }

    private Map<Long, List<ReceivedFiles.ItemFact>> facts(String where, Object parameter) {
        Map<Long, List<ReceivedFiles.ItemFact>> facts = new HashMap<>();
        jdbc.sql("SELECT basket_id, item_id, received_at, review, reviewed_at, kept_apart FROM seen_received_file received_file WHERE NOT opened AND " + where + " ORDER BY received_at, id").param(parameter).query(row -> {
            FileFact fact = new FileFact(row.getObject(3, Instant.class), Review.valueOf(row.getString(4)), row.getObject(5, Instant.class), row.getBoolean(6));
            facts.computeIfAbsent(row.getLong(1), id -> new ArrayList<>()).add(new ReceivedFiles.ItemFact(row.getLong(2), fact));
        });
        return facts;
    }

    /** The files of a round that wait for review, the oldest first. */
    List<ReceivedFile> toCheck(long roundId) {
        return jdbc.sql(SELECT + "WHERE round_id = :round AND review = 'NONE' AND NOT opened ORDER BY received_at, id").param("round", roundId).query(ReceivedFile.class).list();
    }

    /** The first files with the content of each, by hash; of all rounds. */
    List<ReceivedFile> firstOf(Collection<byte[]> hashes) {
        return jdbc.sql(SELECT + "WHERE id IN (SELECT MIN(id) FROM seen_received_file received_file WHERE sha256 = ANY(?) GROUP BY sha256)").param(hashes.toArray(byte[][]::new)).query(ReceivedFile.class).list();
    }

    /** Files whose name holds these words, the newest first. */
    List<ReceivedFile> named(String words, int most) {
        String pattern = "%" + Folded.of(words).replace("!", "!!").replace("%", "!%").replace("_", "!_") + "%";
        return jdbc.sql(SELECT + "WHERE FOLDED(stored_path) LIKE :pattern ESCAPE '!' OR FOLDED(original_name) LIKE :pattern ESCAPE '!' ORDER BY id DESC FETCH FIRST :most ROWS ONLY")
                .param("pattern", pattern).param("most", most).query(ReceivedFile.class).list();
    }

    /** The reasons given most for returning files. */
    List<String> reasons(int most) {
        return jdbc.sql("SELECT review_reason FROM seen_received_file received_file WHERE review = 'RETURNED' GROUP BY review_reason ORDER BY COUNT(*) DESC, review_reason FETCH FIRST :most ROWS ONLY")
                .param("most", most).query(String.class).list();
    }

    /** Files of these submissions that were sent back, and so give their places free. */
    int countReturned(Collection<Long> submissions, long itemId) {
        return jdbc.sql("SELECT COUNT(*) FROM seen_received_file received_file WHERE submission_id = ANY(?) AND item_id = ? AND review = 'RETURNED'").param(submissions.toArray(Long[]::new))
                .param(itemId).query(Integer.class).single();
    }

    void keepApart(long submissionId, boolean apart) {
        jdbc.sql("UPDATE received_file SET kept_apart = :apart WHERE submission_id = :submission").param("apart", apart).param("submission", submissionId).update();
        jdbc.sql("UPDATE removed_file SET kept_apart = :apart WHERE submission_id = :submission").param("apart", apart).param("submission", submissionId).update();
    }

    /** Notes where a file is about to move to. How many rows changed: 0 when it moves already or is elsewhere. */
    int beginMove(long id, String from, String to) {
        return jdbc.sql("UPDATE received_file SET other_path = :to WHERE id = :id AND stored_path = :from AND other_path IS NULL").param("to", to).param("from", from)
                .param("id", id).update();
    }

    /** Exchanges the place of a file with the other one it has. */
    void swapPlaces(long id, String to, String pathKey, String from) {
        jdbc.sql("UPDATE received_file SET stored_path = :to, path_key = :key, other_path = :from WHERE id = :id").param("to", to).param("key", pathKey)
                .param("from", from).param("id", id).update();
    }

    void endMove(long id) {
        jdbc.sql("UPDATE received_file SET other_path = NULL WHERE id = :id").param("id", id).update();
    }

    void tray(long id, boolean there) {
        jdbc.sql("UPDATE received_file SET in_tray = :there WHERE id = :id AND in_tray <> :there").param("there", there).param("id", id).update();
    }

    List<ReceivedFile> inTray(int most) {
        return jdbc.sql(SELECT + "WHERE in_tray AND NOT kept_apart AND purged_at IS NULL ORDER BY received_at, id FETCH FIRST :most ROWS ONLY").param("most", most).query(ReceivedFile.class).list();
    }

    /** How many rows changed: 0 when somebody decided meanwhile. */
    int decide(long id, long fromBasket, long fromItem, boolean inTray, long basket, long item, boolean assigned) {
        return jdbc.sql("""
                UPDATE received_file SET basket_id = :basket, item_id = :item, assigned = :assigned, tray_decided = TRUE, in_tray = FALSE
                WHERE id = :id AND basket_id = :fromBasket AND item_id = :fromItem AND in_tray = :inTray""").param("inTray", inTray).param("basket", basket).param("item", item).param("assigned", assigned).param("id", id)
                .param("fromBasket", fromBasket).param("fromItem", fromItem).update();
    }

    void undecide(long id, long basket, long item, boolean assigned) {
        jdbc.sql("UPDATE received_file SET basket_id = :basket, item_id = :item, assigned = :assigned, tray_decided = FALSE WHERE id = :id").param("basket", basket).param("item", item)
                .param("assigned", assigned).param("id", id).update();
    }

    List<Long> assignedTo(long basket) {
        return jdbc.sql("SELECT id FROM seen_received_file received_file WHERE basket_id = :basket AND assigned UNION ALL SELECT id FROM seen_removed_file removed_file WHERE basket_id = :basket AND assigned").param("basket", basket)
                .query(Long.class).list();
    }

    void give(List<Long> ids, long basket) {
        jdbc.sql("UPDATE received_file SET basket_id = ? WHERE id = ANY(?)").param(basket).param(ids.toArray(Long[]::new)).update();
        jdbc.sql("UPDATE removed_file SET basket_id = ? WHERE id = ANY(?)").param(basket).param(ids.toArray(Long[]::new)).update();
    }

    Optional<Long> idOf(String uploadId) {
        return jdbc.sql("SELECT id FROM seen_received_file received_file WHERE upload_id = :upload").param("upload", uploadId).query(Long.class).optional();
    }

    List<ReceivedFile> moving() {
        return jdbc.sql(SELECT + "WHERE other_path IS NOT NULL").query(ReceivedFile.class).list();
    }

    Map<Long, Integer> countsOf(Collection<Long> itemIds) {
        Map<Long, Integer> counts = new LinkedHashMap<>();
        jdbc.sql("""
                SELECT item_id, COUNT(*) FROM (SELECT item_id FROM seen_received_file received_file WHERE item_id = ANY(?) UNION ALL SELECT item_id FROM seen_removed_file removed_file WHERE item_id = ANY(?))
                GROUP BY item_id ORDER BY item_id""").param(itemIds.toArray(Long[]::new)).param(itemIds.toArray(Long[]::new))
                .query(row -> {
                    counts.put(row.getLong(1), row.getInt(2));
                });
        return counts;
    }

    void move(List<Long> submissions, long basketId) {
        Long[] ids = submissions.toArray(Long[]::new);
        jdbc.sql("UPDATE received_file SET basket_id = ? WHERE submission_id = ANY(?) AND NOT assigned").param(basketId).param(ids).update();
        jdbc.sql("UPDATE removed_file SET basket_id = ? WHERE submission_id = ANY(?) AND NOT assigned").param(basketId).param(ids).update();
    }

    List<ReceivedFile> ofSubmission(long submissionId) {
        return jdbc.sql(SELECT + "WHERE submission_id = :submission ORDER BY received_at, id").param("submission", submissionId)
                .query(ReceivedFile.class).list();
    }

    List<ReceivedFile> since(Instant since, int most) {
        return jdbc.sql(SELECT + "WHERE received_at > :since ORDER BY received_at DESC, id DESC FETCH FIRST :most ROWS ONLY")
                .param("since", since).param("most", most).query(ReceivedFile.class).list();
    }

    long newestId() {
        return jdbc.sql("SELECT COALESCE(MAX(id), 0) FROM seen_received_file received_file").query(Long.class).single();
    }

    List<ReceivedFile> between(long after, long upTo, int most) {
        return jdbc.sql(SELECT + "WHERE id > :after AND id <= :upTo ORDER BY id FETCH FIRST :most ROWS ONLY").param("after", after).param("upTo", upTo).param("most", most).query(ReceivedFile.class).list();
    }

    boolean receivedBy(String uploadId) {
        return jdbc.sql("SELECT EXISTS (SELECT 1 FROM seen_received_file received_file WHERE upload_id = :upload UNION ALL SELECT 1 FROM seen_removed_file removed_file WHERE upload_id = :upload)").param("upload", uploadId).query(Boolean.class).single();
    }

    /** Also of files that were taken out since: they were received. */
    boolean receivedWith(long submissionId, byte[] sha256) {
        return jdbc.sql("""
                SELECT EXISTS (SELECT 1 FROM seen_received_file received_file WHERE submission_id = :submission AND sha256 = :hash
                    UNION ALL SELECT 1 FROM seen_removed_file removed_file WHERE submission_id = :submission AND sha256 = :hash)""").param("submission", submissionId).param("hash", sha256)
                .query(Boolean.class).single();
    }

    /** Also of a file that was taken out since. */
    boolean receivedAs(long submissionId, long itemId, String name, byte[] sha256) {
        return jdbc.sql("""
                SELECT EXISTS (SELECT 1 FROM seen_received_file received_file WHERE submission_id = :submission AND item_id = :item AND original_name = :name AND sha256 = :hash
                    UNION ALL SELECT 1 FROM seen_removed_file removed_file WHERE submission_id = :submission AND item_id = :item AND original_name = :name AND sha256 = :hash)""")
                .param("submission", submissionId).param("item", itemId).param("name", name).param("hash", sha256).query(Boolean.class).single();
    }

    int countKeptFromOthers(long basketId, long itemId, long submissionId) {
        return jdbc.sql("""
                SELECT COUNT(*) FROM seen_received_file received_file
                WHERE basket_id = :basket AND item_id = :item AND review <> 'RETURNED' AND submission_id <> :submission AND NOT kept_apart AND NOT opened""")
                .param("basket", basketId).param("item", itemId).param("submission", submissionId).query(Integer.class).single();
    }

    int countOfItem(long basketId, long itemId) {
        return jdbc.sql("SELECT COUNT(*) FROM seen_received_file received_file WHERE basket_id = :basket AND item_id = :item").param("basket", basketId)
                .param("item", itemId).query(Integer.class).single();
    }

    /** The how-manieth of its item in its basket it is, from 1. */
    int rankOf(long basketId, long itemId, Instant at, long id) {
        return jdbc.sql("SELECT COUNT(*) + 1 FROM seen_received_file received_file WHERE basket_id = :basket AND item_id = :item AND (received_at < :at OR received_at = :at AND id < :id)").param("basket", basketId)
                .param("item", itemId).param("at", at).param("id", id).query(Integer.class).single();
    }

    /** Every file that lies somewhere and does not move. */
    List<ReceivedFile> resting() {
        return jdbc.sql(SELECT + "WHERE other_path IS NULL AND purged_at IS NULL ORDER BY id").query(ReceivedFile.class).list();
    }

    List<String> everyKey() {
        return jdbc.sql("SELECT path_key FROM seen_received_file received_file UNION ALL SELECT path_key FROM seen_removed_file removed_file").query(String.class).list();
    }

    /** How many rows changed: 0 when it is elsewhere or moves. */
    int relocate(long id, String from, String to, String pathKey) {
        return jdbc.sql("UPDATE received_file SET stored_path = :to, path_key = :key WHERE id = :id AND stored_path = :from AND other_path IS NULL").param("to", to).param("key", pathKey)
                .param("id", id).param("from", from).update();
    }

    void alter(long id, byte[] sha256, long size) {
        jdbc.sql("UPDATE received_file SET sha256 = :sha, size_bytes = :size WHERE id = :id").param("sha", sha256).param("size", size).param("id", id).update();
    }

    /** What is destroyed gives its place free. How many rows changed: 0 when it moves, or is destroyed already. */
    int beginPurge(String table, long id, String freed, Instant at) {
        return jdbc.sql("UPDATE " + table + " SET purged_at = :at, purging = TRUE, path_key = :key WHERE id = :id AND purged_at IS NULL" + (table.equals("received_file") ? " AND other_path IS NULL" : ""))
                .param("at", at).param("key", freed).param("id", id).update();
    }

    void endPurge(String table, long id) {
        jdbc.sql("UPDATE " + table + " SET purging = FALSE WHERE id = :id").param("id", id).update();
    }

    List<ReceivedFiles.Purging> purging() {
        return jdbc.sql("SELECT id, stored_path AS place, FALSE AS removed FROM seen_received_file received_file WHERE purging UNION ALL SELECT id, stored_path AS place, TRUE AS removed FROM seen_removed_file removed_file WHERE purging")
                .query(ReceivedFiles.Purging.class).list();
    }

    List<ReceivedFiles.Kept> keptOf(long round) {
        return jdbc.sql("""
                SELECT id, stored_path AS place, original_name, size_bytes, sha256, received_at, purged_at, FALSE AS removed FROM seen_received_file received_file WHERE round_id = :round
                UNION ALL SELECT id, stored_path AS place, original_name, size_bytes, sha256, received_at, purged_at, TRUE AS removed FROM seen_removed_file removed_file WHERE round_id = :round
                ORDER BY id""").param("round", round).query(ReceivedFiles.Kept.class).list();
    }

    List<ReceivedFile> atPlaces(Collection<String> keys) {
        return jdbc.sql(SELECT + "WHERE path_key = ANY(?)").param(keys.toArray(String[]::new)).query(ReceivedFile.class).list();
    }

    List<ReceivedFile> below(String folder) {
        return jdbc.sql(SELECT + "WHERE purged_at IS NULL AND stored_path LIKE :folder ESCAPE '!' ORDER BY stored_path").param("folder", escaped(folder) + "%").query(ReceivedFile.class).list();
    }

    List<ReceivedFile> foundBelow(String folder, String words, boolean firstRoot, int most) {
        return jdbc.sql(SELECT + "WHERE purged_at IS NULL AND " + (firstRoot ? "stored_path NOT LIKE ':%'" : "stored_path LIKE :folder ESCAPE '!'")
                + " AND (:words = '' OR FOLDED(stored_path) LIKE :pattern ESCAPE '!' OR FOLDED(original_name) LIKE :pattern ESCAPE '!') ORDER BY id DESC FETCH FIRST :most ROWS ONLY")
                .param("folder", escaped(folder) + "%").param("words", words).param("pattern", "%" + escaped(words) + "%").param("most", most).query(ReceivedFile.class).list();
    }

    boolean anyBelow(String folder) {
        return jdbc.sql("SELECT EXISTS (SELECT 1 FROM seen_received_file received_file WHERE purged_at IS NULL AND stored_path LIKE :folder ESCAPE '!')").param("folder", escaped(folder) + "%").query(Boolean.class).single();
    }

    private static String escaped(String text) {
        return text.replace("!", "!!").replace("%", "!%").replace("_", "!_");
    }

    List<ReceivedFile> ofRounds(Collection<Long> rounds) {
        return IdChunks.ask(rounds, some -> jdbc.sql(SELECT + "WHERE round_id = ANY(?) AND purged_at IS NULL ORDER BY received_at, id").param(some).query(ReceivedFile.class).list());
    }

    List<Long> everOf(long basketId) {
        return jdbc.sql("SELECT id FROM seen_received_file received_file WHERE basket_id = :basket UNION ALL SELECT id FROM seen_removed_file removed_file WHERE basket_id = :basket").param("basket", basketId)
                .query(Long.class).list();
    }

    /** How many rows changed: 0 when it is out already. */
    int takeOut(long id) {
        jdbc.sql("INSERT INTO removed_file (" + ALL + ") SELECT " + ALL + " FROM seen_received_file received_file WHERE id = :id").param("id", id).update();
        return jdbc.sql("DELETE FROM received_file WHERE id = :id").param("id", id).update();
    }

    void putBack(long id) {
        jdbc.sql("INSERT INTO received_file (" + ALL + ") OVERRIDING SYSTEM VALUE SELECT " + ALL + " FROM seen_removed_file removed_file WHERE id = :id").param("id", id).update();
        jdbc.sql("DELETE FROM removed_file WHERE id = :id").param("id", id).update();
    }

    /** How many rows changed: 0 when the review was another meanwhile. */
    int review(long id, Review from, Review to, String reason, Instant at) {
        return jdbc.sql("UPDATE received_file SET review = :to, reviewed_at = :at, review_reason = :reason WHERE id = :id AND review = :from AND NOT kept_apart")
                .param("to", to.name()).param("at", to == Review.NONE ? null : at).param("reason", reason).param("id", id)
                .param("from", from.name()).update();
    }
}
