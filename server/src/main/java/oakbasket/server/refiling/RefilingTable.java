package oakbasket.server.refiling;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import oakbasket.server.journal.Why;
import oakbasket.server.storage.Known;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import tools.jackson.databind.json.JsonMapper;

/** All SQL of the tables refiling and refiling_step. */
@Repository
class RefilingTable {

    private static final String SELECT = """
            SELECT r.id, r.round_id, r.undoes, r.total, r.begun_at, r.begun_by, r.ended_at,
                   (SELECT COUNT(*) FROM refiling_step s WHERE s.refiling_id = r.id AND s.state = 'DONE') AS done,
                   (SELECT COUNT(*) FROM refiling_step s WHERE s.refiling_id = r.id AND s.state = 'FAILED') AS failed,
                   EXISTS (SELECT 1 FROM seen_refiling u WHERE u.undoes = r.id) AS undone
            FROM seen_refiling r
            """;

    private final JdbcClient jdbc;
    private final JdbcTemplate many;
    private final JsonMapper json;

    RefilingTable(JdbcClient jdbc, JdbcTemplate many, JsonMapper json) {
        this.jdbc = jdbc;
        this.many = many;
        this.json = json;
    }

    long insert(long round, @Nullable Long undoes, int total, Instant at, long account) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("INSERT INTO refiling (round_id, undoes, total, begun_at, begun_by) VALUES (:round, :undoes, :total, :at, :account)").param("round", round).param("undoes", undoes)
                .param("total", total).param("at", at).param("account", account).update(key, "id");
        return Known.id(key);
    }

    void insert(long refiling, List<RefilingStep> steps) {
        List<Object[]> rows = new ArrayList<>();
        for (RefilingStep step : steps) {
            rows.add(new Object[] {refiling, step.number(), step.fileId(), step.fromPlace(), step.toPlace(), json.writeValueAsString(step.why()), step.state().name(), "", step.undoes()});
        }
        many.batchUpdate("INSERT INTO refiling_step (refiling_id, number, file_id, from_place, to_place, why, state, problem, undoes) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)", rows);
    }

    Optional<Refiling> byId(long id) {
        return jdbc.sql(SELECT + "WHERE r.id = :id").param("id", id).query(Refiling.class).optional();
    }

    List<Refiling> newest(int most) {
        return jdbc.sql(SELECT + "ORDER BY r.id DESC FETCH FIRST :most ROWS ONLY").param("most", most).query(Refiling.class).list();
    }

    List<Refiling> unended() {
        return jdbc.sql(SELECT + "WHERE r.ended_at IS NULL ORDER BY r.id").query(Refiling.class).list();
    }

    List<RefilingStep> steps(long refiling, RefilingStep.State state, int after, int most) {
        return jdbc.sql("""
                SELECT number, file_id, from_place, to_place, why, state, problem, undoes FROM refiling_step
                WHERE refiling_id = :id AND state = :state AND number > :after ORDER BY number FETCH FIRST :most ROWS ONLY""").param("id", refiling).param("state", state.name())
                .param("after", after).param("most", most).query(this::step).list();
    }

    void settle(long refiling, int number, RefilingStep.State state, String problem) {
        jdbc.sql("UPDATE refiling_step SET state = :state, problem = :problem WHERE refiling_id = :id AND number = :number").param("state", state.name()).param("problem", problem)
                .param("id", refiling).param("number", number).update();
    }

    void end(long refiling, Instant at) {
        jdbc.sql("UPDATE refiling SET ended_at = :at WHERE id = :id").param("at", at).param("id", refiling).update();
    }

    private RefilingStep step(ResultSet row, int number) throws SQLException {
        return new RefilingStep(row.getInt("number"), row.getLong("file_id"), row.getString("from_place"), row.getString("to_place"), json.readValue(row.getString("why"), Why.class),
                RefilingStep.State.valueOf(row.getString("state")), row.getString("problem"), row.getObject("undoes", Long.class));
    }
}
