package oakbasket.server.link;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import oakbasket.core.link.LinkTerms;
import oakbasket.core.round.RoundState;
import oakbasket.server.storage.IdChunks;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** Reads links with what a list says of them. It joins tables of other capabilities, because fifty thousand links are asked about at once. */
@Repository
class LinkListTable {

    private static final String SELECT = """
            SELECT l.id, l.round_id, r.title, r.state, r.zone, r.closes_at, l.basket_id, c.name, c.email, b.removed_at, l.set_at, l.begins_at, l.ends_at, l.paused_at,
                l.withdrawn_at, l.use_limit, l.file_limit, l.file_bytes_limit, l.total_bytes_limit, l.uses, l.readable_name, l.version,
                l.passcode_hash IS NOT NULL AS guarded, COALESCE(s.files, 0) AS files, COALESCE(s.bytes, 0) AS bytes, s.last_use
            FROM seen_link l JOIN seen_round r ON r.id = l.round_id LEFT JOIN seen_basket b ON b.id = l.basket_id LEFT JOIN contact c ON c.id = b.contact_id
            LEFT JOIN (SELECT link_id, SUM(files) AS files, SUM(bytes) AS bytes, MAX(last_file_at) AS last_use FROM seen_submission submission WHERE files > 0 GROUP BY link_id) s ON s.link_id = l.id
            """;

    /**
     * A link in a list.
     *
     * @param person whose basket it opens; null for an open link
     * @param removed whether that person was taken out of the round
     * @param lastUse when the last file came through it; null when none did
     */
    record Entry(long id, long roundId, String round, RoundState roundState, String zone, @Nullable Instant closesAt, @Nullable Long basketId, @Nullable String person,
            @Nullable String email, boolean removed, LinkTerms terms, String name, int version, boolean guarded, int files, long bytes, @Nullable Instant lastUse) {
    }

    private final JdbcClient jdbc;

    LinkListTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    List<Entry> all() {
        return read("");
    }

    List<Entry> ofRound(long roundId) {
        return read("WHERE l.round_id = ?", roundId);
    }

    List<Entry> byId(long id) {
        return read("WHERE l.id = ?", id);
    }

    /** Which of these links open the basket of somebody who was taken out of the round. */
    List<Long> ofRemoved(Collection<Long> ids) {
        return IdChunks.ask(ids, some -> jdbc.sql("SELECT l.id FROM seen_link l JOIN seen_basket b ON b.id = l.basket_id WHERE b.removed_at IS NOT NULL AND l.id = ANY(?)").param(some).query(Long.class).list());
    }

    private List<Entry> read(String where, Object... values) {
        return jdbc.sql(SELECT + where).params(values).query((row, n) -> new Entry(row.getLong("id"), row.getLong("round_id"), row.getString("title"),
                RoundState.valueOf(row.getString("state")), row.getString("zone"), row.getObject("closes_at", Instant.class), row.getObject("basket_id", Long.class),
                row.getString("name"), row.getString("email"), row.getObject("removed_at") != null, LinkTable.terms(row), row.getString("readable_name"), row.getInt("version"),
                row.getBoolean("guarded"), row.getInt("files"), row.getLong("bytes"), row.getObject("last_use", Instant.class))).list();
    }
}
