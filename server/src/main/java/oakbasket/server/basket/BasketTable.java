package oakbasket.server.basket;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import oakbasket.core.allowance.Allowance;
import oakbasket.server.storage.IdChunks;
import oakbasket.server.storage.Known;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.jdbc.support.KeyHolder;
import org.springframework.stereotype.Repository;

/** All SQL of the tables basket and waiver. */
@Repository
class BasketTable {

    private static final String SELECT = """
            SELECT id, round_id, contact_id, version, walk_in, asked_at, opened_at, waived_at, extension_date, extension_reason, paused_at, removed_at, note,
                   groups_then FROM seen_basket basket
            """;

    private final JdbcClient jdbc;

    BasketTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    long insert(long roundId, long contactId, boolean walkIn, List<String> groups) {
        KeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("INSERT INTO basket (round_id, contact_id, walk_in, groups_then) VALUES (:round, :contact, :walkIn, :groups)")
                .param("round", roundId).param("contact", contactId).param("walkIn", walkIn).param("groups", String.join("\n", groups)).update(key, "id");
        return Known.id(key);
    }

    Optional<Basket> byId(long id) {
        Map<Long, Map<Long, Instant>> waivers = waivers("basket_id = ?", id);
        return jdbc.sql(SELECT + "WHERE id = :id").param("id", id).query((row, n) -> basket(row, waivers)).optional();
    }

    List<Basket> byIds(Collection<Long> ids) {
        return IdChunks.ask(ids, some -> {
            Map<Long, Map<Long, Instant>> waivers = waivers("basket_id = ANY(?)", (Object) some);
            return jdbc.sql(SELECT + "WHERE id = ANY(?) ORDER BY id").param(some).query((row, n) -> basket(row, waivers)).list();
        });
    }

    /** The baskets of these contacts, in whatever round. */
    List<Basket> ofContacts(Collection<Long> contactIds) {
        Long[] wanted = contactIds.toArray(Long[]::new);
        Map<Long, Map<Long, Instant>> waivers = waivers("basket_id IN (SELECT id FROM seen_basket basket WHERE contact_id = ANY(?))", (Object) wanted);
        return jdbc.sql(SELECT + "WHERE contact_id = ANY(?) ORDER BY round_id DESC, id").param(wanted).query((row, n) -> basket(row, waivers)).list();
    }

    /** The basket of a contact, locked until the end of the transaction. */
    Optional<Basket> lockOfContact(long roundId, long contactId) {
        return jdbc.sql(SELECT + "WHERE round_id = :round AND contact_id = :contact FOR UPDATE").param("round", roundId)
                .param("contact", contactId).query((row, n) -> basket(row, Map.of())).optional();
    }

    List<Basket> ofRound(long roundId) {
        Map<Long, Map<Long, Instant>> waivers = waivers("basket_id IN (SELECT id FROM seen_basket basket WHERE round_id = ?)", roundId);
        return jdbc.sql(SELECT + "WHERE round_id = :round ORDER BY id").param("round", roundId).query((row, n) -> basket(row, waivers)).list();
    }

    List<LocalDate> extensionsOf(long roundId) {
        return jdbc.sql("SELECT DISTINCT extension_date FROM seen_basket basket WHERE round_id = :round AND extension_date IS NOT NULL").param("round", roundId).query(LocalDate.class).list();
    }

    Map<Long, List<LocalDate>> extensions() {
        Map<Long, List<LocalDate>> extensions = new HashMap<>();
        jdbc.sql("SELECT DISTINCT round_id, extension_date FROM seen_basket basket WHERE extension_date IS NOT NULL").query(row -> {
            extensions.computeIfAbsent(row.getLong("round_id"), id -> new ArrayList<>()).add(row.getObject("extension_date", LocalDate.class));
        });
        return extensions;
    }

