package oakbasket.server.contact;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import oakbasket.server.storage.IdChunks;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** All SQL of the tables contact_group and contact_group_member. */
@Repository
class GroupTable {

    private static final String MEMBERS = """
            SELECT m.contact_id, g.name FROM contact_group_member m JOIN contact_group g ON g.id = m.group_id
            """;

    private final JdbcClient jdbc;

    GroupTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** Groups by contact, each list by name; contacts in none are left out. */
    Map<Long, List<String>> of(Collection<Long> contacts) {
        record Member(long contact, String group) {
        }
        Map<Long, List<String>> groups = new HashMap<>();
        IdChunks.ask(contacts, some -> jdbc.sql(MEMBERS + "WHERE m.contact_id = ANY(?) ORDER BY g.name").param(some)
                .query((row, n) -> new Member(row.getLong("contact_id"), row.getString("name"))).list())
                .forEach(one -> groups.computeIfAbsent(one.contact(), id -> new ArrayList<>()).add(one.group()));
        return groups;
    }

    Map<Long, List<String>> ofAll() {
        Map<Long, List<String>> groups = new HashMap<>();
        jdbc.sql(MEMBERS + "ORDER BY g.name").query(row -> {
            groups.computeIfAbsent(row.getLong("contact_id"), id -> new ArrayList<>()).add(row.getString("name"));
        });
        return groups;
    }

    /** How many contacts are in each group, by name; merged and discarded ones do not count. */
    Map<String, Integer> sizes() {
        Map<String, Integer> sizes = new LinkedHashMap<>();
        jdbc.sql("""
                SELECT g.name, COUNT(c.id) AS size FROM contact_group g LEFT JOIN contact_group_member m ON m.group_id = g.id
                LEFT JOIN contact c ON c.id = m.contact_id AND c.merged_into IS NULL AND c.discarded_at IS NULL
                GROUP BY g.name ORDER BY LOWER(g.name)""").query(row -> {
            sizes.put(row.getString("name"), row.getInt("size"));
        });
        return sizes;
    }

    List<Long> members(String group) {
        return jdbc.sql("""
                SELECT c.id FROM contact c JOIN contact_group_member m ON m.contact_id = c.id JOIN contact_group g ON g.id = m.group_id
                WHERE g.name = :name AND c.merged_into IS NULL AND c.discarded_at IS NULL ORDER BY LOWER(c.name), c.id""").param("name", group).query(Long.class).list();
    }

    void add(String name) {
        jdbc.sql("MERGE INTO contact_group (name) KEY (name) VALUES (:name)").param("name", name).update();
    }

    /** The names of all groups. */
    Set<String> names() {
        return new LinkedHashSet<>(jdbc.sql("SELECT name FROM contact_group ORDER BY name").query(String.class).list());
    }

    void join(String group, long contact) {
        jdbc.sql("""
                MERGE INTO contact_group_member (group_id, contact_id) KEY (group_id, contact_id)
                VALUES ((SELECT id FROM contact_group WHERE name = :name), :contact)""")
                .param("name", group).param("contact", contact).update();
    }

    int leave(String group, long contact) {
        return jdbc.sql("DELETE FROM contact_group_member WHERE contact_id = :contact AND group_id = (SELECT id FROM contact_group WHERE name = :name)")
                .param("contact", contact).param("name", group).update();
    }

    void leaveAll(long contact) {
        jdbc.sql("DELETE FROM contact_group_member WHERE contact_id = :contact").param("contact", contact).update();
    }

    int delete(String name) {
        return jdbc.sql("DELETE FROM contact_group WHERE name = :name AND NOT EXISTS (SELECT 1 FROM contact_group_member m WHERE m.group_id = contact_group.id)")
                .param("name", name).update();
    }
}
