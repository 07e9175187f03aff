package oakbasket.server.basket;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import oakbasket.server.storage.Known;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.jdbc.support.KeyHolder;
import org.springframework.stereotype.Repository;

/** All SQL of the tables basket_act and basket_act_basket. */
@Repository
class ActTable {

    private final JdbcClient jdbc;

    ActTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    long insert(long roundId, long account, Instant at, String kind, String said, String detail, Collection<Long> baskets) {
        KeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("INSERT INTO basket_act (round_id, account_id, at, kind, said, detail) VALUES (:round, :account, :at, :kind, :said, :detail)").param("round", roundId)
                .param("account", account).param("at", at).param("kind", kind).param("said", said).param("detail", detail).update(key, "id");
        long id = Known.id(key);
        jdbc.sql("INSERT INTO basket_act_basket (act_id, basket_id) SELECT CAST(? AS BIGINT), C1 FROM UNNEST(CAST(? AS BIGINT ARRAY)) AS T(C1)").param(id).param(baskets.toArray(Long[]::new)).update();
        return id;
    }

    Optional<BasketAct> byId(long id) {
        return jdbc.sql("SELECT id, round_id, account_id, at, kind, said, undone_at FROM seen_basket_act basket_act WHERE id = :id").param("id", id).query(BasketAct.class).optional();
    }

    String detail(long id) {
        return jdbc.sql("SELECT detail FROM seen_basket_act basket_act WHERE id = :id").param("id", id).query(String.class).single();
    }

    int undo(long id, Instant at) {
        return jdbc.sql("UPDATE basket_act SET undone_at = :at WHERE id = :id AND undone_at IS NULL").param("at", at).param("id", id).update();
    }

    /** What was done in a round, the newest first, with how many baskets each act was for. */
    List<RoundAct> ofRound(long roundId, int most) {
        return jdbc.sql("""
                SELECT a.id, a.account_id, a.at, a.kind, a.said, a.undone_at, COUNT(b.basket_id) AS people, MIN(c.name) AS name
                FROM seen_basket_act a JOIN basket_act_basket b ON b.act_id = a.id JOIN seen_basket k ON k.id = b.basket_id JOIN contact c ON c.id = k.contact_id
                WHERE a.round_id = :round GROUP BY a.id, a.account_id, a.at, a.kind, a.said, a.undone_at ORDER BY a.id DESC FETCH FIRST :most ROWS ONLY""")
                .param("round", roundId).param("most", most).query(RoundAct.class).list();
    }

    List<BasketAct> ofBasket(long basketId) {
        return jdbc.sql("""
                SELECT a.id, a.round_id, a.account_id, a.at, a.kind, a.said, a.undone_at FROM seen_basket_act a JOIN basket_act_basket b ON b.act_id = a.id
                WHERE b.basket_id = :basket ORDER BY a.id""").param("basket", basketId).query(BasketAct.class).list();
    }
}
