package oakbasket.server.post;

import java.time.Instant;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import oakbasket.core.letter.LetterKind;
import oakbasket.core.letter.LetterState;
import oakbasket.server.storage.IdChunks;
import oakbasket.server.storage.Known;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.jdbc.support.KeyHolder;
import org.springframework.stereotype.Repository;

/** All SQL of the tables letter and letter_basket. */
@Repository
class LetterTable {

    /** Letters looked for: all where a part is null or no states are named. */
    record Wanted(Collection<LetterState> states, @Nullable Collection<Long> contacts, @Nullable Long roundId) {
    }

    private static final String SELECT = """
            SELECT id, contact_id, kind, state, batch, made_at, not_before, account_id, to_address, subject, settled_at, tries, trouble, opened_at, bounced_at, submission_id, language, parcel_link_id FROM seen_letter letter
            """;

    private final JdbcClient jdbc;

    LetterTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    long nextBatch() {
        return jdbc.sql("SELECT NEXT VALUE FOR letter_batch").query(Long.class).single();
    }

    long insert(Letter.Fresh fresh, long batch, Instant now) {
        KeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                INSERT INTO letter (contact_id, kind, state, batch, made_at, not_before, account_id, submission_id, parcel_link_id)
                VALUES (:contact, :kind, 'WAITING', :batch, :now, :notBefore, :account, :submission, :parcel)""").param("parcel", fresh.parcelLinkId())
                .param("contact", fresh.contactId()).param("kind", fresh.kind().name()).param("batch", batch).param("now", now).param("notBefore", fresh.notBefore())
                .param("account", fresh.accountId()).param("submission", fresh.submissionId()).update(key, "id");
        long id = Known.id(key);
        fresh.about().forEach(about -> jdbc.sql("INSERT INTO letter_basket (letter_id, basket_id, round_id, step_at) VALUES (:letter, :basket, :round, :step)")
                .param("letter", id).param("basket", about.basketId()).param("round", about.roundId()).param("step", about.stepAt()).update());
        return id;
    }

    /** A moment of the plan that was answered for a basket. */
    record Answered(long basketId, Instant stepAt) {
    }

    /** The steps of plans between two moments that were answered before, for whatever baskets. */
    Set<Answered> answered(Instant after, Instant until) {
        return new HashSet<>(jdbc.sql("SELECT basket_id, step_at FROM seen_letter_basket letter_basket WHERE step_at > :after AND step_at <= :until OR step_at IN (SELECT step_at FROM seen_plan_change plan_change WHERE act = 'MOVE' AND to_at > :after AND to_at <= :until)").param("after", after).param("until", until)
                .query(Answered.class).list());
    }

    Optional<Letter> byId(long id) {
        return jdbc.sql(SELECT + "WHERE id = :id").param("id", id).query(Letter.class).optional();
    }

    String body(long id) {
        return jdbc.sql("SELECT body FROM seen_letter letter WHERE id = :id").param("id", id).query(String.class).single();
    }

    List<Letter.About> about(Collection<Long> letters) {
        return jdbc.sql("SELECT letter_id, basket_id, round_id FROM seen_letter_basket letter_basket WHERE letter_id = ANY(?) ORDER BY basket_id").param(letters.toArray(Long[]::new))
                .query(Letter.About.class).list();
    }

    /** Letters whose time has come, the oldest first. */
    List<Letter> due(Instant now, int most) {
        return jdbc.sql(SELECT + "WHERE state = 'WAITING' AND not_before <= :now ORDER BY not_before, id FETCH FIRST :most ROWS ONLY").param("now", now).param("most", most)
                .query(Letter.class).list();
    }

    /** How many rows changed: 0 when the letter is no longer in the state it was seen in. */
    int settle(Letter seen, LetterState to, Instant notBefore, int tries, String trouble, @Nullable Instant settledAt) {
        return jdbc.sql("UPDATE letter SET state = :to, not_before = :notBefore, tries = :tries, trouble = :trouble, settled_at = :settled, bounced_at = NULL WHERE id = :id AND state = :from")
                .param("to", to.name()).param("notBefore", notBefore).param("tries", tries).param("trouble", trouble).param("settled", settledAt).param("id", seen.id())
                .param("from", seen.state().name()).update();
    }

    /** Keeps what a letter says, before it is handed over. */
    void words(long id, String toAddress, String subject, String body, String language) {
        jdbc.sql("UPDATE letter SET to_address = :address, subject = :subject, body = :body, language = :language WHERE id = :id").param("address", toAddress).param("subject", subject)
                .param("body", body).param("language", language).param("id", id).update();
    }

    /** Letters in a state, the oldest first. */
    List<Letter> inState(LetterState state) {
        return jdbc.sql(SELECT + "WHERE state = :state ORDER BY id").param("state", state.name()).query(Letter.class).list();
    }

    /** The letters of a batch that still wait. */
    List<Letter> waitingOfBatch(long batch) {
        return jdbc.sql(SELECT + "WHERE batch = :batch AND state = 'WAITING' ORDER BY id").param("batch", batch).query(Letter.class).list();
    }

    /** The baskets of these that a letter waits for. */
    List<Long> awaited(Collection<Long> baskets) {
        return IdChunks.ask(baskets, some -> jdbc.sql("""
                SELECT DISTINCT b.basket_id FROM seen_letter_basket b JOIN seen_letter l ON l.id = b.letter_id WHERE l.state IN ('WAITING', 'SENDING', 'UNCERTAIN') AND l.kind NOT IN ('RECEIPT', 'THANKS')
                    AND b.basket_id = ANY(?)""")
                .param(some).query(Long.class).list());
    }

    /** Which of these baskets have a letter of a kind that waits. */
    List<Long> waiting(Collection<Long> baskets, LetterKind kind) {
        return IdChunks.ask(baskets, some -> jdbc.sql("""
                SELECT DISTINCT b.basket_id FROM seen_letter_basket b JOIN seen_letter l ON l.id = b.letter_id WHERE l.kind = ? AND l.state = 'WAITING' AND b.basket_id = ANY(?)""")
                .param(kind.name()).param(some).query(Long.class).list());
    }

    /** When the last letter went, or will go, to each person who got one since. */
    Map<Long, Instant> lastTo(Instant since) {
        Map<Long, Instant> last = new TreeMap<>();
        jdbc.sql("""
                SELECT contact_id, MAX(COALESCE(settled_at, not_before)) AS went FROM seen_letter letter
                WHERE state IN ('WAITING', 'SENDING', 'SENT', 'UNCERTAIN') AND kind NOT IN ('RECEIPT', 'THANKS', 'PARCEL', 'EXCHANGE') AND COALESCE(settled_at, not_before) > :since GROUP BY contact_id""").param("since", since)
                .query(row -> {
                    last.put(row.getLong("contact_id"), row.getObject("went", Instant.class));
                });
        return last;
    }

    /** The addresses of those whose last letter that was tried failed. */
    List<String> refusedAddresses() {
        return jdbc.sql("""
                SELECT l.to_address FROM seen_letter l WHERE l.state IN ('FAILED', 'BOUNCED')
                    AND NOT EXISTS (SELECT 1 FROM seen_letter n WHERE n.contact_id = l.contact_id AND n.id > l.id AND n.state = 'SENT')""").query(String.class).list();
    }

    /** How many letters did not arrive, or perhaps did not, and still need somebody: the address is as it was, and nothing was delivered since. */
    int needingSomebody() {
        return jdbc.sql("""
                SELECT COUNT(*) FROM seen_letter l JOIN contact c ON c.id = l.contact_id WHERE l.state IN ('FAILED', 'BOUNCED', 'UNCERTAIN') AND l.to_address IN ('', c.email)
                    AND NOT EXISTS (SELECT 1 FROM seen_letter n WHERE n.contact_id = l.contact_id AND n.id > l.id AND n.state = 'SENT')""").query(Integer.class).single();
    }

    /** The baskets of a round whose people the last letter did not reach, with what was said. */
    List<Unreachable> unreachable(long roundId) {
        return jdbc.sql("""
                SELECT b.id AS basket_id, l.id AS letter_id, l.state, l.trouble FROM seen_basket b JOIN contact c ON c.id = b.contact_id JOIN seen_letter l ON l.contact_id = c.id
                WHERE b.round_id = :round AND l.state IN ('FAILED', 'BOUNCED') AND l.to_address IN ('', c.email)
                    AND NOT EXISTS (SELECT 1 FROM seen_letter n WHERE n.contact_id = l.contact_id AND n.id > l.id AND n.state IN ('SENT', 'FAILED', 'BOUNCED')) ORDER BY b.id""")
                .param("round", roundId).query(Unreachable.class).list();
    }

    /** Notes that the links of a basket are open now: every letter that brought one and was not opened before. Says how many there were. */
    int opened(long basketId, Instant at) {
        return jdbc.sql("""
                UPDATE letter SET opened_at = :at WHERE opened_at IS NULL AND state IN ('SENT', 'UNCERTAIN') AND id IN (SELECT letter_id FROM seen_letter_basket letter_basket WHERE basket_id = :basket)""")
                .param("at", at).param("basket", basketId).update();
    }

    /** The same for a link to a parcel. */
    int openedParcel(long link, Instant at) {
        return jdbc.sql("UPDATE letter SET opened_at = :at WHERE opened_at IS NULL AND state IN ('SENT', 'UNCERTAIN') AND parcel_link_id = :link").param("at", at).param("link", link).update();
    }

    /** Which of these links to parcels a letter waits for, or is under way to. */
    List<Long> awaitedParcels(Collection<Long> links) {
        return IdChunks.ask(links, some -> jdbc.sql("SELECT DISTINCT parcel_link_id FROM seen_letter letter WHERE state IN ('WAITING', 'SENDING', 'UNCERTAIN') AND parcel_link_id = ANY(?)").param(some).query(Long.class).list());
    }

    /** Letters about the links of a parcel, the newest first. */
    List<Letter> ofParcelLinks(Collection<Long> links) {
        return IdChunks.ask(links, some -> jdbc.sql(SELECT + "WHERE parcel_link_id = ANY(?) ORDER BY id DESC").param(some).query(Letter.class).list());
    }

    /** Notes what a report said of a letter that the mail server had taken. */
    int bounced(Letter seen, LetterState to, Instant at, String status, String why) {
        return jdbc.sql("UPDATE letter SET state = :to, bounced_at = :at, bounce_status = :status, trouble = :why WHERE id = :id AND state = :from").param("to", to.name()).param("at", at)
                .param("status", status).param("why", why).param("id", seen.id()).param("from", seen.state().name()).update();
    }

    /** Notes that another server has not delivered a letter yet and goes on trying. */
    void delayed(long id, String why) {
        jdbc.sql("UPDATE letter SET trouble = :why WHERE id = :id AND state = 'SENT'").param("why", why).param("id", id).update();
    }

    /** Whether a letter of a kind was made about a basket and not stopped. */
    boolean wasTold(long basketId, LetterKind kind) {
        return jdbc.sql("SELECT COUNT(*) FROM seen_letter_basket b JOIN seen_letter l ON l.id = b.letter_id WHERE b.basket_id = :basket AND l.kind = :kind AND l.state <> 'STOPPED'")
                .param("basket", basketId).param("kind", kind.name()).query(Integer.class).single() > 0;
    }

    /** Letters about one basket, the newest first. */
    List<Letter> ofBasket(long basketId) {
        return jdbc.sql(SELECT + "WHERE id IN (SELECT letter_id FROM seen_letter_basket letter_basket WHERE basket_id = :basket) ORDER BY id DESC").param("basket", basketId).query(Letter.class).list();
    }

    /** The newest first; {@code before} is the id of the last one seen. */
    List<Letter> page(Wanted wanted, long before, int most) {
        return jdbc.sql(SELECT + """
                WHERE id < :before AND (:everything OR state = ANY(:states)) AND (:anybody OR contact_id = ANY(:contacts))
                    AND (CAST(:round AS BIGINT) IS NULL OR id IN (SELECT letter_id FROM seen_letter_basket letter_basket WHERE round_id = :round))
                ORDER BY id DESC FETCH FIRST :most ROWS ONLY""")
                .param("before", before).param("everything", wanted.states().isEmpty()).param("states", wanted.states().stream().map(LetterState::name).toArray(String[]::new)).param("anybody", wanted.contacts() == null)
                .param("contacts", wanted.contacts() == null ? new Long[0] : wanted.contacts().toArray(Long[]::new)).param("round", wanted.roundId()).param("most", most)
                .query(Letter.class).list();
    }

    /** How many letters are in each state. */
    Map<LetterState, Integer> counts() {
        Map<LetterState, Integer> counts = new TreeMap<>();
        jdbc.sql("SELECT state, COUNT(*) AS letters FROM seen_letter letter GROUP BY state").query(row -> {
            counts.put(LetterState.valueOf(row.getString("state")), row.getInt("letters"));
        });
        return counts;
    }

    /** When the letters of a round went, by the hour. */
    List<LettersWent> went(long roundId) {
        return jdbc.sql("""
                SELECT l.kind, DATE_TRUNC(HOUR, l.settled_at) AS "hour", COUNT(*) AS letters FROM seen_letter l
                WHERE l.state = 'SENT' AND l.id IN (SELECT letter_id FROM seen_letter_basket letter_basket WHERE round_id = :round) GROUP BY l.kind, DATE_TRUNC(HOUR, l.settled_at)""")
                .param("round", roundId).query(LettersWent.class).list();
    }
}
