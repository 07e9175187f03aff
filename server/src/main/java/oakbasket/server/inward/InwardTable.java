package oakbasket.server.inward;

import java.sql.Types;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** All SQL of the tables inward_message and inward_part. */
@Repository
class InwardTable {

    private static final String SELECT = """
            SELECT id, folder, folder_number, file_name, size_bytes, whole, came_at, state, CASE kind WHEN '' THEN 'NEW' ELSE kind END AS kind, from_name, from_address, subject, message_id, text, contact_id,
                basket_id, round_id, letter_id, submission_id, confirmed, why, tries, read_at, answer_state, answer_subject, answer_body, answer_language, answer_tries, answer_at, answer_trouble
            FROM seen_inward_message inward_message
            """;
    private final JdbcClient jdbc;

    InwardTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    long last(String folder) {
        return jdbc.sql("SELECT COALESCE(MAX(folder_number), 0) FROM seen_inward_message inward_message WHERE folder = :folder").param("folder", folder).query(Long.class).single();
    }

    /** Takes a message; says 0 where it was taken before. */
    int insert(String folder, long number, String fileName, long size, boolean whole, Instant at) {
        return jdbc.sql("""
                INSERT INTO inward_message (folder, folder_number, file_name, size_bytes, whole, came_at, state)
                SELECT CAST(:folder AS VARCHAR), CAST(:number AS BIGINT), CAST(:file AS VARCHAR), CAST(:size AS BIGINT), CAST(:whole AS BOOLEAN), CAST(:at AS TIMESTAMP(9) WITH TIME ZONE), 'TAKEN'
                WHERE NOT EXISTS (SELECT 1 FROM seen_inward_message inward_message WHERE folder = :folder AND folder_number = :number)""").param("folder", folder).param("number", number).param("file", fileName)
                .param("size", size).param("whole", whole).param("at", at).update();
    }

    List<InwardMessage> taken(int most) {
        return jdbc.sql(SELECT + "WHERE state = 'TAKEN' ORDER BY id FETCH FIRST :most ROWS ONLY").param("most", most).query(InwardMessage.class).list();
    }

    int countTaken() {
        return jdbc.sql("SELECT COUNT(*) FROM seen_inward_message inward_message WHERE state = 'TAKEN'").query(Integer.class).single();
    }

    void tried(long id) {
        jdbc.sql("UPDATE inward_message SET tries = tries + 1 WHERE id = :id").param("id", id).update();
    }

    /** Whether the same content came with another message that was taken before. */
    boolean cameBefore(byte[] sameAs, long id) {
        return jdbc.sql("SELECT EXISTS (SELECT 1 FROM seen_inward_message inward_message WHERE same_as = :same AND id < :id)").param("same", sameAs).param("id", id).query(Boolean.class).single();
    }

    void sameAs(long id, byte[] sameAs) {
        jdbc.sql("UPDATE inward_message SET same_as = :same WHERE id = :id").param("same", sameAs).param("id", id).update();
    }

    /** Settles a message: what it is, whose, and the answer that waits. Says 0 where that was done before. */
    int settle(InwardMessage to) {
        return jdbc.sql("""
                UPDATE inward_message SET state = 'DONE', kind = :kind, from_name = :fromName, from_address = :from, subject = :subject, message_id = :messageId, text = :text, contact_id = :contact,
                    basket_id = :basket, round_id = :round, letter_id = :letter, submission_id = :submission, confirmed = :confirmed, why = :why, answer_state = :answerState, answer_subject = :answerSubject,
                    answer_body = :answerBody, answer_language = :answerLanguage, answer_at = :answerAt WHERE id = :id AND state = 'TAKEN'""")
                .param("kind", to.kind().name()).param("fromName", to.fromName()).param("from", to.fromAddress()).param("subject", to.subject()).param("messageId", to.messageId()).param("text", to.text())
                .param("contact", to.contactId()).param("basket", to.basketId()).param("round", to.roundId()).param("letter", to.letterId()).param("submission", to.submissionId())
                .param("confirmed", to.confirmed()).param("why", to.why()).param("answerState", to.answerState().name()).param("answerSubject", to.answerSubject()).param("answerBody", to.answerBody())
                .param("answerLanguage", to.answerLanguage()).param("answerAt", to.answerAt(), Types.TIMESTAMP_WITH_TIMEZONE).param("id", to.id()).update();
    }

    void put(InwardPart part) {
        jdbc.sql("""
                MERGE INTO inward_part (message_id, part_no, name, size_bytes, outcome, why, item, loose_id, file_id, sha256) KEY (message_id, part_no)
                VALUES (:message, :no, :name, :size, :outcome, :why, :item, :loose, :file, :sha256)""").param("sha256", part.sha256(), Types.BINARY).param("message", part.messageId()).param("no", part.partNo()).param("name", part.name())
                .param("size", part.sizeBytes()).param("outcome", part.outcome().name()).param("why", part.why()).param("item", part.item()).param("loose", part.looseId()).param("file", part.fileId()).update();
    }

    /** Whether the same bytes came in another message from an address, and were not filed then. */
    boolean cameAsNoPaper(byte[] sha256, String from, long message) {
        return jdbc.sql("""
                SELECT EXISTS (SELECT 1 FROM inward_part p JOIN seen_inward_message m ON m.id = p.message_id WHERE p.sha256 = :sha256 AND m.id <> :message AND LOWER(m.from_address) = LOWER(:from) AND p.outcome <> 'FILED')""")
                .param("sha256", sha256).param("message", message).param("from", from).query(Boolean.class).single();
    }

