package oakbasket.server.basket;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.jdbc.support.KeyHolder;
import org.springframework.stereotype.Repository;

/** All SQL of the tables basket and waiver. */
@Repository
class BasketTable {

    private static final String SELECT = """
            SELECT id, round_id, contact_id, walk_in, asked_at, opened_at, waived_at, extension_date, extension_time, extension_reason FROM basket
            """;

    /** An item of a basket that was excused. */
    record Waiver(long basketId, long itemId, Instant waivedAt) {
    }

    private final JdbcClient jdbc;

    BasketTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    long insert(long roundId, long contactId, boolean walkIn) {
        KeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("INSERT INTO basket (round_id, contact_id, walk_in) VALUES (:round, :contact, :walkIn)")
                .param("round", roundId).param("contact", contactId).param("walkIn", walkIn).update(key, "id");
        return key.getKeyAs(Long.class);
    }

    Optional<Basket> byId(long id) {
        return jdbc.sql(SELECT + "WHERE id = :id").param("id", id).query(Basket.class).optional();
    }

    /** The basket of a contact, locked until the end of the transaction. */
    Optional<Basket> lockOfContact(long roundId, long contactId) {
        return jdbc.sql(SELECT + "WHERE round_id = :round AND contact_id = :contact FOR UPDATE").param("round", roundId)
                .param("contact", contactId).query(Basket.class).optional();
    }

    List<Basket> ofRound(long roundId) {
        return jdbc.sql(SELECT + "WHERE round_id = :round ORDER BY id").param("round", roundId).query(Basket.class).list();
    }

    Map<Long, Map<Long, Instant>> waiversOfRound(long roundId) {
        return byBasket(jdbc.sql("""
                SELECT w.basket_id, w.item_id, w.waived_at FROM waiver w JOIN basket b ON b.id = w.basket_id WHERE b.round_id = :round""")
                .param("round", roundId).query(Waiver.class).list());
    }

    Map<Long, Instant> waiversOfBasket(long basketId) {
        return byBasket(jdbc.sql("SELECT basket_id, item_id, waived_at FROM waiver WHERE basket_id = :basket").param("basket", basketId)
                .query(Waiver.class).list()).getOrDefault(basketId, Map.of());
    }

    /** How many rows changed: 0 when it was asked before. */
    int asked(long id, Instant at) {
        return jdbc.sql("UPDATE basket SET asked_at = :at WHERE id = :id AND asked_at IS NULL").param("at", at).param("id", id).update();
    }

    int opened(long id, Instant at) {
        return jdbc.sql("UPDATE basket SET opened_at = :at WHERE id = :id AND opened_at IS NULL").param("at", at).param("id", id).update();
    }

    int waive(long id, @Nullable Instant at) {
        return jdbc.sql("UPDATE basket SET waived_at = :at WHERE id = :id").param("at", at).param("id", id).update();
    }

    int extend(long id, @Nullable LocalDate date, String reason) {
        return jdbc.sql("UPDATE basket SET extension_date = :date, extension_time = NULL, extension_reason = :reason WHERE id = :id")
                .param("date", date).param("reason", reason).param("id", id).update();
    }

    void waiveItem(long basketId, long itemId, Instant at) {
        jdbc.sql("MERGE INTO waiver (basket_id, item_id, waived_at) KEY (basket_id, item_id) VALUES (:basket, :item, :at)")
                .param("basket", basketId).param("item", itemId).param("at", at).update();
    }

    int unwaiveItem(long basketId, long itemId) {
        return jdbc.sql("DELETE FROM waiver WHERE basket_id = :basket AND item_id = :item").param("basket", basketId).param("item", itemId).update();
    }

    private static Map<Long, Map<Long, Instant>> byBasket(List<Waiver> waivers) {
        return waivers.stream().collect(Collectors.groupingBy(Waiver::basketId, Collectors.toMap(Waiver::itemId, Waiver::waivedAt)));
    }
}
