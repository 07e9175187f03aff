package oakbasket.server.account;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** All SQL of the table account. */
@Repository
class AccountTable {

    record WithPassword(Account account, String passwordHash) {
    }

    private final JdbcClient jdbc;

    AccountTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    boolean any() {
        return jdbc.sql("SELECT EXISTS (SELECT 1 FROM account)").query(Boolean.class).single();
    }

    void insert(String name, String email, String emailKey, String passwordHash, Instant now) {
        jdbc.sql("""
                INSERT INTO account (name, email, email_key, password_hash, created_at, last_look)
                VALUES (:name, :email, :key, :hash, :now, :now)""")
                .param("name", name).param("email", email).param("key", emailKey).param("hash", passwordHash).param("now", now).update();
    }

    Optional<WithPassword> find(String emailKey) {
        return jdbc.sql("SELECT * FROM account WHERE email_key = :key").param("key", emailKey)
                .query((row, n) -> new WithPassword(account(row), row.getString("password_hash"))).optional();
    }

    Optional<Account> byId(long id) {
        return jdbc.sql("SELECT * FROM account WHERE id = :id").param("id", id).query((row, n) -> account(row)).optional();
    }

    void setPassword(long id, String hash) {
        jdbc.sql("UPDATE account SET password_hash = :hash WHERE id = :id").param("hash", hash).param("id", id).update();
    }

    void look(long id, Instant now) {
        jdbc.sql("UPDATE account SET last_look = :now WHERE id = :id").param("now", now).param("id", id).update();
    }

    private static Account account(ResultSet row) throws SQLException {
        return new Account(row.getLong("id"), row.getString("name"), row.getString("email"), row.getObject("last_look", Instant.class));
    }

    Map<Long, String> names(Collection<Long> ids) {
        Map<Long, String> names = new HashMap<>();
        jdbc.sql("SELECT id, name FROM account WHERE id = ANY(?)").param(ids.toArray(Long[]::new)).query(row -> {
            names.put(row.getLong("id"), row.getString("name"));
        });
        return names;
    }
}
