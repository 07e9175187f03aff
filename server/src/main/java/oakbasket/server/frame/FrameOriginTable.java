package oakbasket.server.frame;

import java.util.List;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** All SQL of the table frame_origin. */
@Repository
class FrameOriginTable {

    private final JdbcClient jdbc;

    FrameOriginTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    List<String> of(long roundId) {
        return jdbc.sql("SELECT origin FROM seen_frame_origin frame_origin WHERE round_id = :round ORDER BY origin").param("round", roundId).query(String.class).list();
    }

    void replace(long roundId, List<String> origins) {
        jdbc.sql("DELETE FROM frame_origin WHERE round_id = :round").param("round", roundId).update();
        origins.forEach(origin -> jdbc.sql("INSERT INTO frame_origin (round_id, origin) VALUES (:round, :origin)").param("round", roundId).param("origin", origin).update());
    }
}
