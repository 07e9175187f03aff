package oakbasket.server.series;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import oakbasket.core.deadline.WorkingDays;
import oakbasket.core.recurrence.Recurrence;
import oakbasket.core.recurrence.Series;
import oakbasket.server.storage.Known;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.jdbc.support.KeyHolder;
import org.springframework.stereotype.Repository;

/** All SQL of the table round_series. */
@Repository
class SeriesTable {

    /**
     * A round that comes again.
     *
     * @param lastOccurrence the date of the rule that a round was made for last; null when none was
     * @param trouble why the last round could not open by itself; empty when it could
     */
    record Kept(long id, int version, String sheet, Series series, boolean opensItself, long account, @Nullable LocalDate lastOccurrence, boolean paused, String trouble) {
    }

    private final JdbcClient jdbc;

    SeriesTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    long insert(String sheet, Series series, boolean opensItself, long account) {
        KeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                INSERT INTO round_series (sheet, rule, starts_on, opens_days, shift, opens_itself, account_id)
                VALUES (:sheet, :rule, :starts, :days, :shift, :itself, :account)""").param("sheet", sheet).param("rule", series.recurrence().rule())
                .param("starts", series.start()).param("days", series.opensDaysBefore()).param("shift", series.shift().name()).param("itself", opensItself)
                .param("account", account).update(key, "id");
        return Known.id(key);
    }

    int update(long id, int version, Series series, boolean opensItself) {
        return jdbc.sql("""
                UPDATE round_series SET rule = :rule, starts_on = :starts, opens_days = :days, shift = :shift, opens_itself = :itself, version = version + 1
                WHERE id = :id AND version = :version""").param("rule", series.recurrence().rule()).param("starts", series.start())
                .param("days", series.opensDaysBefore()).param("shift", series.shift().name()).param("itself", opensItself).param("id", id).param("version", version).update();
    }

    void pause(long id, boolean paused) {
        jdbc.sql("UPDATE round_series SET paused = :paused WHERE id = :id").param("paused", paused).param("id", id).update();
    }

    /** How many rows changed: 0 when a round was made for this occurrence already. */
    int made(long id, LocalDate occurrence) {
        return jdbc.sql("UPDATE round_series SET last_occurrence = :made WHERE id = :id AND (last_occurrence IS NULL OR last_occurrence < :made)").param("made", occurrence)
                .param("id", id).update();
    }

    void trouble(long id, String trouble) {
        jdbc.sql("UPDATE round_series SET trouble = :trouble WHERE id = :id").param("trouble", trouble).param("id", id).update();
    }

    int delete(long id) {
        return jdbc.sql("DELETE FROM round_series WHERE id = :id").param("id", id).update();
    }

    List<Kept> all() {
        return jdbc.sql("SELECT * FROM seen_round_series round_series ORDER BY id").query((row, n) -> kept(row)).list();
    }

    Optional<Kept> byId(long id) {
        return jdbc.sql("SELECT * FROM seen_round_series round_series WHERE id = :id").param("id", id).query((row, n) -> kept(row)).optional();
    }

    private static Kept kept(ResultSet row) throws SQLException {
        Series series = new Series(new Recurrence(row.getString("rule")), row.getObject("starts_on", LocalDate.class), row.getInt("opens_days"),
                WorkingDays.Shift.valueOf(row.getString("shift")));
        return new Kept(row.getLong("id"), row.getInt("version"), row.getString("sheet"), series, row.getBoolean("opens_itself"), row.getLong("account_id"),
                row.getObject("last_occurrence", LocalDate.class), row.getBoolean("paused"), row.getString("trouble"));
    }
}
