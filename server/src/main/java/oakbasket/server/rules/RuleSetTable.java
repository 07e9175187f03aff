package oakbasket.server.rules;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import oakbasket.core.filing.FilingRule;
import org.jspecify.annotations.Nullable;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import tools.jackson.databind.json.JsonMapper;

/** All SQL of the table rule_set. */
@Repository
class RuleSetTable {

    private record Row(int version, String rules) {
    }

    private final JdbcClient jdbc;
    private final JsonMapper json;

    RuleSetTable(JdbcClient jdbc, JsonMapper json) {
        this.jdbc = jdbc;
        this.json = json;
    }

    Optional<RuleSet> newest(long round) {
        return jdbc.sql("SELECT version, rules FROM seen_rule_set rule_set WHERE round_id = :round ORDER BY version DESC FETCH FIRST ROW ONLY").param("round", round).query(Row.class).optional()
                .map(row -> read(round, row));
    }

    List<Long> rounds() {
        return jdbc.sql("SELECT DISTINCT round_id FROM seen_rule_set rule_set").query(Long.class).list();
    }

    Optional<RuleSet> version(long round, int version) {
        return jdbc.sql("SELECT version, rules FROM seen_rule_set rule_set WHERE round_id = :round AND version = :version").param("round", round).param("version", version).query(Row.class).optional()
                .map(row -> read(round, row));
    }

    private RuleSet read(long round, Row row) {
        return new RuleSet(round, row.version(), List.of(json.readValue(row.rules(), FilingRule[].class)));
    }

    /** False when that version is there already. */
    boolean insert(RuleSet set, Instant at, @Nullable Long account) {
        try {
            jdbc.sql("INSERT INTO rule_set (round_id, version, rules, changed_at, changed_by) VALUES (:round, :version, :rules, :at, :account)").param("round", set.roundId())
                    .param("version", set.version()).param("rules", json.writeValueAsString(set.rules())).param("at", at).param("account", account).update();
            return true;
        } catch (DuplicateKeyException meanwhile) {
            return false;
        }
    }
}
