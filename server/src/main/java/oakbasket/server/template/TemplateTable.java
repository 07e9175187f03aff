package oakbasket.server.template;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** All SQL of the table round_template. */
@Repository
class TemplateTable {

    /** Something kept for another time; {@code kind} is {@code CHECKLIST} or {@code ROUND}. */
    record Template(long id, String kind, String name, String sheet, Instant changedAt) {
    }

    private final JdbcClient jdbc;

    TemplateTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    List<Template> all() {
        return jdbc.sql("SELECT id, kind, name, sheet, changed_at FROM round_template ORDER BY kind, LOWER(name)").query(Template.class).list();
    }

    Optional<Template> byId(long id) {
        return jdbc.sql("SELECT id, kind, name, sheet, changed_at FROM round_template WHERE id = :id").param("id", id).query(Template.class).optional();
    }

    /** Keeps one, instead of another of that kind and name. */
    void keep(String kind, String name, String sheet, Instant now) {
        jdbc.sql("MERGE INTO round_template (kind, name, sheet, changed_at) KEY (kind, name) VALUES (:kind, :name, :sheet, :now)").param("kind", kind).param("name", name)
                .param("sheet", sheet).param("now", now).update();
    }

    int delete(long id) {
        return jdbc.sql("DELETE FROM round_template WHERE id = :id").param("id", id).update();
    }
}
