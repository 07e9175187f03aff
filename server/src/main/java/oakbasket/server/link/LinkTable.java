package oakbasket.server.link;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import oakbasket.core.link.LinkLimits;
import oakbasket.core.link.LinkTerms;
import oakbasket.core.link.LinkWindow;
import oakbasket.server.storage.IdChunks;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** All SQL of the table link but for lists. */
@Repository
class LinkTable {

    private final JdbcClient jdbc;

    LinkTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    void insert(long roundId, @Nullable Long basketId, byte[] tokenHash, byte[] tokenSealed, @Nullable String passcodeHash, Instant now) {
        jdbc.sql("""
                INSERT INTO link (round_id, basket_id, token_hash, token_sealed, passcode_hash, created_at, set_at, takes_in)
                VALUES (:round, :basket, :hash, :sealed, :passcode, :now, :now,
                    COALESCE((SELECT takes_in FROM seen_link link WHERE basket_id = :basket ORDER BY id DESC FETCH FIRST ROW ONLY), TRUE))""")
                .param("round", roundId).param("basket", basketId).param("hash", tokenHash).param("sealed", tokenSealed)
                .param("passcode", passcodeHash).param("now", now).update();
    }

    Optional<Link> byTokenHash(byte[] hash) {
        return jdbc.sql("SELECT * FROM seen_link link WHERE token_hash = :hash").param("hash", hash).query((row, n) -> link(row)).optional();
    }

    Optional<Link> ofBasket(long basketId) {
        return jdbc.sql("SELECT * FROM seen_link link WHERE basket_id = :basket AND withdrawn_at IS NULL ORDER BY id DESC FETCH FIRST ROW ONLY")
                .param("basket", basketId).query((row, n) -> link(row)).optional();
    }

    Optional<Link> lastOf(long basketId) {
        return jdbc.sql("SELECT * FROM seen_link link WHERE basket_id = :basket ORDER BY CASE WHEN withdrawn_at IS NULL THEN 0 ELSE 1 END, id DESC FETCH FIRST ROW ONLY")
                .param("basket", basketId).query((row, n) -> link(row)).optional();
    }

    List<Link> ofRound(long roundId) {
        return jdbc.sql("SELECT * FROM seen_link link WHERE round_id = :round AND basket_id IS NOT NULL AND withdrawn_at IS NULL ORDER BY id").param("round", roundId)
                .query((row, n) -> link(row)).list();
    }

    /** How many rows changed: 0 when there never was one. */
    int giveBackOpen(long roundId) {
        return jdbc.sql("UPDATE link SET withdrawn_at = NULL, version = version + 1 WHERE id = (SELECT MAX(id) FROM seen_link link WHERE round_id = :round AND basket_id IS NULL)").param("round", roundId).update();
    }

    void withdrawOpen(long roundId, Instant at) {
        jdbc.sql("UPDATE link SET withdrawn_at = :at, version = version + 1 WHERE round_id = :round AND basket_id IS NULL AND withdrawn_at IS NULL").param("at", at).param("round", roundId).update();
    }

    void setPasscode(long roundId, @Nullable String hash) {
        jdbc.sql("UPDATE link SET passcode_hash = :hash, version = version + 1 WHERE round_id = :round AND basket_id IS NULL AND withdrawn_at IS NULL").param("hash", hash).param("round", roundId).update();
    }

    /** Whether a basket ever had a personal link, withdrawn ones included. */
    boolean ever(long basketId) {
        return jdbc.sql("SELECT EXISTS (SELECT 1 FROM seen_link link WHERE basket_id = :basket)").param("basket", basketId).query(Boolean.class).single();
    }

    Optional<Link> openOf(long roundId) {
        return jdbc.sql("SELECT * FROM seen_link link WHERE round_id = :round AND basket_id IS NULL AND withdrawn_at IS NULL ORDER BY id DESC FETCH FIRST ROW ONLY")
                .param("round", roundId).query((row, n) -> link(row)).optional();
    }

    Optional<Link> byId(long id) {
        return jdbc.sql("SELECT * FROM seen_link link WHERE id = :id").param("id", id).query((row, n) -> link(row)).optional();
    }

    List<Link> byIds(Collection<Long> ids) {
        return IdChunks.ask(ids, some -> jdbc.sql("SELECT * FROM seen_link link WHERE id = ANY(?)").param(some).query((row, n) -> link(row)).list());
    }

