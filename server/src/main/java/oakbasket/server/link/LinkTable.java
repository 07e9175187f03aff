package oakbasket.server.link;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import oakbasket.core.link.LinkTerms;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** All SQL of the table link. */
@Repository
class LinkTable {

    private final JdbcClient jdbc;

    LinkTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    void insert(long roundId, @Nullable Long basketId, byte[] tokenHash, byte[] tokenSealed, @Nullable String passcodeHash, Instant now) {
        jdbc.sql("""
                INSERT INTO link (round_id, basket_id, token_hash, token_sealed, passcode_hash, created_at)
                VALUES (:round, :basket, :hash, :sealed, :passcode, :now)""")
                .param("round", roundId).param("basket", basketId).param("hash", tokenHash).param("sealed", tokenSealed)
                .param("passcode", passcodeHash).param("now", now).update();
    }

    Optional<Link> byTokenHash(byte[] hash) {
        return jdbc.sql("SELECT * FROM link WHERE token_hash = :hash").param("hash", hash).query((row, n) -> link(row)).optional();
    }

    Optional<Link> ofBasket(long basketId) {
        return jdbc.sql("SELECT * FROM link WHERE basket_id = :basket AND withdrawn_at IS NULL ORDER BY id DESC FETCH FIRST ROW ONLY")
                .param("basket", basketId).query((row, n) -> link(row)).optional();
    }

    List<Link> ofRound(long roundId) {
        return jdbc.sql("SELECT * FROM link WHERE round_id = :round AND basket_id IS NOT NULL AND withdrawn_at IS NULL ORDER BY id").param("round", roundId)
                .query((row, n) -> link(row)).list();
    }

    /** How many rows changed: 0 when there never was one. */
    int giveBackOpen(long roundId) {
        return jdbc.sql("UPDATE link SET withdrawn_at = NULL WHERE id = (SELECT MAX(id) FROM link WHERE round_id = :round AND basket_id IS NULL)").param("round", roundId).update();
    }

    void withdrawOpen(long roundId, Instant at) {
        jdbc.sql("UPDATE link SET withdrawn_at = :at WHERE round_id = :round AND basket_id IS NULL AND withdrawn_at IS NULL").param("at", at).param("round", roundId).update();
    }

    void setPasscode(long roundId, @Nullable String hash) {
        jdbc.sql("UPDATE link SET passcode_hash = :hash WHERE round_id = :round AND basket_id IS NULL AND withdrawn_at IS NULL").param("hash", hash).param("round", roundId).update();
    }

    /** Whether a basket ever had a personal link, withdrawn ones included. */
    boolean ever(long basketId) {
        return jdbc.sql("SELECT EXISTS (SELECT 1 FROM link WHERE basket_id = :basket)").param("basket", basketId).query(Boolean.class).single();
    }

    Optional<Link> openOf(long roundId) {
        return jdbc.sql("SELECT * FROM link WHERE round_id = :round AND basket_id IS NULL AND withdrawn_at IS NULL ORDER BY id DESC FETCH FIRST ROW ONLY")
                .param("round", roundId).query((row, n) -> link(row)).optional();
    }

    Optional<Link> byId(long id) {
        return jdbc.sql("SELECT * FROM link WHERE id = :id").param("id", id).query((row, n) -> link(row)).optional();
    }

    List<Long> repoint(long fromBasket, long toBasket) {
        List<Long> ids = jdbc.sql("SELECT id FROM link WHERE basket_id = :from").param("from", fromBasket).query(Long.class).list();
        give(ids, toBasket);
        return ids;
    }

    void give(List<Long> ids, long basketId) {
        jdbc.sql("UPDATE link SET basket_id = ? WHERE id = ANY(?)").param(basketId).param(ids.toArray(Long[]::new)).update();
    }

    void withdrawPersonal(long basketId, @Nullable Instant at) {
        jdbc.sql("UPDATE link SET withdrawn_at = :at WHERE basket_id = :basket").param("at", at).param("basket", basketId).update();
    }

    void use(long id) {
        jdbc.sql("UPDATE link SET uses = uses + 1 WHERE id = :id").param("id", id).update();
    }

    private static Link link(ResultSet row) throws SQLException {
        LinkTerms terms = new LinkTerms(row.getObject("created_at", Instant.class), row.getObject("begins_at", Instant.class),
                row.getObject("ends_at", Instant.class), row.getObject("paused_at", Instant.class), row.getObject("withdrawn_at", Instant.class),
                row.getObject("use_limit", Integer.class), row.getInt("uses"));
        return new Link(row.getLong("id"), row.getLong("round_id"), row.getObject("basket_id", Long.class), row.getBytes("token_sealed"), terms,
                row.getString("passcode_hash"));
    }
}
