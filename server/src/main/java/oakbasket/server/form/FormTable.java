package oakbasket.server.form;

import java.io.ByteArrayInputStream;
import java.time.Instant;
import java.util.Optional;
import oakbasket.server.storage.Known;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.jdbc.support.KeyHolder;
import org.springframework.stereotype.Repository;

/** All SQL of the table blank_form. A form never changes; another one gets another id. */
@Repository
class FormTable {

    private final JdbcClient jdbc;

    FormTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    long insert(String name, String mediaType, byte[] sha256, byte[] content, Instant now) {
        KeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                INSERT INTO blank_form (name, media_type, size_bytes, sha256, content, created_at) VALUES (:name, :type, :size, :sha, :content, :now)""")
                .param("name", name).param("type", mediaType).param("size", (long) content.length).param("sha", sha256)
                .param("content", new ByteArrayInputStream(content)).param("now", now).update(key, "id");
        return Known.id(key);
    }

    boolean exists(long id) {
        return jdbc.sql("SELECT EXISTS (SELECT 1 FROM blank_form WHERE id = :id)").param("id", id).query(Boolean.class).single();
    }

    Optional<String> name(long id) {
        return jdbc.sql("SELECT name FROM blank_form WHERE id = :id").param("id", id).query(String.class).optional();
    }

    Optional<BlankForm> byId(long id) {
        return jdbc.sql("SELECT id, name, media_type, content FROM blank_form WHERE id = :id").param("id", id)
                .query((row, n) -> new BlankForm(row.getLong("id"), row.getString("name"), row.getString("media_type"), row.getBytes("content"))).optional();
    }
}
