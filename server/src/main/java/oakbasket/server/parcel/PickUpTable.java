package oakbasket.server.parcel;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import oakbasket.core.parcel.PickUpRule;
import oakbasket.core.parcel.Taken;
import oakbasket.server.storage.IdChunks;
import oakbasket.server.storage.Known;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;

/** All SQL of the table pick_up. */
@Repository
class PickUpTable {

    /** A pick-up, and which file it is of. */
    record Row(long fileId, PickUpRule.Before before) {
    }

    /** How often a file was taken away whole through a link, and when last; {@code begun} counts those that broke off. */
    record Tally(long linkId, long fileId, int times, int begun, @Nullable Instant lastAt) {
    }

    /** A file that was taken away whole. */
    record Took(long id, long linkId, long fileId, String caller, Instant wholeAt) {
    }

    private static final String ROWS = "SELECT id, file_id, caller, taken, whole_at, last_at FROM pick_up WHERE link_id = :link";

    private final JdbcClient jdbc;

    PickUpTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    List<Row> ofLink(long link) {
        return rows(jdbc.sql(ROWS).param("link", link));
    }

    List<Row> ofFile(long link, long file) {
        return rows(jdbc.sql(ROWS + " AND file_id = :file").param("link", link).param("file", file));
    }

    /** What somebody took, or began to take, since a moment. */
    List<Row> own(long link, String caller, Instant since) {
        return rows(jdbc.sql(ROWS + " AND caller = :caller AND last_at > :since").param("link", link).param("caller", caller).param("since", since));
    }

    /** What somebody took of one file, or began to take, since a moment. */
    List<Row> own(long link, long file, String caller, Instant since) {
        return rows(jdbc.sql(ROWS + " AND caller = :caller AND file_id = :file AND last_at > :since").param("link", link).param("caller", caller).param("file", file).param("since", since));
    }

    /** What others began to take of a file since a moment, and have not whole. */
    List<Row> unfinishedOfOthers(long link, long file, String caller, Instant since) {
        return rows(jdbc.sql(ROWS + " AND file_id = :file AND whole_at IS NULL AND last_at > :since AND caller <> :caller").param("link", link).param("file", file).param("since", since).param("caller", caller));
    }

    private static List<Row> rows(JdbcClient.StatementSpec asked) {
        return asked.query((row, n) -> new Row(row.getLong("file_id"),
                new PickUpRule.Before(row.getLong("id"), row.getString("caller"), Taken.read(row.getString("taken")), row.getObject("whole_at", Instant.class), row.getObject("last_at", Instant.class))))
                .list();
    }

    long insert(long link, long file, String caller, Instant now) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("INSERT INTO pick_up (link_id, file_id, caller, taken, begun_at, last_at) VALUES (:link, :file, :caller, '', :now, :now)").param("link", link).param("file", file).param("caller", caller)
                .param("now", now).update(key, "id");
        return Known.id(key);
    }

    String taken(long id) {
        return jdbc.sql("SELECT taken FROM pick_up WHERE id = :id FOR UPDATE").param("id", id).query(String.class).single();
    }

    /** Notes what was taken; when it became whole, once. @return whether it became so now */
    boolean update(long id, String taken, Instant at, boolean whole) {
        jdbc.sql("UPDATE pick_up SET taken = :taken, last_at = :at WHERE id = :id").param("taken", taken).param("at", at).param("id", id).update();
        return whole && jdbc.sql("UPDATE pick_up SET whole_at = :at WHERE id = :id AND whole_at IS NULL").param("at", at).param("id", id).update() == 1;
    }

    List<Tally> tallies(Collection<Long> links) {
        return IdChunks.ask(links, some -> jdbc.sql("""
                SELECT link_id, file_id, SUM(CASE WHEN whole_at IS NULL THEN 0 ELSE 1 END) AS times, SUM(CASE WHEN whole_at IS NULL AND taken <> '' THEN 1 ELSE 0 END) AS begun, MAX(whole_at) AS last_at
                FROM pick_up WHERE link_id = ANY(?) GROUP BY link_id, file_id""").param(some).query(Tally.class).list());
    }

    /** Files of somebody's parcels that were taken away whole after a moment and up to another, the earliest first. */
    List<Took> took(long account, Instant after, Instant upTo, int most) {
        return jdbc.sql("""
                SELECT u.id, u.link_id, u.file_id, u.caller, u.whole_at FROM pick_up u JOIN seen_parcel_link l ON l.id = u.link_id JOIN seen_parcel p ON p.id = l.parcel_id
                WHERE u.whole_at > :after AND u.whole_at <= :upTo AND p.account_id = :account ORDER BY u.whole_at, u.id FETCH FIRST :most ROWS ONLY""").param("account", account)
                .param("after", after).param("upTo", upTo).param("most", most).query(Took.class).list();
    }

    /** The last ones of some links, the newest first. */
    List<Took> lastOf(Collection<Long> links, int most) {
        return jdbc.sql("SELECT id, link_id, file_id, caller, whole_at FROM pick_up WHERE whole_at IS NOT NULL AND link_id = ANY(:links) ORDER BY whole_at DESC, id DESC FETCH FIRST :most ROWS ONLY")
                .param("links", links.toArray(Long[]::new)).param("most", most).query(Took.class).list();
    }
}
