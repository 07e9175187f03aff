package oakbasket.server.post;

import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** All SQL of the table letter_setting. */
@Repository
class LetterSettingTable {

    private final JdbcClient jdbc;

    LetterSettingTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    LetterSetting now() {
        return jdbc.sql("SELECT signature, reply_to, calendar, version FROM letter_setting").query(LetterSetting.class).single();
    }

    /** How many rows changed: 0 when it was changed since its version. */
    int change(LetterSetting to) {
        return jdbc.sql("UPDATE letter_setting SET signature = :signature, reply_to = :reply, calendar = :calendar, version = version + 1 WHERE version = :version").param("signature", to.signature())
                .param("reply", to.replyTo()).param("calendar", to.calendar()).param("version", to.version()).update();
    }
}
