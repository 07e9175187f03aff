package oakbasket.server.parcel;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Types;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import oakbasket.core.link.LinkWindow;
import oakbasket.core.reminder.ReminderStep;
import oakbasket.server.storage.IdChunks;
import oakbasket.server.storage.Known;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** All SQL of the table parcel. */
@Repository
class ParcelTable {

    private static final TypeReference<List<ReminderStep>> STEPS = new TypeReference<>() {
    };
    private static final TypeReference<List<Parcel.TypedPerson>> PEOPLE = new TypeReference<>() {
    };

    private final JdbcClient jdbc;
    private final JsonMapper json;

    ParcelTable(JdbcClient jdbc, JsonMapper json) {
        this.jdbc = jdbc;
        this.json = json;
    }

    long insert(long account, int days, int keptDays, Instant now) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("INSERT INTO parcel (account_id, made_at, days, set_at, kept_days) VALUES (:account, :now, :days, :now, :kept)").param("account", account).param("now", now).param("days", days)
                .param("kept", keptDays).update(key, "id");
        return Known.id(key);
    }

    /** Those of an exchange: they begin with a title, and are never handed out as a parcel. */
    long insertOfExchange(long account, long round, String title, int keptDays, Instant now) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("INSERT INTO parcel (account_id, round_id, title, made_at, set_at, kept_days) VALUES (:account, :round, :title, :now, :now, :kept)").param("account", account).param("round", round)
                .param("title", title).param("now", now).param("kept", keptDays).update(key, "id");
        return Known.id(key);
    }

    Optional<Parcel> byId(long id) {
        return jdbc.sql("SELECT * FROM seen_parcel parcel WHERE id = :id").param("id", id).query((row, n) -> parcel(row)).optional();
    }

    List<Parcel> byIds(Collection<Long> ids) {
        return IdChunks.ask(ids, some -> jdbc.sql("SELECT * FROM seen_parcel parcel WHERE id = ANY(?)").param(some).query((row, n) -> parcel(row)).list());
    }

    /** How many rows changed: 0 when it was changed since {@code version}. */
    int update(Parcel parcel, int version) {
        return jdbc.sql("""
                UPDATE parcel SET title = :title, message = :message, handed_out_at = :out, days = :days, set_at = :set, begins_at = :begins, ends_at = :ends, stopped_at = :stopped,
                    passcode_hash = :passcode, most_pick_ups = :most, kept_days = :kept, name = :name, reminders = :reminders, people = :people, open = :open, by_letter = :letter,
                    when_ready = :ready, version = version + 1 WHERE id = :id AND version = :version""")
                .param("title", parcel.title()).param("message", parcel.message()).param("out", parcel.handedOutAt(), Types.TIMESTAMP_WITH_TIMEZONE).param("days", parcel.days())
                .param("set", parcel.window().setAt()).param("begins", parcel.window().beginsAt(), Types.TIMESTAMP_WITH_TIMEZONE)
                .param("ends", parcel.window().endsAt(), Types.TIMESTAMP_WITH_TIMEZONE).param("stopped", parcel.stoppedAt(), Types.TIMESTAMP_WITH_TIMEZONE).param("passcode", parcel.passcodeHash())
                .param("most", parcel.mostPickUps()).param("kept", parcel.keptDays()).param("name", parcel.name()).param("reminders", json.writeValueAsString(parcel.reminders()))
                .param("people", json.writeValueAsString(parcel.people())).param("open", parcel.open()).param("letter", parcel.byLetter()).param("ready", parcel.whenReady()).param("id", parcel.id())
                .param("version", version).update();
    }

    int delete(long id) {
        return jdbc.sql("DELETE FROM parcel WHERE id = :id AND handed_out_at IS NULL AND round_id IS NULL").param("id", id).update();
    }

    /** The newest first; {@code before} is the id of the last one seen. @param owner whose parcels; null for everybody's */
    List<Parcel> page(String pattern, @Nullable Collection<Long> contacts, @Nullable Long owner, long before, int most) {
        return jdbc.sql("""
                SELECT * FROM seen_parcel p WHERE p.round_id IS NULL AND p.id < :before AND (LOWER(p.title) LIKE :pattern ESCAPE '!' OR EXISTS (SELECT 1 FROM seen_parcel_link l JOIN contact c ON c.id = l.contact_id
                        WHERE l.parcel_id = p.id AND (LOWER(c.name) LIKE :pattern ESCAPE '!' OR LOWER(c.email) LIKE :pattern ESCAPE '!')))
                    AND (:anybody OR EXISTS (SELECT 1 FROM seen_parcel_link l WHERE l.parcel_id = p.id AND l.contact_id = ANY(:contacts)))
                    AND (CAST(:owner AS BIGINT) IS NULL OR p.account_id = :owner)
                ORDER BY p.id DESC FETCH FIRST :most ROWS ONLY""")
                .param("owner", owner).param("before", before).param("pattern", pattern).param("anybody", contacts == null).param("contacts", contacts == null ? new Long[0] : contacts.toArray(Long[]::new)).param("most", most)
                .query((row, n) -> parcel(row)).list();
    }

    /** Those that can be taken away, or were until a moment. */
    List<Parcel> handedOutUntil(Instant since) {
        return jdbc.sql("SELECT * FROM seen_parcel parcel WHERE handed_out_at IS NOT NULL AND purged_at IS NULL AND stopped_at IS NULL AND (ends_at IS NULL OR ends_at > :since) ORDER BY id").param("since", since)
                .query((row, n) -> parcel(row)).list();
    }

    /** Those that were handed out and whose own files are there. */
    List<Parcel> unpurged() {
        return jdbc.sql("SELECT * FROM seen_parcel parcel WHERE handed_out_at IS NOT NULL AND purged_at IS NULL ORDER BY id").query((row, n) -> parcel(row)).list();
    }

    /** Drafts that are handed out by themselves. */
    List<Parcel> waitingToBeReady() {
        return jdbc.sql("SELECT * FROM seen_parcel parcel WHERE handed_out_at IS NULL AND when_ready ORDER BY id").query((row, n) -> parcel(row)).list();
    }

    int purged(long id, Instant at) {
        return jdbc.sql("UPDATE parcel SET purged_at = :at, version = version + 1 WHERE id = :id AND purged_at IS NULL").param("at", at).param("id", id).update();
    }

    @Nullable Instant lookedAt(long id) {
        return jdbc.sql("SELECT looked_at FROM seen_parcel parcel WHERE id = :id").param("id", id).query((row, n) -> java.util.Optional.ofNullable(row.getObject("looked_at", Instant.class))).single().orElse(null);
    }

    int looked(long id, Instant at) {
        return jdbc.sql("UPDATE parcel SET looked_at = :at WHERE id = :id").param("at", at).param("id", id).update();
    }

    private Parcel parcel(ResultSet row) throws SQLException {
        String reminders = row.getString("reminders");
        String people = row.getString("people");
        return ParcelBuilder.stagedBuilder().id(row.getLong("id")).title(row.getString("title")).message(row.getString("message")).accountId(row.getLong("account_id"))
                .madeAt(row.getObject("made_at", Instant.class)).handedOutAt(row.getObject("handed_out_at", Instant.class)).days(row.getObject("days", Integer.class))
                .window(new LinkWindow(row.getObject("set_at", Instant.class), row.getObject("begins_at", Instant.class), row.getObject("ends_at", Instant.class)))
                .stoppedAt(row.getObject("stopped_at", Instant.class)).purgedAt(row.getObject("purged_at", Instant.class)).passcodeHash(row.getString("passcode_hash"))
                .mostPickUps(row.getObject("most_pick_ups", Integer.class)).keptDays(row.getInt("kept_days")).name(row.getString("name"))
                .reminders(reminders.isEmpty() ? List.of() : json.readValue(reminders, STEPS)).people(people.isEmpty() ? List.of() : json.readValue(people, PEOPLE)).open(row.getBoolean("open"))
                .byLetter(row.getBoolean("by_letter")).whenReady(row.getBoolean("when_ready")).roundId(row.getObject("round_id", Long.class)).wholeOffice(row.getBoolean("whole_office")).version(row.getInt("version")).build();
    }
}
