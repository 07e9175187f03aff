package oakbasket.server.journal;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import oakbasket.core.naming.Folded;
import oakbasket.server.storage.Known;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import tools.jackson.databind.json.JsonMapper;

/** All SQL of the table journal_entry. */
@Repository
class JournalTable {

    private static final String SELECT = """
            SELECT e.id, e.file_id, e.round_id, e.act, e.from_place, e.to_place, e.at, e.account_id, e.why, e.batch_id, e.undoes,
                   EXISTS (SELECT 1 FROM seen_journal_entry u WHERE u.undoes = e.id AND NOT u.begun) AS undone
            FROM seen_journal_entry e
            """;

    private final JdbcClient jdbc;
    private final JsonMapper json;

    JournalTable(JdbcClient jdbc, JsonMapper json) {
        this.jdbc = jdbc;
        this.json = json;
    }

    long insert(long file, long round, Act act, String from, String to, Instant at, @Nullable Long account, Why why, @Nullable Long batch, @Nullable Long undoes, boolean begun) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                INSERT INTO journal_entry (file_id, round_id, act, from_place, to_place, at, account_id, why, batch_id, undoes, begun)
                VALUES (:file, :round, :act, :from, :to, :at, :account, :why, :batch, :undoes, :begun)""")
                .param("file", file).param("round", round).param("act", act.name()).param("from", from).param("to", to).param("at", at).param("account", account)
                .param("why", json.writeValueAsString(why)).param("batch", batch).param("undoes", undoes).param("begun", begun).update(key, "id");
        return Known.id(key);
    }

    void end(long file) {
        jdbc.sql("UPDATE journal_entry SET begun = FALSE WHERE file_id = :file AND begun").param("file", file).update();
    }

    void drop(long file) {
        jdbc.sql("DELETE FROM journal_entry WHERE file_id = :file AND begun").param("file", file).update();
    }

    Optional<JournalEntry> byId(long id) {
        return jdbc.sql(SELECT + "WHERE e.id = :id AND NOT e.begun").param("id", id).query(this::read).optional();
    }

    List<JournalEntry> found(JournalFilter wanted, int most) {
        List<Object> parameters = new ArrayList<>();
        StringBuilder where = new StringBuilder("WHERE NOT e.begun");
        and(where, parameters, " AND e.file_id = ?", wanted.file());
        and(where, parameters, " AND e.round_id = ?", wanted.round());
        and(where, parameters, " AND e.act = ?", wanted.act() == null ? null : wanted.act().name());
        and(where, parameters, " AND e.at >= ?", wanted.from());
        and(where, parameters, " AND e.at < ?", wanted.to());
        and(where, parameters, " AND e.batch_id = ?", wanted.batch());
        and(where, parameters, " AND e.id < ?", wanted.before());
        String find = wanted.find();
        if (find != null && !find.isBlank()) {
            String pattern = "%" + Folded.of(find.strip()).replace("!", "!!").replace("%", "!%").replace("_", "!_") + "%";
            where.append(" AND (FOLDED(e.from_place) LIKE ? ESCAPE '!' OR FOLDED(e.to_place) LIKE ? ESCAPE '!')");
            parameters.add(pattern);
            parameters.add(pattern);
        }
        parameters.add(most);
        return jdbc.sql(SELECT + where + " ORDER BY e.id DESC FETCH FIRST ? ROWS ONLY").params(parameters).query(this::read).list();
    }

    private static void and(StringBuilder where, List<Object> parameters, String condition, @Nullable Object value) {
        if (value != null) {
            where.append(condition);
            parameters.add(value);
        }
    }

    private JournalEntry read(ResultSet row, int number) throws SQLException {
        return new JournalEntry(row.getLong("id"), row.getLong("file_id"), row.getLong("round_id"), Act.valueOf(row.getString("act")), row.getString("from_place"), row.getString("to_place"),
                row.getObject("at", Instant.class), row.getObject("account_id", Long.class), json.readValue(row.getString("why"), Why.class), row.getObject("batch_id", Long.class),
                row.getObject("undoes", Long.class), row.getBoolean("undone"));
    }
}
