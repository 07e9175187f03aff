package oakbasket.server.lettersetting;

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
        return jdbc.sql("SELECT signature, reply_to, calendar, per_minute, gap_hours, quiet_from, quiet_to, version FROM letter_setting").query(LetterSetting.class).single();
    }

    /** How many rows changed: 0 when it was changed since its version. */
    int change(LetterSetting to) {
        return jdbc.sql("""
                UPDATE letter_setting SET signature = :signature, reply_to = :reply, calendar = :calendar, per_minute = :perMinute, gap_hours = :gap, quiet_from = :from, quiet_to = :to,
                    version = version + 1 WHERE version = :version""").param("signature", to.signature()).param("perMinute", to.perMinute()).param("gap", to.gapHours())
                .param("from", to.quietFrom()).param("to", to.quietTo())
                .param("reply", to.replyTo()).param("calendar", to.calendar()).param("version", to.version()).update();
    }
}
