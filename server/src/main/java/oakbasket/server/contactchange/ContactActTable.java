package oakbasket.server.contactchange;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import oakbasket.server.storage.Known;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.jdbc.support.KeyHolder;
import org.springframework.stereotype.Repository;

/** All SQL of the table contact_act. */
@Repository
class ContactActTable {

    private final JdbcClient jdbc;

    ContactActTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    long insert(String kind, long account, Instant at, String summary, String detail) {
        KeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("INSERT INTO contact_act (kind, account_id, at, summary, detail) VALUES (:kind, :account, :at, :summary, :detail)").param("kind", kind)
                .param("account", account).param("at", at).param("summary", summary.length() <= 500 ? summary : summary.substring(0, 500)).param("detail", detail).update(key, "id");
        return Known.id(key);
    }

    Optional<ContactAct> byId(long id) {
        return jdbc.sql("SELECT id, kind, at, summary, undone_at FROM contact_act WHERE id = :id").param("id", id).query(ContactAct.class).optional();
    }

    List<ContactAct> latest(int most) {
        return jdbc.sql("SELECT id, kind, at, summary, undone_at FROM contact_act ORDER BY id DESC FETCH FIRST :most ROWS ONLY").param("most", most).query(ContactAct.class).list();
    }

    String detail(long id) {
        return jdbc.sql("SELECT detail FROM contact_act WHERE id = :id").param("id", id).query(String.class).single();
    }

    int undo(long id, Instant at) {
        return jdbc.sql("UPDATE contact_act SET undone_at = :at WHERE id = :id AND undone_at IS NULL").param("at", at).param("id", id).update();
    }
}
