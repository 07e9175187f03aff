package oakbasket.server.parcel;

import java.sql.Types;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import oakbasket.server.storage.IdChunks;
import oakbasket.server.storage.Known;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;

/** All SQL of the table parcel_file. */
@Repository
class ParcelFileTable {

    /** How many files a parcel has, how many of them can be handed out, and how large they are together. */
    record Sum(long parcelId, int files, int ready, int lost, long bytes) {
    }

    private static final String SELECT = """
            SELECT id, parcel_id, number, file_name, size_bytes, offset_bytes, bytes_id, received_file_id, state, trouble, sha256, crc32, media_type, unchecked,
                   taken_back_at, answers_id, answers FROM seen_parcel_file parcel_file
            """;

    private final JdbcClient jdbc;

    ParcelFileTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    long insert(long parcel, int number, String name, long bytes, @Nullable String bytesId, @Nullable Long received, ParcelFile.State state) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                INSERT INTO parcel_file (parcel_id, number, file_name, size_bytes, offset_bytes, bytes_id, received_file_id, state)
                VALUES (:parcel, :number, :name, :bytes, :offset, :id, :received, :state)""").param("parcel", parcel).param("number", number).param("name", name).param("bytes", bytes)
                .param("offset", received == null ? 0 : bytes).param("id", bytesId).param("received", received).param("state", state.name()).update(key, "id");
        return Known.id(key);
    }

    List<ParcelFile> ofParcel(long parcel) {
        return jdbc.sql(SELECT + "WHERE parcel_id = :parcel AND taken_back_at IS NULL ORDER BY number").param("parcel", parcel).query(ParcelFile.class).list();
    }

    Optional<ParcelFile> byId(long id) {
        return jdbc.sql(SELECT + "WHERE id = :id").param("id", id).query(ParcelFile.class).optional();
    }

    List<ParcelFile> checking() {
        return jdbc.sql(SELECT + "WHERE state = 'CHECKING' ORDER BY id").query(ParcelFile.class).list();
    }

    Map<Long, Sum> sums(Collection<Long> parcels) {
        Map<Long, Sum> sums = new TreeMap<>();
        IdChunks.ask(parcels, some -> jdbc.sql("""
                SELECT parcel_id, COUNT(*) AS files, SUM(CASE WHEN state = 'READY' THEN 1 ELSE 0 END) AS ready, SUM(CASE WHEN state = 'READY' AND trouble <> '' THEN 1 ELSE 0 END) AS lost, SUM(size_bytes) AS bytes FROM seen_parcel_file parcel_file WHERE parcel_id = ANY(?) AND taken_back_at IS NULL GROUP BY parcel_id""")
                .param(some).query(Sum.class).list()).forEach(sum -> sums.put(sum.parcelId(), sum));
        return sums;
    }

    int nextNumber(long parcel) {
        return jdbc.sql("SELECT COALESCE(MAX(number), 0) + 1 FROM seen_parcel_file parcel_file WHERE parcel_id = :parcel").param("parcel", parcel).query(Integer.class).single();
    }

    int advance(long id, long from, long to) {
        return jdbc.sql("UPDATE parcel_file SET offset_bytes = :to WHERE id = :id AND offset_bytes = :from AND state = 'COMING'").param("to", to).param("id", id).param("from", from).update();
    }

    int turn(long id, ParcelFile.State from, ParcelFile.State to, String trouble) {
        return jdbc.sql("UPDATE parcel_file SET state = :to, trouble = :trouble WHERE id = :id AND state = :from").param("to", to.name()).param("trouble", trouble).param("id", id)
                .param("from", from.name()).update();
    }

    /** Notes of a file that is handed out whether it can be given out. @param trouble the code of a word; empty when it can */
    int note(long id, String trouble) {
        return jdbc.sql("UPDATE parcel_file SET trouble = :trouble WHERE id = :id AND state = 'READY' AND trouble <> :trouble").param("trouble", trouble).param("id", id).update();
    }

    /** How many files that are handed out are not there any more, or are altered. */
    int notGivenOut() {
        return jdbc.sql("""
                SELECT COUNT(*) FROM seen_parcel_file f JOIN seen_parcel p ON p.id = f.parcel_id
                WHERE f.state = 'READY' AND f.trouble <> '' AND f.taken_back_at IS NULL AND p.purged_at IS NULL AND p.stopped_at IS NULL""").query(Integer.class).single();
    }

    int ready(long id, byte[] sha256, long crc32, String mediaType, boolean unchecked) {
        return jdbc.sql("UPDATE parcel_file SET state = 'READY', trouble = '', sha256 = :sha, crc32 = :crc, media_type = :type, unchecked = :unchecked WHERE id = :id AND state = 'CHECKING'")
                .param("sha", sha256).param("crc", crc32).param("type", mediaType).param("unchecked", unchecked).param("id", id).update();
    }

    List<ParcelFile> takenBack(long parcel) {
        return jdbc.sql(SELECT + "WHERE parcel_id = :parcel AND taken_back_at IS NOT NULL AND (bytes_id IS NOT NULL OR received_file_id IS NOT NULL) ORDER BY taken_back_at DESC, id DESC").param("parcel", parcel)
                .query(ParcelFile.class).list();
    }

    int lying(long parcel, Collection<Long> ids) {
        return jdbc.sql("SELECT COUNT(*) FROM seen_parcel_file parcel_file WHERE parcel_id = ? AND taken_back_at IS NULL AND id = ANY(?)").param(parcel).param(ids.toArray(Long[]::new)).query(Integer.class).single();
    }

    List<ParcelFile> takenBackBefore(Instant moment) {
        return jdbc.sql(SELECT + "WHERE taken_back_at < :moment AND (bytes_id IS NOT NULL OR received_file_id IS NOT NULL)").param("moment", moment).query(ParcelFile.class).list();
    }

    /** How many rows changed: 0 when it was taken back, or put there again, already. */
    int takeBack(long id, @Nullable Instant at) {
        return jdbc.sql("UPDATE parcel_file SET taken_back_at = :at WHERE id = :id AND (taken_back_at IS NULL) = (CAST(:at AS TIMESTAMP(9) WITH TIME ZONE) IS NOT NULL)")
                .param("at", at, Types.TIMESTAMP_WITH_TIMEZONE).param("id", id).update();
    }

    /** Nothing of its content is left; that it lay there, and was taken away, stays on record. */
    int contentGone(long id) {
        return jdbc.sql("UPDATE parcel_file SET bytes_id = NULL, received_file_id = NULL WHERE id = :id").param("id", id).update();
    }

    int answers(long id, long received, String name) {
        return jdbc.sql("UPDATE parcel_file SET answers_id = :received, answers = :name WHERE id = :id").param("received", received).param("name", name).param("id", id).update();
    }

    int delete(long id) {
        return jdbc.sql("DELETE FROM parcel_file WHERE id = :id").param("id", id).update();
    }

    int deleteOf(long parcel) {
        return jdbc.sql("DELETE FROM parcel_file WHERE parcel_id = :parcel").param("parcel", parcel).update();
    }

    boolean knows(String bytesId) {
        return jdbc.sql("SELECT EXISTS (SELECT 1 FROM seen_parcel_file f JOIN seen_parcel p ON p.id = f.parcel_id WHERE f.bytes_id = :id AND p.purged_at IS NULL)").param("id", bytesId).query(Boolean.class).single();
    }
}
