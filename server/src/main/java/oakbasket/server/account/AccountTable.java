package oakbasket.server.account;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import oakbasket.core.team.Role;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** All SQL of the table account. */
@Repository
class AccountTable {

    record WithPassword(Account account, String passwordHash) {
    }

    /** The secret of the second factor, sealed, and the last step of time that was used of it. */
    record Totp(byte[] sealed, long step) {
    }

    private final JdbcClient jdbc;

    AccountTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    boolean any() {
        return jdbc.sql("SELECT EXISTS (SELECT 1 FROM account)").query(Boolean.class).single();
    }

    void insert(String name, String email, String emailKey, String passwordHash, Role role, Instant now) {
        jdbc.sql("""
                INSERT INTO account (name, email, email_key, password_hash, role, created_at, last_look)
                VALUES (:name, :email, :key, :hash, :role, :now, :now)""")
                .param("role", role.name())
                .param("name", name).param("email", email).param("key", emailKey).param("hash", passwordHash).param("now", now).update();
    }

    Optional<WithPassword> find(String emailKey) {
        return jdbc.sql("SELECT * FROM account WHERE email_key = :key AND ended_at IS NULL").param("key", emailKey)
                .query((row, n) -> new WithPassword(account(row), row.getString("password_hash"))).optional();
    }

    Optional<Account> byId(long id) {
        return jdbc.sql("SELECT * FROM account WHERE id = :id AND ended_at IS NULL").param("id", id).query((row, n) -> account(row)).optional();
    }

    void setPassword(long id, String hash) {
        jdbc.sql("UPDATE account SET password_hash = :hash WHERE id = :id").param("hash", hash).param("id", id).update();
    }

    boolean known(String emailKey) {
        return jdbc.sql("SELECT EXISTS (SELECT 1 FROM account WHERE email_key = :key)").param("key", emailKey).query(Boolean.class).single();
    }

    /** Everybody, who left included. */
    List<Member> members() {
        return jdbc.sql("SELECT id, name, email, role, created_at AS since, ended_at, version, totp_sealed IS NOT NULL AS second_factor FROM account ORDER BY LOWER(name), id").query(Member.class).list();
    }

    /** How many rows changed: 0 when the version is not the newest. */
    int setRole(long id, int version, Role role) {
        return jdbc.sql("UPDATE account SET role = :role, version = version + 1 WHERE id = :id AND version = :version AND ended_at IS NULL").param("role", role.name()).param("id", id).param("version", version).update();
    }

    /** How many rows changed: 0 when the version is not the newest. */
    int end(long id, int version, @Nullable Instant at) {
        return jdbc.sql("UPDATE account SET ended_at = :at, version = version + 1 WHERE id = :id AND version = :version").param("at", at).param("id", id).param("version", version).update();
    }

    Optional<Totp> totp(long id) {
        return jdbc.sql("SELECT totp_sealed, totp_step FROM account WHERE id = :id AND totp_sealed IS NOT NULL").param("id", id).query((row, n) -> new Totp(row.getBytes("totp_sealed"), row.getLong("totp_step"))).optional();
    }

    void setTotp(long id, byte @Nullable [] sealed, long step) {
        jdbc.sql("UPDATE account SET totp_sealed = :sealed, totp_step = :step WHERE id = :id").param("sealed", sealed).param("step", step).param("id", id).update();
    }

    /** How many rows changed: 0 when this step or a later one was used before. */
    int useStep(long id, long step) {
        return jdbc.sql("UPDATE account SET totp_step = :step WHERE id = :id AND totp_step < :step").param("step", step).param("id", id).update();
    }

    void setSpareCodes(long id, List<String> hashes) {
        jdbc.sql("DELETE FROM spare_code WHERE account_id = :id").param("id", id).update();
        hashes.forEach(hash -> jdbc.sql("INSERT INTO spare_code (account_id, code_hash) VALUES (:id, :hash)").param("id", id).param("hash", hash).update());
    }

    int spareCodes(long id) {
        return jdbc.sql("SELECT COUNT(*) FROM spare_code WHERE account_id = :id").param("id", id).query(Integer.class).single();
    }

    /** How many rows changed: 0 when there is no such code. */
    int useSpareCode(long id, String hash) {
        return jdbc.sql("DELETE FROM spare_code WHERE account_id = :id AND code_hash = :hash").param("id", id).param("hash", hash).update();
    }

    void look(long id, Instant now) {
        jdbc.sql("UPDATE account SET last_look = :now WHERE id = :id").param("now", now).param("id", id).update();
    }

    private static Account account(ResultSet row) throws SQLException {
        return new Account(row.getLong("id"), row.getString("name"), row.getString("email"), Role.valueOf(row.getString("role")), row.getObject("last_look", Instant.class));
    }

    Map<Long, String> names(Collection<Long> ids) {
        Map<Long, String> names = new HashMap<>();
        jdbc.sql("SELECT id, name FROM account WHERE id = ANY(?)").param(ids.toArray(Long[]::new)).query(row -> {
            names.put(row.getLong("id"), row.getString("name"));
        });
        return names;
    }
}
