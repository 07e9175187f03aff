package oakbasket.server.exchange;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import oakbasket.core.exchange.ExchangeAnswer;
import oakbasket.core.exchange.ExchangeTerms;
import oakbasket.server.storage.IdChunks;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** All SQL of the table exchange. */
@Repository
class ExchangeTable {

    private final JdbcClient jdbc;

    ExchangeTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    void insert(Exchange made) {
        jdbc.sql("""
                INSERT INTO exchange (id, round_id, basket_id, way_id, alone, put_in, see, take_away, asks_first)
                VALUES (:id, :round, :basket, :way, :alone, :in, :see, :out, :asks)""").param("id", made.id()).param("round", made.roundId()).param("basket", made.basketId())
                .param("way", made.wayId()).param("alone", made.alone()).param("in", made.terms().putIn()).param("see", made.terms().see()).param("out", made.terms().takeAway())
                .param("asks", made.terms().asksFirst()).update();
    }

    Optional<Exchange> byId(long id) {
        return jdbc.sql("SELECT * FROM seen_exchange exchange WHERE id = :id").param("id", id).query((row, n) -> exchange(row)).optional();
    }

    Optional<Exchange> ofBasket(long basket) {
        return jdbc.sql("SELECT * FROM seen_exchange exchange WHERE basket_id = :basket").param("basket", basket).query((row, n) -> exchange(row)).optional();
    }

    List<Exchange> ofBaskets(Collection<Long> baskets) {
        return IdChunks.ask(baskets, some -> jdbc.sql("SELECT * FROM seen_exchange exchange WHERE basket_id = ANY(?)").param(some).query((row, n) -> exchange(row)).list());
    }

    /** The newest first; {@code before} is the id of the last one seen. */
    List<Exchange> page(String pattern, long before, int most) {
        return jdbc.sql("""
                SELECT * FROM seen_exchange e WHERE e.id < :before AND EXISTS (SELECT 1 FROM seen_basket b JOIN contact c ON c.id = b.contact_id JOIN seen_round r ON r.id = b.round_id WHERE b.id = e.basket_id
                    AND (LOWER(c.name) LIKE :pattern ESCAPE '!' OR LOWER(c.email) LIKE :pattern ESCAPE '!' OR LOWER(r.title) LIKE :pattern ESCAPE '!'))
                ORDER BY e.id DESC FETCH FIRST :most ROWS ONLY""").param("before", before).param("pattern", pattern).param("most", most).query((row, n) -> exchange(row)).list();
    }

    /** Those in which something lies, or lay until a while ago. */
    List<Exchange> holding() {
        return jdbc.sql("""
                SELECT * FROM seen_exchange e WHERE EXISTS (SELECT 1 FROM seen_parcel_file f WHERE f.parcel_id = e.id AND (f.bytes_id IS NOT NULL OR f.received_file_id IS NOT NULL)) ORDER BY e.id""")
                .query((row, n) -> exchange(row)).list();
    }

    /** How many rows changed: 0 when it was changed since {@code version}. */
    int change(long id, int version, ExchangeTerms terms) {
        return jdbc.sql("UPDATE exchange SET put_in = :in, see = :see, take_away = :out, asks_first = :asks, version = version + 1 WHERE id = :id AND version = :version").param("in", terms.putIn())
                .param("see", terms.see()).param("out", terms.takeAway()).param("asks", terms.asksFirst()).param("id", id).param("version", version).update();
    }

    /** How many rows changed: 0 when something else was said meanwhile. */
    int answer(long id, ExchangeAnswer before, ExchangeAnswer answer, Instant at) {
        return jdbc.sql("UPDATE exchange SET answer = :answer, answered_at = :at WHERE id = :id AND answer = :before").param("answer", answer.name()).param("at", at).param("id", id)
                .param("before", before.name()).update();
    }

    private static Exchange exchange(ResultSet row) throws SQLException {
        ExchangeTerms terms = new ExchangeTerms(row.getBoolean("put_in"), row.getBoolean("see"), row.getBoolean("take_away"), row.getBoolean("asks_first"));
        return new Exchange(row.getLong("id"), row.getLong("round_id"), row.getLong("basket_id"), row.getLong("way_id"), row.getBoolean("alone"), terms, ExchangeAnswer.valueOf(row.getString("answer")),
                row.getObject("answered_at", Instant.class), row.getInt("version"));
    }
}
