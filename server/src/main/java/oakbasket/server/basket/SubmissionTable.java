package oakbasket.server.basket;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import oakbasket.server.storage.IdChunks;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.jdbc.support.KeyHolder;
import org.springframework.stereotype.Repository;

/** All SQL of the table submission. */
@Repository
class SubmissionTable {

    private final JdbcClient jdbc;

    SubmissionTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    long insert(long basketId, long linkId, byte[] keyHash, String receiptCode, @Nullable String name, @Nullable String email, Instant now) {
        KeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                INSERT INTO submission (basket_id, link_id, key_hash, receipt_code, declared_name, declared_email, started_at)
                VALUES (:basket, :link, :key, :code, :name, :email, :now)""")
                .param("basket", basketId).param("link", linkId).param("key", keyHash).param("code", receiptCode).param("name", name)
                .param("email", email).param("now", now).update(key, "id");
        return key.getKeyAs(Long.class);
    }

    Optional<Submission> byKeyHash(byte[] hash) {
        return jdbc.sql("SELECT * FROM submission WHERE key_hash = :hash").param("hash", hash).query(Submission.class).optional();
    }

    Optional<Submission> byId(long id) {
        return jdbc.sql("SELECT * FROM submission WHERE id = :id").param("id", id).query(Submission.class).optional();
    }

    long lockedBasket(long id) {
        return jdbc.sql("SELECT basket_id FROM submission WHERE id = :id FOR UPDATE").param("id", id).query(Long.class).single();
    }

    List<Submission> ofBasket(long basketId) {
        return jdbc.sql("SELECT * FROM submission WHERE basket_id = :basket ORDER BY id").param("basket", basketId).query(Submission.class).list();
    }

    void move(List<Long> ids, long basketId) {
        jdbc.sql("UPDATE submission SET basket_id = ? WHERE id = ANY(?)").param(basketId).param(ids.toArray(Long[]::new)).update();
    }

    Optional<Submission> byReceipt(String code) {
        return jdbc.sql("SELECT * FROM submission WHERE receipt_code = :code").param("code", code).query(Submission.class).optional();
    }

    List<Submission> byIds(java.util.Collection<Long> ids) {
        return IdChunks.ask(ids, some -> jdbc.sql("SELECT * FROM submission WHERE id = ANY(?)").param(some).query(Submission.class).list());
    }

    int finish(long id, Instant at) {
        return jdbc.sql("UPDATE submission SET finished_at = :at WHERE id = :id AND finished_at IS NULL").param("at", at).param("id", id).update();
    }
}
