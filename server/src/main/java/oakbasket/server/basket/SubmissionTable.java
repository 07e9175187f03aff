package oakbasket.server.basket;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import oakbasket.core.identity.Claim;
import oakbasket.core.identity.Person;
import oakbasket.core.link.LinkUse;
import oakbasket.server.storage.IdChunks;
import oakbasket.server.storage.Known;
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

    /** A submission of somebody known: its basket stands from the beginning. */
    long insert(long basketId, long linkId, byte[] keyHash, String receiptCode, Instant now) {
        KeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("INSERT INTO submission (basket_id, link_id, key_hash, receipt_code, started_at) VALUES (:basket, :link, :key, :code, :now)")
                .param("basket", basketId).param("link", linkId).param("key", keyHash).param("code", receiptCode).param("now", now).update(key, "id");
        return Known.id(key);
    }

    /** A sending that a coordinator puts in; it is finished when it begins. */
    long insertByDesk(long basketId, long linkId, byte[] keyHash, String receiptCode, Instant now) {
        KeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                INSERT INTO submission (basket_id, link_id, key_hash, receipt_code, started_at, finished_at, by_desk)
                VALUES (:basket, :link, :key, :code, :now, :now, TRUE)""").param("basket", basketId).param("link", linkId).param("key", keyHash).param("code", receiptCode).param("now", now).update(key, "id");
        return Known.id(key);
    }

    /** A sending that came by mail from an address that is sure. */
    long insertByMail(long basketId, long linkId, byte[] keyHash, String receiptCode, Person sender, String note, Instant now) {
        KeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                INSERT INTO submission (basket_id, link_id, key_hash, receipt_code, declared_name, declared_email, declared_key, confirmed_at, started_at, finished_at, by_desk, by_mail, note)
                VALUES (:basket, :link, :key, :code, :name, :email, :mailbox, :now, :now, :now, TRUE, TRUE, :note)""").param("basket", basketId).param("link", linkId).param("key", keyHash)
                .param("code", receiptCode).param("name", sender.name()).param("email", sender.address().text()).param("mailbox", sender.address().key()).param("note", note).param("now", now).update(key, "id");
        return Known.id(key);
    }

    /** A submission of somebody who only says who they are; it gets its basket with its first file. */
    long insert(Person declared, byte @Nullable [] caller, long linkId, byte[] keyHash, String receiptCode, Instant now) {
        KeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                INSERT INTO submission (link_id, key_hash, receipt_code, declared_name, declared_email, declared_key, caller_hash, started_at)
                VALUES (:link, :key, :code, :name, :email, :mailbox, :caller, :now)""")
                .param("link", linkId).param("key", keyHash).param("code", receiptCode).param("name", declared.name()).param("email", declared.address().text())
                .param("mailbox", declared.address().key()).param("caller", caller).param("now", now).update(key, "id");
        return Known.id(key);
    }

    /** Corrects who the sender says they are. Another address is not confirmed, and a code mailed to the old one is none for it. */
    void declare(long id, Person declared) {
        jdbc.sql("""
                UPDATE submission SET declared_name = :name, declared_email = :email,
                    confirmed_at = CASE WHEN declared_key = :mailbox THEN confirmed_at END, code_hash = CASE WHEN declared_key = :mailbox THEN code_hash END, declared_key = :mailbox WHERE id = :id""").param("name", declared.name())
                .param("email", declared.address().text()).param("mailbox", declared.address().key()).param("id", id).update();
    }

    /** Gives it its basket. */
    void bind(long id, long basketId, @Nullable Claim claim) {
        jdbc.sql("UPDATE submission SET basket_id = :basket, claim = :claim, claim_decided_at = NULL, claim_decided_by = NULL WHERE id = :id").param("basket", basketId)
                .param("claim", claim == null ? null : claim.name()).param("id", id).update();
    }

    /** The submission, which stays as it is until the end of the caller's transaction. */
    Submission lock(long id) {
        return jdbc.sql("SELECT * FROM submission WHERE id = :id FOR UPDATE").param("id", id).query(Submission.class).single();
    }

    /** How many rows changed: 0 when somebody decided otherwise meanwhile. */
    int decide(long id, Claim from, Claim to, Instant at, @Nullable Long account) {
        return jdbc.sql("UPDATE submission SET claim = :to, claim_decided_at = :at, claim_decided_by = :account WHERE id = :id AND claim = :from").param("to", to.name())
                .param("at", to == Claim.OPEN ? null : at).param("account", to == Claim.OPEN ? null : account).param("id", id).param("from", from.name()).update();
    }

    /** The submissions through one link by the same declared address from the same caller, as far as both can be told. */
    List<Long> ofSameSender(long linkId, String declaredKey, byte @Nullable [] caller) {
        return jdbc.sql("SELECT id FROM seen_submission submission WHERE link_id = :link AND declared_key = :key AND caller_hash IS NOT DISTINCT FROM :caller").param("link", linkId)
                .param("key", declaredKey).param("caller", caller).query(Long.class).list();
    }

    /** Ids of submissions begun before an instant that never got anything. */
    int removeEmpty(Instant before) {
        return jdbc.sql("""
                DELETE FROM submission WHERE basket_id IS NULL AND started_at < :before
                AND NOT EXISTS (SELECT 1 FROM upload WHERE upload.submission_id = submission.id)""").param("before", before).update();
    }

    int keepCode(long id, byte[] hash, Instant until) {
        return jdbc.sql("UPDATE submission SET code_hash = :hash, code_until = :until, code_tries = 0 WHERE id = :id").param("hash", hash).param("until", until).param("id", id).update();
    }

    int countCodeTry(long id, int most, Instant now) {
        return jdbc.sql("UPDATE submission SET code_tries = code_tries + 1 WHERE id = :id AND code_hash IS NOT NULL AND code_until > :now AND code_tries < :most").param("id", id)
                .param("now", now).param("most", most).update();
    }

    int confirm(long id, Instant now) {
        return jdbc.sql("UPDATE submission SET confirmed_at = :now, code_hash = NULL, code_until = NULL WHERE id = :id AND confirmed_at IS NULL").param("now", now).param("id", id).update();
    }

    void count(long id, long bytes, Instant at) {
        jdbc.sql("UPDATE submission SET files = files + 1, bytes = bytes + :bytes, last_file_at = :at WHERE id = :id").param("bytes", bytes).param("at", at).param("id", id).update();
    }

    LinkUse through(long linkId) {
        return jdbc.sql("SELECT COUNT(*) AS uses, COALESCE(SUM(files), 0) AS files, COALESCE(SUM(bytes), 0) AS bytes FROM seen_submission submission WHERE link_id = :link AND files > 0 AND NOT by_desk")
                .param("link", linkId).query(LinkUse.class).single();
    }

    Optional<Submission> byKeyHash(byte[] hash) {
        return jdbc.sql("SELECT * FROM seen_submission submission WHERE key_hash = :hash").param("hash", hash).query(Submission.class).optional();
    }

    Optional<Submission> byId(long id) {
        return jdbc.sql("SELECT * FROM seen_submission submission WHERE id = :id").param("id", id).query(Submission.class).optional();
    }

    List<Submission> ofBasket(long basketId) {
        return jdbc.sql("SELECT * FROM seen_submission submission WHERE basket_id = :basket ORDER BY id").param("basket", basketId).query(Submission.class).list();
    }

    void move(List<Long> ids, long basketId) {
        jdbc.sql("UPDATE submission SET basket_id = ? WHERE id = ANY(?)").param(basketId).param(ids.toArray(Long[]::new)).update();
    }

    List<Submission> undecided(int most) {
        return jdbc.sql("""
                SELECT * FROM seen_submission submission WHERE files > 0 AND basket_id IS NOT NULL AND declared_email IS NOT NULL AND NOT by_desk
                AND (claim = 'OPEN' OR claim IS NULL AND confirmed_at IS NULL AND sender_seen_at IS NULL) ORDER BY id FETCH FIRST :most ROWS ONLY""").param("most", most).query(Submission.class).list();
    }

    int seeSenders(java.util.Collection<Long> ids, @Nullable Instant at) {
        return jdbc.sql("UPDATE submission SET sender_seen_at = ? WHERE id = ANY(?) AND (sender_seen_at IS NULL) = ?").param(1, at, java.sql.Types.TIMESTAMP_WITH_TIMEZONE)
                .param(2, ids.toArray(Long[]::new)).param(3, at != null).update();
    }

    Optional<Submission> byReceipt(String code) {
        return jdbc.sql("SELECT * FROM seen_submission submission WHERE receipt_code = :code").param("code", code).query(Submission.class).optional();
    }

    List<Submission> byIds(java.util.Collection<Long> ids) {
        return IdChunks.ask(ids, some -> jdbc.sql("SELECT * FROM seen_submission submission WHERE id = ANY(?)").param(some).query(Submission.class).list());
    }

    int finish(long id, String note, Instant at) {
        return jdbc.sql("UPDATE submission SET finished_at = :at, note = :note WHERE id = :id AND finished_at IS NULL").param("at", at).param("note", note).param("id", id).update();
    }
}
