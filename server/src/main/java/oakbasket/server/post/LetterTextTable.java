package oakbasket.server.post;

import java.util.Optional;
import oakbasket.core.letter.LetterKind;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** All SQL of the table letter_text. */
@Repository
class LetterTextTable {

    /** The office's own words for a kind of letter. */
    record OwnText(String subject, String body, int version) {
    }

    private final JdbcClient jdbc;

    LetterTextTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    Optional<OwnText> of(LetterKind kind, String language) {
        return jdbc.sql("SELECT subject, body, version FROM letter_text WHERE kind = :kind AND language = :language").param("kind", kind.name()).param("language", language).query(OwnText.class).optional();
    }

    /** How many rows changed: 0 when the text was changed since {@code version}; version 0 is the text that ships. */
    int save(LetterKind kind, String language, int version, String subject, String body) {
        if (version == 0) {
            return jdbc.sql("""
                    INSERT INTO letter_text (kind, language, subject, body) SELECT CAST(:kind AS VARCHAR), CAST(:language AS VARCHAR), CAST(:subject AS VARCHAR), CAST(:body AS VARCHAR)
                    WHERE NOT EXISTS (SELECT 1 FROM letter_text WHERE kind = :kind AND language = :language)""").param("kind", kind.name()).param("language", language).param("subject", subject).param("body", body).update();
        }
        return jdbc.sql("UPDATE letter_text SET subject = :subject, body = :body, version = version + 1 WHERE kind = :kind AND language = :language AND version = :version").param("subject", subject).param("language", language)
                .param("body", body).param("kind", kind.name()).param("version", version).update();
    }

    int delete(LetterKind kind, String language) {
        return jdbc.sql("DELETE FROM letter_text WHERE kind = :kind AND language = :language").param("kind", kind.name()).param("language", language).update();
    }
}
