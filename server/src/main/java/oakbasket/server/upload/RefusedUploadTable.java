package oakbasket.server.upload;

import java.time.Instant;
import java.util.List;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** All SQL of the table refused_upload. */
@Repository
class RefusedUploadTable {

    private final JdbcClient jdbc;

    RefusedUploadTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    void note(long linkId, String code, Instant at) {
        jdbc.sql("MERGE INTO refused_upload (link_id, code, last_at) KEY (link_id, code) VALUES (:link, :code, :at)").param("link", linkId).param("code", code).param("at", at).update();
    }

    /** By rounds, with how many links refused. */
    List<RefusedUploads.Refused> since(Instant since) {
        return jdbc.sql("""
                SELECT l.round_id, r.title AS round, u.code IN ('disk-full', 'space-full') AS no_room, COUNT(DISTINCT u.link_id) AS links
                FROM seen_refused_upload u JOIN seen_link l ON l.id = u.link_id JOIN seen_round r ON r.id = l.round_id
                WHERE u.last_at > :since GROUP BY l.round_id, r.title, u.code IN ('disk-full', 'space-full') ORDER BY l.round_id""").param("since", since).query(RefusedUploads.Refused.class).list();
    }
}
