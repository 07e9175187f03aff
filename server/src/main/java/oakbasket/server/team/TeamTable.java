package oakbasket.server.team;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import oakbasket.core.identity.Person;
import oakbasket.core.team.Role;
import oakbasket.server.storage.Known;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.jdbc.support.KeyHolder;
import org.springframework.stereotype.Repository;

/** All SQL of the tables invitation and password_reset. */
@Repository
class TeamTable {

    private static final String SELECT = "SELECT id, name, email, role, invited_by, made_at, ends_at, trouble FROM invitation ";

    private final JdbcClient jdbc;

    TeamTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    long invite(Person person, Role role, byte[] tokenHash, long by, Instant now, Instant ends) {
        KeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                INSERT INTO invitation (name, email, email_key, role, token_hash, invited_by, made_at, ends_at)
                VALUES (:name, :email, :key, :role, :token, :by, :now, :ends)""").param("name", person.name()).param("email", person.address().text()).param("key", person.address().key())
                .param("role", role.name()).param("token", tokenHash).param("by", by).param("now", now).param("ends", ends).update(key, "id");
        return Known.id(key);
    }

    List<Invitation> invitations() {
        return jdbc.sql(SELECT + "ORDER BY LOWER(name), id").query(Invitation.class).list();
    }

    Optional<Invitation> invitation(long id) {
        return jdbc.sql(SELECT + "WHERE id = :id").param("id", id).query(Invitation.class).optional();
    }

    Optional<Invitation> byToken(byte[] hash) {
        return jdbc.sql(SELECT + "WHERE token_hash = :hash").param("hash", hash).query(Invitation.class).optional();
    }

    boolean invited(String emailKey) {
        return jdbc.sql("SELECT EXISTS (SELECT 1 FROM invitation WHERE email_key = :key)").param("key", emailKey).query(Boolean.class).single();
    }

    int withdraw(long id) {
        return jdbc.sql("DELETE FROM invitation WHERE id = :id").param("id", id).update();
    }

    int again(long id, byte[] tokenHash, Instant ends) {
        return jdbc.sql("UPDATE invitation SET token_hash = :token, ends_at = :ends, trouble = '' WHERE id = :id").param("token", tokenHash).param("ends", ends).param("id", id).update();
    }

    void trouble(long id, String why) {
        jdbc.sql("UPDATE invitation SET trouble = :why WHERE id = :id").param("why", why).param("id", id).update();
    }

    void reset(long account, byte[] tokenHash, Instant ends) {
        jdbc.sql("MERGE INTO password_reset (account_id, token_hash, ends_at) KEY (account_id) VALUES (:account, :token, :ends)").param("account", account).param("token", tokenHash).param("ends", ends).update();
    }

    Optional<Long> resets(byte[] tokenHash, Instant now) {
        return jdbc.sql("SELECT account_id FROM password_reset WHERE token_hash = :token AND ends_at > :now").param("token", tokenHash).param("now", now).query(Long.class).optional();
    }

    int resetDone(long account) {
        return jdbc.sql("DELETE FROM password_reset WHERE account_id = :account").param("account", account).update();
    }
}