    /** How many rows changed: 0 when it was asked before. */
    int asked(long id, Instant at) {
        return jdbc.sql("UPDATE basket SET asked_at = :at WHERE id = :id AND asked_at IS NULL").param("at", at).param("id", id).update();
    }

    int opened(long id, Instant at) {
        return jdbc.sql("UPDATE basket SET opened_at = :at WHERE id = :id AND opened_at IS NULL").param("at", at).param("id", id).update();
    }

    /** How many rows changed: 0 when it was changed since {@code version}. */
    int allow(Basket before, int version, Allowance next) {
        int changed = jdbc.sql("""
                UPDATE basket SET waived_at = :waived, extension_date = :extension, extension_time = NULL, extension_reason = :reason, paused_at = :paused,
                    removed_at = :removed, note = :note, version = version + 1
                WHERE id = :id AND version = :version""")
                .param("waived", next.waivedAt()).param("extension", next.extension()).param("reason", next.extensionReason()).param("paused", next.pausedAt())
                .param("removed", next.removedAt()).param("note", next.note()).param("id", before.id()).param("version", version).update();
        if (changed == 1 && !next.waivedItems().equals(before.allowance().waivedItems())) {
            jdbc.sql("DELETE FROM waiver WHERE basket_id = :id").param("id", before.id()).update();
            next.waivedItems().forEach((item, at) -> jdbc.sql("INSERT INTO waiver (basket_id, item_id, waived_at) VALUES (:basket, :item, :at)")
                    .param("basket", before.id()).param("item", item).param("at", at).update());
        }
        return changed;
    }

    boolean anySubmission(long id) {
        return jdbc.sql("SELECT EXISTS (SELECT 1 FROM seen_submission submission WHERE basket_id = :id)").param("id", id).query(Boolean.class).single();
    }

    void delete(long id) {
        jdbc.sql("DELETE FROM basket WHERE id = :id").param("id", id).update();
    }

    /** Puts a removed basket back as one of somebody who came unasked. */
    void comeBack(long id) {
        jdbc.sql("UPDATE basket SET removed_at = NULL, walk_in = TRUE, version = version + 1 WHERE id = :id AND removed_at IS NOT NULL").param("id", id).update();
    }

    void give(long id, long contactId) {
        jdbc.sql("UPDATE basket SET contact_id = :contact, version = version + 1 WHERE id = :id").param("contact", contactId).param("id", id).update();
    }

    void remove(long id, @Nullable Instant at) {
        jdbc.sql("UPDATE basket SET removed_at = :at, version = version + 1 WHERE id = :id").param("at", at).param("id", id).update();
    }

    private Map<Long, Map<Long, Instant>> waivers(String where, Object parameter) {
        Map<Long, Map<Long, Instant>> waivers = new HashMap<>();
        jdbc.sql("SELECT basket_id, item_id, waived_at FROM waiver WHERE " + where).param(parameter).query(row -> {
            waivers.computeIfAbsent(row.getLong("basket_id"), id -> new HashMap<>()).put(row.getLong("item_id"), row.getObject("waived_at", Instant.class));
        });
        return waivers;
    }

    private static Basket basket(ResultSet row, Map<Long, Map<Long, Instant>> waivers) throws SQLException {
        long id = row.getLong("id");
        Allowance allowance = new Allowance(row.getObject("extension_date", LocalDate.class), row.getString("extension_reason"), row.getObject("waived_at", Instant.class),
                waivers.getOrDefault(id, Map.of()), row.getObject("paused_at", Instant.class), row.getObject("removed_at", Instant.class), row.getString("note"));
        String groups = row.getString("groups_then");
        return new Basket(id, row.getLong("round_id"), row.getLong("contact_id"), row.getInt("version"), row.getBoolean("walk_in"),
                row.getObject("asked_at", Instant.class), row.getObject("opened_at", Instant.class), allowance, groups.isEmpty() ? List.of() : List.of(groups.split("\n")));
    }
}
