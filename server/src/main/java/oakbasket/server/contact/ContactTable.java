package oakbasket.server.contact;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import oakbasket.core.contact.ContactFields;
import oakbasket.core.naming.Folded;
import oakbasket.server.storage.IdChunks;
import oakbasket.server.storage.Known;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.jdbc.support.KeyHolder;
import org.springframework.stereotype.Repository;

/** All SQL of the table contact. */
@Repository
class ContactTable {

    /** What a list of contacts is narrowed down to; empty texts narrow nothing. */
    record Wanted(String words, String group, boolean provisional) {
    }

    private static final String SELECT = "SELECT c.id, c.version, c.name, c.email, c.organisation, c.reference, c.language, c.zone, c.notes, c.provisional FROM contact c ";
    private static final String LISTED = """
            FROM contact c WHERE c.merged_into IS NULL AND c.discarded_at IS NULL
            AND (:words = '' OR FOLDED(c.name || ' ' || c.email || ' ' || c.organisation || ' ' || c.reference) LIKE :pattern ESCAPE '!')
            AND (:group = '' OR EXISTS (SELECT 1 FROM contact_group_member m JOIN contact_group g ON g.id = m.group_id WHERE m.contact_id = c.id AND g.name = :group))
            AND (c.provisional OR NOT :provisional)
            """;

    private final JdbcClient jdbc;
    private final GroupTable groups;

    ContactTable(JdbcClient jdbc, GroupTable groups) {
        this.jdbc = jdbc;
        this.groups = groups;
    }

    /** The contact that a mailbox leads to; that of a merged contact leads to the one it was merged into. */
    Optional<Contact> byKey(String emailKey) {
        return jdbc.sql("SELECT COALESCE(merged_into, id) FROM contact WHERE email_key = :key").param("key", emailKey).query(Long.class).optional()
                .flatMap(id -> byIds(List.of(id)).stream().findFirst());
    }

    /** The ids of all mailboxes, those of merged contacts leading to the ones they were merged into. */
    Map<String, Long> keys() {
        Map<String, Long> keys = new HashMap<>();
        jdbc.sql("SELECT email_key, COALESCE(merged_into, id) AS id FROM contact").query(row -> {
            keys.put(row.getString("email_key"), row.getLong("id"));
        });
        return keys;
    }

    /** The zones of contacts that have one. */
    Map<Long, String> zones() {
        Map<Long, String> zones = new HashMap<>();
        jdbc.sql("SELECT id, zone FROM contact WHERE zone <> ''").query(row -> {
            zones.put(row.getLong("id"), row.getString("zone"));
        });
        return zones;
    }

    List<Contact> byIds(Collection<Long> ids) {
        Map<Long, List<String>> memberships = groups.of(ids);
        return IdChunks.ask(ids, some -> jdbc.sql(SELECT + "WHERE c.id = ANY(?)").param(some).query((row, n) -> contact(row, memberships)).list());
    }

    /** All that are neither merged nor discarded, by name. */
    List<Contact> all() {
        Map<Long, List<String>> memberships = groups.ofAll();
        return jdbc.sql(SELECT + "WHERE c.merged_into IS NULL AND c.discarded_at IS NULL ORDER BY LOWER(c.name), c.id").query((row, n) -> contact(row, memberships)).list();
    }

    List<Contact> page(Wanted wanted, int from, int most) {
        List<Long> ids = with(jdbc.sql("SELECT c.id " + LISTED + "ORDER BY LOWER(c.name), c.id OFFSET :from ROWS FETCH FIRST :most ROWS ONLY"), wanted)
                .param("from", from).param("most", most).query(Long.class).list();
        Map<Long, Contact> found = new HashMap<>();
        byIds(ids).forEach(contact -> found.put(contact.id(), contact));
        return ids.stream().map(found::get).toList();
    }

    int count(Wanted wanted) {
        return with(jdbc.sql("SELECT COUNT(*) " + LISTED), wanted).query(Integer.class).single();
    }

