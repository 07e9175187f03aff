package oakbasket.server.filing;

import java.time.Clock;
import java.time.Instant;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import oakbasket.server.journal.Why;
import oakbasket.server.storage.IdChunks;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import tools.jackson.databind.json.JsonMapper;

/** All SQL of the tables waiting_file, file_copy, file_mark and file_notice: what rules want besides a place. */
@Repository
class EffectTable {

    /** A file that waits for its place. */
    record Waiting(long fileId, String reason, String place, Instant since) {
    }

    /** A copy; {@code place} is null until one was chosen, {@code madeAt} until it is there. */
    record Copy(long id, long fileId, String wanted, @Nullable String place, @Nullable Long batchId, @Nullable Instant madeAt) {
    }

    /** Somebody who is to be told of a file. */
    record Notice(long id, long fileId, String address, int tries) {
    }

    private static final String COPY = "SELECT id, file_id, wanted, place, batch_id, made_at FROM file_copy ";

    private final JdbcClient jdbc;
    private final JsonMapper json;
    private final Clock clock;

    EffectTable(JdbcClient jdbc, JsonMapper json, Clock clock) {
        this.jdbc = jdbc;
        this.json = json;
        this.clock = clock;
    }

    /** Notes that a file waits, or no longer. */
    void waits(long file, @Nullable String reason, String place) {
        jdbc.sql("DELETE FROM waiting_file WHERE file_id = :file").param("file", file).update();
        if (reason != null) {
            jdbc.sql("INSERT INTO waiting_file (file_id, reason, place, since) VALUES (:file, :reason, :place, :now)").param("file", file).param("reason", reason).param("place", place)
                    .param("now", clock.instant()).update();
        }
    }

    List<Waiting> waiting(int most) {
        return jdbc.sql("SELECT file_id, reason, place, since FROM waiting_file ORDER BY since, file_id FETCH FIRST :most ROWS ONLY").param("most", most).query(Waiting.class).list();
    }

    int countWaiting(String butFor) {
        return jdbc.sql("SELECT COUNT(*) FROM waiting_file WHERE reason <> :reason").param("reason", butFor).query(Integer.class).single();
    }

    /** Puts a file that still waits behind the others. */
    void stillWaits(long file, String reason) {
        jdbc.sql("UPDATE waiting_file SET since = :now, reason = :reason WHERE file_id = :file").param("now", clock.instant()).param("reason", reason).param("file", file).update();
    }

    void mark(long file, String mark, @Nullable Long batch) {
        boolean there = jdbc.sql("SELECT EXISTS (SELECT 1 FROM file_mark WHERE file_id = :file AND mark = :mark)").param("file", file).param("mark", mark).query(Boolean.class).single();
        if (!there) {
            jdbc.sql("INSERT INTO file_mark (file_id, mark, batch_id) VALUES (:file, :mark, :batch)").param("file", file).param("mark", mark).param("batch", batch).update();
        }
    }

    void unmark(long batch) {
        jdbc.sql("DELETE FROM file_mark WHERE batch_id = :batch").param("batch", batch).update();
    }

    List<Copy> copiesOfBatch(long batch) {
        return jdbc.sql(COPY + "WHERE batch_id = :batch AND gone_at IS NULL ORDER BY id").param("batch", batch).query(Copy.class).list();
    }

    Map<Long, TreeSet<String>> marks(Collection<Long> files) {
        Map<Long, TreeSet<String>> marks = new HashMap<>();
        IdChunks.ask(files, some -> {
            jdbc.sql("SELECT file_id, mark FROM file_mark WHERE file_id = ANY(?)").param(some).query(row -> {
                marks.computeIfAbsent(row.getLong(1), id -> new TreeSet<>()).add(row.getString(2));
            });
            return List.of();
        });
        return marks;
    }

    void wantCopy(long file, String place, Why why, @Nullable Long batch) {
        boolean there = jdbc.sql("SELECT EXISTS (SELECT 1 FROM file_copy WHERE file_id = :file AND wanted = :place)").param("file", file).param("place", place).query(Boolean.class).single();
        if (!there) {
            jdbc.sql("INSERT INTO file_copy (file_id, wanted, why, batch_id) VALUES (:file, :place, :why, :batch)").param("file", file).param("place", place).param("why", json.writeValueAsString(why)).param("batch", batch).update();
        }
    }

