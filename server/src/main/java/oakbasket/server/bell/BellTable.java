package oakbasket.server.bell;

import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** All SQL of the table bell_look. */
@Repository
class BellTable {

    private final JdbcClient jdbc;

    BellTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    Optional<BellLook> of(long account) {
        return jdbc.sql("SELECT account_id, file_id, mail_id, taken_at FROM bell_look WHERE account_id = :account").param("account", account).query(BellLook.class).optional();
    }

    int put(BellLook look) {
        return jdbc.sql("MERGE INTO bell_look (account_id, file_id, mail_id, taken_at) KEY (account_id) VALUES (:account, :file, :mail, :taken)").param("taken", look.takenAt()).param("account", look.accountId()).param("file", look.fileId())
                .param("mail", look.mailId()).update();
    }
}