    List<InwardPart> parts(Collection<Long> messages) {
        return jdbc.sql("SELECT message_id, part_no, name, size_bytes, outcome, why, item, loose_id, file_id, sha256 FROM inward_part WHERE message_id = ANY(?) ORDER BY message_id, part_no")
                .param(messages.toArray(Long[]::new)).query(InwardPart.class).list();
    }

    Optional<InwardMessage> byId(long id) {
        return jdbc.sql(SELECT + "WHERE id = :id").param("id", id).query(InwardMessage.class).optional();
    }

    /** The newest first. @param persons whether only what people wrote @param contacts and {@code basket}: only theirs; null for all */
    List<InwardMessage> page(boolean persons, @Nullable Collection<Long> contacts, @Nullable Long basket, long before, int most) {
        return jdbc.sql(SELECT + """
                WHERE state = 'DONE' AND id < :before AND (NOT :persons OR kind IN ('PAPERS', 'ANSWER', 'TOO_LARGE', 'UNREADABLE')) AND (:anybody OR contact_id = ANY(:contacts))
                    AND (CAST(:basket AS BIGINT) IS NULL OR basket_id = :basket) ORDER BY id DESC FETCH FIRST :most ROWS ONLY""").param("before", before).param("persons", persons)
                .param("anybody", contacts == null).param("contacts", contacts == null ? new Long[0] : contacts.toArray(Long[]::new)).param("basket", basket).param("most", most).query(InwardMessage.class).list();
    }

    long newestId() {
        return jdbc.sql("SELECT COALESCE(MAX(id), 0) FROM seen_inward_message inward_message").query(Long.class).single();
    }

    /** How many somebody should look at and nobody has. */
    int unread() {
        return jdbc.sql("SELECT COUNT(*) FROM seen_inward_message inward_message WHERE read_at IS NULL AND state = 'DONE' AND kind IN ('PAPERS', 'ANSWER', 'TOO_LARGE', 'UNREADABLE')").query(Integer.class).single();
    }

    /** Marks a message as read, or not. */
    int read(long id, @Nullable Instant at, @Nullable Long account) {
        return jdbc.sql("UPDATE inward_message SET read_at = :at, read_by = :account WHERE id = :id").param("at", at, Types.TIMESTAMP_WITH_TIMEZONE).param("account", account).param("id", id).update();
    }

    // --- answers

    List<InwardMessage> answersDue(Instant now, int most) {
        return jdbc.sql(SELECT + "WHERE answer_state = 'WAITING' AND answer_at <= :now ORDER BY id FETCH FIRST :most ROWS ONLY").param("now", now).param("most", most).query(InwardMessage.class).list();
    }

    /** Messages whose answers are gathered, where the first came before an instant; of one sender after another. */
    List<InwardMessage> gathered(Instant before) {
        return jdbc.sql(SELECT + """
                WHERE answer_state = 'GATHERED' AND from_address IN (SELECT from_address FROM seen_inward_message inward_message WHERE answer_state = 'GATHERED' AND came_at < :before) ORDER BY from_address, id
                FETCH FIRST 2000 ROWS ONLY""").param("before", before).query(InwardMessage.class).list();
    }

    /** Makes one answer of many: the first message bears it, the others none. */
    void gather(long bearer, Collection<Long> all, String subject, String body, Instant at) {
        jdbc.sql("UPDATE inward_message SET answer_state = 'NONE' WHERE id = ANY(?) AND answer_state = 'GATHERED'").param(all.toArray(Long[]::new)).update();
        jdbc.sql("UPDATE inward_message SET answer_state = 'WAITING', answer_subject = :subject, answer_body = :body, answer_at = :at WHERE id = :id").param("subject", subject).param("body", body)
                .param("at", at).param("id", bearer).update();
    }

    int answer(long id, InwardMessage.AnswerState from, InwardMessage.AnswerState to, int tries, @Nullable Instant at, String trouble) {
        return jdbc.sql("UPDATE inward_message SET answer_state = :to, answer_tries = :tries, answer_at = :at, answer_trouble = :trouble WHERE id = :id AND answer_state = :from").param("to", to.name())
                .param("tries", tries).param("at", at, Types.TIMESTAMP_WITH_TIMEZONE).param("trouble", trouble).param("id", id).param("from", from.name()).update();
    }

    /** Answers that were being handed over when the server stopped: whether they went nobody knows. */
    int lost() {
        return jdbc.sql("UPDATE inward_message SET answer_state = 'UNCERTAIN' WHERE answer_state = 'SENDING'").update();
    }

    /** Files of messages that were dealt with before an instant. */
    List<InwardMessage> keptSince(Instant before, int most) {
        return jdbc.sql(SELECT + "WHERE state = 'DONE' AND file_name <> '' AND came_at < :before ORDER BY id FETCH FIRST :most ROWS ONLY").param("before", before).param("most", most)
                .query(InwardMessage.class).list();
    }

    void forgetFile(long id) {
        jdbc.sql("UPDATE inward_message SET file_name = '' WHERE id = :id").param("id", id).update();
    }
}
