package oakbasket.server.keptplan;

import java.time.Instant;
import java.util.List;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** All SQL of the table kept_plan. */
@Repository
class KeptPlanTable {

    /** @param plan as JSON */
    record Row(long id, String name, String plan) {
    }

    private final JdbcClient jdbc;

    KeptPlanTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    List<Row> all() {
        return jdbc.sql("SELECT id, name, plan FROM kept_plan ORDER BY name").query(Row.class).list();
    }

    int replace(String name, String plan) {
        return jdbc.sql("UPDATE kept_plan SET plan = :plan WHERE name = :name").param("plan", plan).param("name", name).update();
    }

    int insert(String name, String plan, Instant now) {
        return jdbc.sql("INSERT INTO kept_plan (name, plan, made_at) VALUES (:name, :plan, :now)").param("name", name).param("plan", plan).param("now", now).update();
    }

    int delete(long id) {
        return jdbc.sql("DELETE FROM kept_plan WHERE id = :id").param("id", id).update();
    }
}
