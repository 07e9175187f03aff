package oakbasket.server.contact;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.jdbc.support.KeyHolder;
import org.springframework.stereotype.Repository;

/** All SQL of the tables contact, contact_group and contact_group_member. */
@Repository
class ContactTable {

    private static final String SELECT = """
            SELECT c.id, c.name, c.email, c.organisation, c.reference, c.provisional,
                   COALESCE((SELECT MIN(g.name) FROM contact_group g JOIN contact_group_member m ON m.group_id = g.id
                             WHERE m.contact_id = c.id), '') AS "group"
            FROM contact c
            """;

    private final JdbcClient jdbc;

    ContactTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    Optional<Contact> byKey(String emailKey) {
        return jdbc.sql(SELECT + "WHERE c.email_key = :key").param("key", emailKey).query(Contact.class).optional();
    }

    List<Contact> byIds(Collection<Long> ids) {
        return jdbc.sql(SELECT + "WHERE c.id = ANY(?)").param(ids.toArray(Long[]::new)).query(Contact.class).list();
    }

    long insert(String name, String email, String emailKey, String organisation, String reference, boolean provisional, Instant now) {
        KeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                INSERT INTO contact (name, email, email_key, organisation, reference, provisional, created_at)
                VALUES (:name, :email, :key, :organisation, :reference, :provisional, :now)""")
                .param("name", name).param("email", email).param("key", emailKey).param("organisation", organisation)
                .param("reference", reference).param("provisional", provisional).param("now", now).update(key, "id");
        return key.getKeyAs(Long.class);
    }

    void confirm(long id, String name) {
        jdbc.sql("UPDATE contact SET provisional = FALSE, name = :name WHERE id = :id").param("name", name).param("id", id).update();
    }

    void join(String group, long contact) {
        jdbc.sql("MERGE INTO contact_group (name) KEY (name) VALUES (:name)").param("name", group).update();
        jdbc.sql("""
                MERGE INTO contact_group_member (group_id, contact_id) KEY (group_id, contact_id)
                VALUES ((SELECT id FROM contact_group WHERE name = :name), :contact)""")
                .param("name", group).param("contact", contact).update();
    }
}
