package oakbasket.server.digest;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** All SQL of the table digest_setting. */
@Repository
class DigestTable {

    private static final String SELECT = "SELECT account_id, plan, muted, told_file, told_at, told_taken, problem FROM digest_setting ";

    private final JdbcClient jdbc;

    DigestTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    Optional<Wanted> of(long account) {
        return jdbc.sql(SELECT + "WHERE account_id = :account").param("account", account).query(Wanted.class).optional();
    }

    List<Wanted> all() {
        return jdbc.sql(SELECT + "WHERE plan <> 'NEVER' AND account_id IN (SELECT id FROM account WHERE ended_at IS NULL)").query(Wanted.class).list();
    }

    void put(Wanted wanted) {
        jdbc.sql("""
                MERGE INTO digest_setting (account_id, plan, muted, told_file, told_at, told_taken, problem) KEY (account_id)
                VALUES (:account, :plan, :muted, :file, :at, :taken, :problem)""").param("taken", wanted.toldTaken()).param("account", wanted.accountId()).param("plan", wanted.plan().name()).param("muted", wanted.muted())
                .param("file", wanted.toldFile()).param("at", wanted.toldAt()).param("problem", wanted.problem()).update();
    }

    /** Remembers up to what was told, where nobody changed what is wanted meanwhile. */
    int told(Wanted before, long file, Instant at, Instant taken, String problem) {
        return jdbc.sql("UPDATE digest_setting SET told_file = :file, told_at = :at, told_taken = :taken, problem = :problem WHERE account_id = :account AND told_file = :before").param("file", file).param("at", at)
                .param("taken", taken).param("problem", problem).param("account", before.accountId()).param("before", before.toldFile()).update();
    }

    /** Up to when an account was told of links that end soon. */
    Optional<Instant> toldEnding(long account) {
        return jdbc.sql("SELECT told_ending FROM digest_setting WHERE account_id = :account AND told_ending IS NOT NULL").param("account", account).query(Instant.class).optional();
    }

    int toldEnding(long account, Instant at) {
        return jdbc.sql("UPDATE digest_setting SET told_ending = :at WHERE account_id = :account").param("at", at).param("account", account).update();
    }
}
