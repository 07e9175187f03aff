package oakbasket.server.apppassword;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** All SQL of the table app_password. */
@Repository
class AppPasswordTable {

    /** Whose a password is. */
    record Owner(long id, long accountId) {
    }

    private final JdbcClient jdbc;

    AppPasswordTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    List<AppPassword> of(long account) {
        return jdbc.sql("SELECT id, name, created_at, last_used FROM app_password WHERE account_id = :account AND revoked_at IS NULL ORDER BY id").param("account", account).query(AppPassword.class).list();
    }

    void insert(long account, String name, byte[] hash, Instant at) {
        jdbc.sql("INSERT INTO app_password (account_id, name, hash, created_at) VALUES (:account, :name, :hash, :at)").param("account", account).param("name", name).param("hash", hash)
                .param("at", at).update();
    }

    int revoke(long id, long account, Instant at) {
        return jdbc.sql("UPDATE app_password SET revoked_at = :at WHERE id = :id AND account_id = :account AND revoked_at IS NULL").param("at", at).param("id", id).param("account", account).update();
    }

    Optional<Owner> owner(byte[] hash, String emailKey) {
        return jdbc.sql("SELECT p.id, p.account_id FROM app_password p JOIN account a ON a.id = p.account_id WHERE p.hash = :hash AND a.ended_at IS NULL AND a.email_key = :email AND p.revoked_at IS NULL").param("hash", hash)
                .param("email", emailKey).query(Owner.class).optional();
    }

    void used(long id, Instant at) {
        jdbc.sql("UPDATE app_password SET last_used = :at WHERE id = :id").param("at", at).param("id", id).update();
    }
}
