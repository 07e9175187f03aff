package oakbasket.server.round;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import oakbasket.core.compose.RoundPlan;
import oakbasket.core.deadline.LocalDeadline;
import oakbasket.core.reminder.LetterPlan;
import oakbasket.core.round.RoundState;
import oakbasket.server.storage.IdChunks;
import oakbasket.server.storage.Known;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.jdbc.support.KeyHolder;
import org.springframework.stereotype.Repository;
import tools.jackson.databind.json.JsonMapper;

/** All SQL of the table round. */
@Repository
class RoundTable {

    /** All columns but the sheet, which is large and needed only while composing. */
    private static final String SELECT = """
            SELECT id, state, version, title, note, zone, deadline_date, deadline_time, warning_hours, grace_hours, folder_pattern, name_pattern,
                   asked_by, opened_at, closes_at, closed_at, keep_until, calendar_id, letter_plan, takes_active
            FROM seen_round round
            """;

    private final JdbcClient jdbc;
    private final JsonMapper json;

    RoundTable(JdbcClient jdbc, JsonMapper json) {
        this.jdbc = jdbc;
        this.json = json;
    }

    long insertDraft(String title, String sheet, long askedBy, Instant now) {
        KeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                INSERT INTO round (state, sheet, title, note, asked_by, created_at, changed_at)
                VALUES ('DRAFT', :sheet, :title, '', :askedBy, :now, :now)""")
                .param("sheet", sheet).param("title", title).param("askedBy", askedBy).param("now", now).update(key, "id");
        return Known.id(key);
    }

    /** How many rows changed: 0 when the version is not the newest or the round is no draft. */
    int saveDraft(long id, int version, String title, String sheet, Instant now) {
        return jdbc.sql("""
                UPDATE round SET sheet = :sheet, title = :title, changed_at = :now, version = version + 1
                WHERE id = :id AND version = :version AND state = 'DRAFT'""")
                .param("sheet", sheet).param("title", title).param("now", now).param("id", id).param("version", version).update();
    }

    int deleteDraft(long id) {
        return jdbc.sql("DELETE FROM round WHERE id = :id AND state = 'DRAFT'").param("id", id).update();
    }

    int open(long id, int version, RoundPlan plan, String sheet, Instant now) {
        return with(jdbc.sql("""
                UPDATE round SET state = 'GATHERING', version = version + 1, sheet = :sheet, title = :title, note = :note, zone = :zone,
                    deadline_date = :date, deadline_time = :time, warning_hours = :warning, grace_hours = :grace,
                    closes_at = :closes, keep_until = :keep, calendar_id = :calendar,
                    folder_pattern = :folders, name_pattern = :names, letter_plan = :letters, takes_active = :active, opened_at = :now, changed_at = :now
                WHERE id = :id AND version = :version AND state = 'DRAFT'"""), id, version, plan, sheet, now).update();
    }

    /** How many rows changed: 0 when the version is not the newest or the round does not gather. */
    int alter(long id, int version, RoundPlan plan, String sheet, Instant now) {
        return with(jdbc.sql("""
                UPDATE round SET version = version + 1, sheet = :sheet, title = :title, note = :note, zone = :zone,
                    deadline_date = :date, deadline_time = :time, warning_hours = :warning, grace_hours = :grace,
                    closes_at = :closes, keep_until = :keep, calendar_id = :calendar,
                    folder_pattern = :folders, name_pattern = :names, letter_plan = :letters, takes_active = :active, changed_at = :now
                WHERE id = :id AND version = :version AND state = 'GATHERING'"""), id, version, plan, sheet, now).update();
    }

    private JdbcClient.StatementSpec with(JdbcClient.StatementSpec statement, long id, int version, RoundPlan plan, String sheet, Instant now) {
        return statement.param("sheet", sheet).param("title", plan.title()).param("note", plan.note()).param("zone", plan.deadline().zone().getId())
                .param("date", plan.deadline().date()).param("time", plan.deadline().time()).param("warning", plan.warning().toHours())
                .param("grace", plan.grace().toHours()).param("closes", plan.closesAt()).param("keep", plan.keepUntil()).param("calendar", plan.calendarId())
                .param("folders", plan.folderPattern()).param("names", plan.namePattern()).param("letters", json.writeValueAsString(plan.letters()))
                .param("active", plan.takesActive()).param("now", now).param("id", id).param("version", version);
    }

    void forExchange(long id) {
        jdbc.sql("UPDATE round SET for_exchange = TRUE WHERE id = :id").param("id", id).update();
    }

    void ofSeries(long id, long seriesId) {
        jdbc.sql("UPDATE round SET series_id = :series WHERE id = :id").param("series", seriesId).param("id", id).update();
    }

    int change(long id, RoundState from, RoundState to, @Nullable Instant closedAt, Instant now) {
        return jdbc.sql("""
                UPDATE round SET state = :to, version = version + 1, closed_at = :closed, changed_at = :now WHERE id = :id AND state = :from""")
                .param("to", to.name()).param("closed", closedAt).param("now", now).param("id", id).param("from", from.name()).update();
    }

    /** Moves the opening of a round back in time; only the demo does. */
    void openedAt(long id, Instant opened, LocalDate deadline) {
        jdbc.sql("UPDATE round SET opened_at = :opened, created_at = :opened, deadline_date = :deadline WHERE id = :id")
                .param("opened", opened).param("deadline", deadline).param("id", id).update();
    }

    Optional<Rounds.Head> head(long id) {
        return jdbc.sql("SELECT id, state, version, title, changed_at, series_id, for_exchange FROM seen_round round WHERE id = :id").param("id", id).query(Rounds.Head.class).optional();
    }

    List<Rounds.Head> heads() {
        return jdbc.sql("SELECT id, state, version, title, changed_at, series_id, for_exchange FROM seen_round round ORDER BY changed_at DESC, id DESC").query(Rounds.Head.class).list();
    }

    long askedBy(long id) {
        return jdbc.sql("SELECT asked_by FROM seen_round round WHERE id = :id").param("id", id).query(Long.class).single();
    }

    String sheet(long id) {
        return jdbc.sql("SELECT sheet FROM seen_round round WHERE id = :id").param("id", id).query(String.class).single();
    }

    Optional<Round> opened(long id) {
        return jdbc.sql(SELECT + "WHERE id = :id AND state <> 'DRAFT'").param("id", id).query((row, n) -> round(row)).optional();
    }

    List<Round> opened(Collection<Long> ids) {
        return IdChunks.ask(ids, some -> jdbc.sql(SELECT + "WHERE id = ANY(?) AND state <> 'DRAFT' ORDER BY id").param(some).query((row, n) -> round(row)).list());
    }

    List<Round> inState(RoundState state) {
        return jdbc.sql(SELECT + "WHERE state = :state ORDER BY id").param("state", state.name()).query((row, n) -> round(row)).list();
    }

    List<Round> keptUntilBefore(LocalDate day) {
        return jdbc.sql(SELECT + "WHERE state <> 'DRAFT' AND keep_until < :day ORDER BY changed_at DESC, id DESC").param("day", day).query((row, n) -> round(row)).list();
    }

    private Round round(ResultSet row) throws SQLException {
        LocalDeadline deadline = new LocalDeadline(row.getObject("deadline_date", LocalDate.class), row.getObject("deadline_time", LocalTime.class),
                ZoneId.of(row.getString("zone")));
        String letters = row.getString("letter_plan");
        return RoundBuilder.stagedBuilder().id(row.getLong("id")).state(RoundState.valueOf(row.getString("state"))).version(row.getInt("version")).title(row.getString("title"))
                .note(row.getString("note")).deadline(deadline).warning(Duration.ofHours(row.getInt("warning_hours"))).grace(Duration.ofHours(row.getInt("grace_hours")))
                .folderPattern(row.getString("folder_pattern")).namePattern(row.getString("name_pattern")).askedBy(row.getLong("asked_by"))
                .openedAt(row.getObject("opened_at", Instant.class)).closesAt(row.getObject("closes_at", Instant.class)).closedAt(row.getObject("closed_at", Instant.class))
                .keepUntil(row.getObject("keep_until", LocalDate.class)).calendarId(row.getObject("calendar_id", Long.class)).takesActive(row.getBoolean("takes_active"))
                .letters(letters.isEmpty() ? LetterPlan.NONE : json.readValue(letters, LetterPlan.class)).build();
    }
}