    long insert(ContactFields fields, String emailKey, boolean provisional, Instant now) {
        KeyHolder key = new GeneratedKeyHolder();
        fill(jdbc.sql("""
                INSERT INTO contact (name, email, email_key, organisation, reference, language, zone, notes, provisional, created_at)
                VALUES (:name, :email, :key, :organisation, :reference, :language, :zone, :notes, :provisional, :now)"""), fields, emailKey)
                .param("provisional", provisional).param("now", now).update(key, "id");
        return Known.id(key);
    }

    /** How many rows changed: 0 when it was changed since {@code version}. Whoever is changed by hand is no longer provisional. */
    int update(long id, int version, ContactFields fields, String emailKey, boolean provisional) {
        return fill(jdbc.sql("""
                UPDATE contact SET name = :name, email = :email, email_key = :key, organisation = :organisation, reference = :reference, language = :language, zone = :zone,
                    notes = :notes, provisional = :provisional, version = version + 1 WHERE id = :id AND version = :version"""), fields, emailKey)
                .param("provisional", provisional).param("id", id).param("version", version).update();
    }

    void confirm(long id, String name) {
        jdbc.sql("UPDATE contact SET provisional = FALSE, name = :name, version = version + 1 WHERE id = :id").param("name", name).param("id", id).update();
    }

    void mergeInto(long id, @Nullable Long kept) {
        jdbc.sql("UPDATE contact SET merged_into = :kept, version = version + 1 WHERE id = :id").param("kept", kept).param("id", id).update();
    }

    /** The contacts merged into one, and those merged into them. */
    List<Long> mergedInto(long id) {
        return jdbc.sql("SELECT id FROM contact WHERE merged_into = :id").param("id", id).query(Long.class).list();
    }

    void repoint(List<Long> ids, @Nullable Long kept) {
        jdbc.sql("UPDATE contact SET merged_into = ? WHERE id = ANY(?)").param(kept).param(ids.toArray(Long[]::new)).update();
    }

    /** Sets the version of a contact that is again as it was at that version. */
    void asAt(long id, int version) {
        jdbc.sql("UPDATE contact SET version = :version WHERE id = :id").param("version", version).param("id", id).update();
    }

    void deleteProvisional(long id) {
        jdbc.sql("DELETE FROM contact WHERE id = :id AND provisional AND version = 1 AND merged_into IS NULL").param("id", id).update();
    }

    void discard(long id, @Nullable Instant at) {
        jdbc.sql("UPDATE contact SET discarded_at = :at, version = version + 1 WHERE id = :id").param("at", at).param("id", id).update();
    }

    boolean discarded(long id) {
        return jdbc.sql("SELECT discarded_at IS NOT NULL FROM contact WHERE id = :id").param("id", id).query(Boolean.class).single();
    }

    int delete(long id, int version) {
        groups.leaveAll(id);
        return jdbc.sql("DELETE FROM contact WHERE id = :id AND version = :version").param("id", id).param("version", version).update();
    }

    private static JdbcClient.StatementSpec with(JdbcClient.StatementSpec statement, Wanted wanted) {
        String words = Folded.of(wanted.words().strip());
        String pattern = "%" + words.replace("!", "!!").replace("%", "!%").replace("_", "!_") + "%";
        return statement.param("words", words).param("pattern", pattern).param("group", wanted.group()).param("provisional", wanted.provisional());
    }

    private static JdbcClient.StatementSpec fill(JdbcClient.StatementSpec statement, ContactFields fields, String emailKey) {
        return statement.param("name", fields.name()).param("email", fields.email()).param("key", emailKey).param("organisation", fields.organisation())
                .param("reference", fields.reference()).param("language", fields.language()).param("zone", fields.zone()).param("notes", fields.notes());
    }

    private static Contact contact(ResultSet row, Map<Long, List<String>> memberships) throws SQLException {
        long id = row.getLong("id");
        return new Contact(id, row.getInt("version"), row.getString("name"), row.getString("email"), row.getString("organisation"), row.getString("reference"),
                row.getString("language"), row.getString("zone"), row.getString("notes"), memberships.getOrDefault(id, new ArrayList<>()), row.getBoolean("provisional"));
    }
}
