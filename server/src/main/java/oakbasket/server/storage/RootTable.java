package oakbasket.server.storage;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import oakbasket.server.storage.Roots.Root;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;

/** All SQL of the table folder_root. */
@Repository
class RootTable {

    private final JdbcClient jdbc;

    RootTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    List<Root> all() {
        return jdbc.sql("SELECT id, name, path FROM folder_root WHERE removed_at IS NULL ORDER BY id").query(Root.class).list();
    }

    /** Also of one that is out of use: files may still lie there. */
    Optional<String> path(long id) {
        return jdbc.sql("SELECT path FROM folder_root WHERE id = :id").param("id", id).query(String.class).optional();
    }

    boolean used(String prefix) {
        return jdbc.sql("""
                SELECT EXISTS (SELECT 1 FROM seen_received_file received_file WHERE stored_path LIKE :prefix || '%' UNION ALL SELECT 1 FROM seen_removed_file removed_file WHERE stored_path LIKE :prefix || '%'
                    UNION ALL SELECT 1 FROM file_copy WHERE gone_at IS NULL AND place LIKE :prefix || '%')""").param("prefix", prefix).query(Boolean.class).single();
    }

    Root add(String name, String path, Instant at) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("INSERT INTO folder_root (name, path, added_at) VALUES (:name, :path, :at)").param("name", name).param("path", path).param("at", at).update(key, "id");
        return new Root(Known.id(key), name, path);
    }

    void remove(long id, Instant at) {
        jdbc.sql("UPDATE folder_root SET removed_at = :at WHERE id = :id").param("at", at).param("id", id).update();
    }
}
