package oakbasket.server.post;

import java.util.List;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** All SQL of the table contact_quiet. */
@Repository
class ContactQuietTable {

    private final JdbcClient jdbc;

    ContactQuietTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    List<QuietOfPerson> all() {
        return jdbc.sql("SELECT contact_id, quiet_from, quiet_to FROM contact_quiet").query(QuietOfPerson.class).list();
    }

    Optional<QuietOfPerson> of(long contactId) {
        return jdbc.sql("SELECT contact_id, quiet_from, quiet_to FROM contact_quiet WHERE contact_id = :contact").param("contact", contactId).query(QuietOfPerson.class).optional();
    }

    int put(QuietOfPerson row) {
        return jdbc.sql("MERGE INTO contact_quiet (contact_id, quiet_from, quiet_to) KEY (contact_id) VALUES (:contact, :from, :to)").param("contact", row.contactId()).param("from", row.quietFrom())
                .param("to", row.quietTo()).update();
    }

    int remove(long contactId) {
        return jdbc.sql("DELETE FROM contact_quiet WHERE contact_id = :contact").param("contact", contactId).update();
    }
}
