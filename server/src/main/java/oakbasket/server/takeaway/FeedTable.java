package oakbasket.server.takeaway;

import java.time.Instant;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** All SQL of the table calendar_feed. */
@Repository
class FeedTable {

    private final JdbcClient jdbc;

    FeedTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    void set(long account, byte[] hash, byte[] sealed, Instant now) {
        jdbc.sql("MERGE INTO calendar_feed (account_id, token_hash, token_sealed, created_at) KEY (account_id) VALUES (:account, :hash, :sealed, :now)").param("account", account)
                .param("hash", hash).param("sealed", sealed).param("now", now).update();
    }

    int delete(long account) {
        return jdbc.sql("DELETE FROM calendar_feed WHERE account_id = :account").param("account", account).update();
    }

    Optional<byte[]> sealed(long account) {
        return jdbc.sql("SELECT token_sealed FROM calendar_feed WHERE account_id = :account").param("account", account).query((row, n) -> row.getBytes(1)).optional();
    }

    /** The account whose feed it is; nobody where they left the office. */
    Optional<Long> account(byte[] hash) {
        return jdbc.sql("SELECT f.account_id FROM calendar_feed f JOIN account a ON a.id = f.account_id WHERE f.token_hash = :hash AND a.ended_at IS NULL").param("hash", hash).query(Long.class).optional();
    }
}