    List<Long> repoint(long fromBasket, long toBasket) {
        List<Long> ids = jdbc.sql("SELECT id FROM seen_link link WHERE basket_id = :from").param("from", fromBasket).query(Long.class).list();
        give(ids, toBasket);
        return ids;
    }

    void give(List<Long> ids, long basketId) {
        jdbc.sql("UPDATE link SET basket_id = ? WHERE id = ANY(?)").param(basketId).param(ids.toArray(Long[]::new)).update();
    }

    /** Withdraws what works of a basket. */
    void withdrawPersonal(long basketId, Instant at) {
        jdbc.sql("UPDATE link SET withdrawn_at = :at, version = version + 1 WHERE basket_id = :basket AND withdrawn_at IS NULL").param("at", at).param("basket", basketId).update();
    }

    /** Gives back what was withdrawn of a basket at this moment, and not what somebody withdrew at another. */
    void giveBackPersonal(long basketId, Instant withdrawnAt) {
        jdbc.sql("UPDATE link SET withdrawn_at = NULL, version = version + 1 WHERE basket_id = :basket AND withdrawn_at = :at").param("at", withdrawnAt).param("basket", basketId).update();
    }

    void takeIn(long basketId, boolean on) {
        jdbc.sql("UPDATE link SET takes_in = :on WHERE basket_id = :basket").param("on", on).param("basket", basketId).update();
    }

    /** How many rows changed: 0 when the uses were used up meanwhile. */
    int use(long id) {
        return jdbc.sql("UPDATE link SET uses = uses + 1 WHERE id = :id AND (use_limit IS NULL OR uses < use_limit)").param("id", id).update();
    }

    /** Writes what a coordinator changed about a link. How many rows changed: 0 when somebody else changed it meanwhile. */
    int set(long id, int version, LinkHeld held) {
        return jdbc.sql("""
                UPDATE link SET set_at = :set, begins_at = :begins, ends_at = :ends, paused_at = :paused, withdrawn_at = :withdrawn, use_limit = :uses, file_limit = :files,
                    file_bytes_limit = :fileBytes, total_bytes_limit = :totalBytes, readable_name = :name, passcode_hash = :passcode, version = version + 1
                WHERE id = :id AND version = :version""")
                .param("set", held.setAt()).param("begins", held.beginsAt()).param("ends", held.endsAt()).param("paused", held.pausedAt()).param("withdrawn", held.withdrawnAt())
                .param("uses", held.useLimit()).param("files", held.fileLimit()).param("fileBytes", held.fileBytes()).param("totalBytes", held.totalBytes())
                .param("name", held.name()).param("passcode", held.passcodeHash()).param("id", id).param("version", version).update();
    }

    /** Gives a link another address. How many rows changed: 0 when somebody else changed it meanwhile. */
    int setToken(long id, int version, byte[] tokenHash, byte[] tokenSealed) {
        return jdbc.sql("UPDATE link SET token_hash = :hash, token_sealed = :sealed, version = version + 1 WHERE id = :id AND version = :version").param("hash", tokenHash)
                .param("sealed", tokenSealed).param("id", id).param("version", version).update();
    }

    private static Link link(ResultSet row) throws SQLException {
        return new Link(row.getLong("id"), row.getLong("round_id"), row.getObject("basket_id", Long.class), row.getBytes("token_sealed"), terms(row),
                row.getString("readable_name"), row.getString("passcode_hash"), row.getBoolean("takes_in"), row.getInt("version"));
    }

    /** The terms in a row of the table. */
    static LinkTerms terms(ResultSet row) throws SQLException {
        LinkWindow window = new LinkWindow(row.getObject("set_at", Instant.class), row.getObject("begins_at", Instant.class), row.getObject("ends_at", Instant.class));
        LinkLimits limits = new LinkLimits(row.getObject("use_limit", Integer.class), row.getObject("file_limit", Integer.class), row.getObject("file_bytes_limit", Long.class),
                row.getObject("total_bytes_limit", Long.class));
        return new LinkTerms(window, row.getObject("paused_at", Instant.class), row.getObject("withdrawn_at", Instant.class), limits, row.getInt("uses"));
    }
}
