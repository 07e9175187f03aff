package oakbasket.server.post;

import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** All SQL of the table letter_look. */
@Repository
class LetterLookTable {

    private final JdbcClient jdbc;

    LetterLookTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** Until when each round was looked at. */
    Map<Long, Instant> all() {
        Map<Long, Instant> looks = new HashMap<>();
        jdbc.sql("SELECT round_id, looked_at FROM seen_letter_look letter_look").query(row -> {
            looks.put(row.getLong("round_id"), row.getObject("looked_at", Instant.class));
        });
        return looks;
    }

    void looked(long roundId, Instant at) {
        jdbc.sql("MERGE INTO letter_look (round_id, looked_at) VALUES (:round, :at)").param("round", roundId).param("at", at).update();
    }

    /** Forgets rounds that no longer gather, so that one that is reopened begins anew. */
    void keepOnly(List<Long> rounds) {
        jdbc.sql("DELETE FROM letter_look WHERE NOT (round_id = ANY(?))").param(rounds.toArray(Long[]::new)).update();
    }
}
