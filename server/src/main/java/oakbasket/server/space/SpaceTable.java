package oakbasket.server.space;

import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import oakbasket.core.quota.RoomOf;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** All SQL of the table space_limit, and the sums of what lies on the disk. */
@Repository
class SpaceTable {

    /** What is set for one of them. */
    record Limit(RoomOf roomOf, long id, long mostBytes) {
    }

    /** What a round takes up, and who owns it. */
    record OfRound(long id, long owner, long bytes) {
    }

    /** What a user takes up beside their rounds. */
    record OfUser(long id, long bytes) {
    }

    private final JdbcClient jdbc;

    SpaceTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    List<Limit> limits() {
        return jdbc.sql("SELECT room_of, id, most_bytes FROM space_limit").query(Limit.class).list();
    }

    void set(RoomOf of, long id, @Nullable Long most) {
        jdbc.sql("DELETE FROM space_limit WHERE room_of = :of AND id = :id").param("of", of.name()).param("id", id).update();
        if (most != null) {
            jdbc.sql("INSERT INTO space_limit (room_of, id, most_bytes) VALUES (:of, :id, :most)").param("of", of.name()).param("id", id).param("most", most).update();
        }
    }

    /** What lies of each round: received, in the bin, in quarantine, and put into its exchanges. What only stands in a folder a second time is not counted. */
    List<OfRound> ofRounds() {
        return jdbc.sql("""
                SELECT r.id, r.asked_by AS owner, SUM(s.bytes) AS bytes FROM seen_round r JOIN (
                    SELECT round_id, SUM(size_bytes) AS bytes FROM seen_received_file received_file WHERE purged_at IS NULL GROUP BY round_id
                    UNION ALL SELECT round_id, SUM(size_bytes) FROM seen_removed_file removed_file WHERE purged_at IS NULL GROUP BY round_id
                    UNION ALL SELECT round_id, SUM(size_bytes) FROM seen_held_file held_file WHERE outcome IS NULL GROUP BY round_id
                    UNION ALL SELECT p.round_id, SUM(f.size_bytes) FROM seen_parcel_file f JOIN seen_parcel p ON p.id = f.parcel_id WHERE p.round_id IS NOT NULL AND f.bytes_id IS NOT NULL GROUP BY p.round_id
                ) s ON s.round_id = r.id GROUP BY r.id, r.asked_by""").query(OfRound.class).list();
    }

    /** What each user has handed out in parcels. */
    List<OfUser> ofParcels() {
        return jdbc.sql("""
                SELECT p.account_id AS id, SUM(f.size_bytes) AS bytes FROM seen_parcel_file f JOIN seen_parcel p ON p.id = f.parcel_id
                WHERE p.round_id IS NULL AND p.purged_at IS NULL AND f.bytes_id IS NOT NULL GROUP BY p.account_id""").query(OfUser.class).list();
    }

    /** What waits in the tray without belonging to any round. */
    long loose() {
        return jdbc.sql("SELECT COALESCE(SUM(size_bytes), 0) FROM loose_file WHERE state = 'WAITING'").query(Long.class).single();
    }

    /** The titles of rounds that whoever asks may see. */
    Map<Long, String> titles() {
        return jdbc.sql("SELECT id, title FROM seen_round round").query((row, n) -> Map.entry(row.getLong("id"), row.getString("title"))).list().stream().collect(Collectors.toMap(Map.Entry::getKey, Map.Entry::getValue));
    }

    long ownerOf(long round) {
        return jdbc.sql("SELECT asked_by FROM seen_round round WHERE id = :id").param("id", round).query(Long.class).single();
    }

    boolean exists(RoomOf of, long id) {
        return switch (of) {
            case ROUND -> jdbc.sql("SELECT EXISTS (SELECT 1 FROM seen_round round WHERE id = :id)").param("id", id).query(Boolean.class).single();
            case USER -> jdbc.sql("SELECT EXISTS (SELECT 1 FROM account WHERE id = :id)").param("id", id).query(Boolean.class).single();
            case OFFICE -> id == 0;
        };
    }
}
