package oakbasket.server.teamsetting;

import java.util.Optional;
import oakbasket.core.team.TeamTerms;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** All SQL of the table team_setting. */
@Repository
class TeamSettingTable {

    private final JdbcClient jdbc;

    TeamSettingTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    Optional<TeamSetting> now() {
        return jdbc.sql("SELECT coordinators_open_links, coordinators_hand_out, most_live_links, version FROM team_setting")
                .query((row, n) -> new TeamSetting(new TeamTerms(row.getBoolean(1), row.getBoolean(2), row.getObject(3, Integer.class)), row.getInt(4))).optional();
    }

    void put(TeamTerms terms, int version) {
        jdbc.sql("""
                MERGE INTO team_setting (id, coordinators_open_links, coordinators_hand_out, most_live_links, version) KEY (id)
                VALUES (1, :open, :hand, :most, :version)""").param("open", terms.coordinatorsMakeOpenLinks()).param("hand", terms.coordinatorsHandOut()).param("most", terms.mostLiveLinks())
                .param("version", version).update();
    }

    long ownerOf(long round) {
        return jdbc.sql("SELECT asked_by FROM seen_round round WHERE id = :round").param("round", round).query(Long.class).single();
    }

    /** How many links live of the rounds and parcels that somebody owns: those that were not withdrawn and have not ended. */
    int liveLinks(long account, java.time.Instant now) {
        return jdbc.sql("""
                SELECT (SELECT COUNT(*) FROM seen_link l JOIN seen_round r ON r.id = l.round_id WHERE r.asked_by = :account AND r.state = 'GATHERING' AND l.withdrawn_at IS NULL AND (l.ends_at IS NULL OR l.ends_at > :now))
                    + (SELECT COUNT(*) FROM seen_parcel_link l JOIN seen_parcel p ON p.id = l.parcel_id WHERE p.account_id = :account AND p.purged_at IS NULL AND l.withdrawn_at IS NULL
                        AND (p.ends_at IS NULL OR p.ends_at > :now))""").param("account", account).param("now", now).query(Integer.class).single();
    }
}