    List<Copy> unmadeCopies(int most) {
        return jdbc.sql(COPY + "WHERE made_at IS NULL AND gone_at IS NULL ORDER BY id FETCH FIRST :most ROWS ONLY").param("most", most)
                .query(Copy.class).list();
    }

    List<Copy> copiesOf(long file) {
        return jdbc.sql(COPY + "WHERE file_id = :file AND made_at IS NOT NULL AND gone_at IS NULL ORDER BY id").param("file", file)
                .query(Copy.class).list();
    }

    Why whyOf(long copy) {
        return json.readValue(jdbc.sql("SELECT why FROM file_copy WHERE id = :id").param("id", copy).query(String.class).single(), Why.class);
    }

    boolean copyAt(String pathKey) {
        return jdbc.sql("SELECT EXISTS (SELECT 1 FROM file_copy WHERE path_key = :key)").param("key", pathKey).query(Boolean.class).single();
    }

    Map<String, Long> copiesAt(Collection<String> keys) {
        Map<String, Long> found = new HashMap<>();
        jdbc.sql("SELECT path_key, file_id FROM file_copy WHERE path_key = ANY(?) AND made_at IS NOT NULL AND gone_at IS NULL").param(keys.toArray(String[]::new)).query(row -> {
            found.put(row.getString(1), row.getLong(2));
        });
        return found;
    }

    List<String> everyCopy() {
        return jdbc.sql("SELECT path_key FROM file_copy WHERE path_key IS NOT NULL").query(String.class).list();
    }

    /** Copies that were removed with their file are wanted again. */
    void wantAgain(long file) {
        jdbc.sql("UPDATE file_copy SET gone_at = NULL, made_at = NULL, place = NULL WHERE file_id = :file AND gone_at IS NOT NULL AND path_key IS NULL").param("file", file).update();
    }

    void promiseCopy(long id, String place, String pathKey) {
        jdbc.sql("UPDATE file_copy SET place = :place, path_key = :key WHERE id = :id").param("place", place).param("key", pathKey).param("id", id).update();
    }

    void copyMade(long id) {
        jdbc.sql("UPDATE file_copy SET made_at = :now WHERE id = :id").param("now", clock.instant()).param("id", id).update();
    }

    /** How many rows changed: 0 when it is gone already. The wanted place is kept, so that the same rule does not make it again. */
    int copyGone(long id) {
        return jdbc.sql("UPDATE file_copy SET gone_at = :now, path_key = NULL WHERE id = :id AND gone_at IS NULL").param("now", clock.instant()).param("id", id).update();
    }

    void wantNotice(long file, String address, Why why) {
        boolean there = jdbc.sql("SELECT EXISTS (SELECT 1 FROM file_notice WHERE file_id = :file AND address = :address)").param("file", file).param("address", address).query(Boolean.class).single();
        if (!there) {
            jdbc.sql("INSERT INTO file_notice (file_id, address, why, since, tries, next_at) VALUES (:file, :address, :why, :now, 0, :now)").param("file", file).param("address", address)
                    .param("why", json.writeValueAsString(why)).param("now", clock.instant()).update();
        }
    }

    List<Notice> noticesDue(int mostTries, int most) {
        return jdbc.sql("SELECT id, file_id, address, tries FROM file_notice WHERE told_at IS NULL AND next_at <= :now AND tries < :tries ORDER BY next_at, id FETCH FIRST :most ROWS ONLY")
                .param("now", clock.instant()).param("tries", mostTries).param("most", most).query(Notice.class).list();
    }

    void told(Collection<Long> notices) {
        jdbc.sql("UPDATE file_notice SET told_at = ? WHERE id = ANY(?)").param(clock.instant()).param(notices.toArray(Long[]::new)).update();
    }

    void tryAgain(Collection<Long> notices, Instant next) {
        jdbc.sql("UPDATE file_notice SET tries = tries + 1, next_at = ? WHERE id = ANY(?)").param(next).param(notices.toArray(Long[]::new)).update();
    }

    int noticesGivenUp(int mostTries) {
        return jdbc.sql("SELECT COUNT(*) FROM file_notice WHERE told_at IS NULL AND tries >= :tries").param("tries", mostTries).query(Integer.class).single();
    }
}
