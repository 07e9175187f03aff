package oakbasket.server.sharing;

import java.util.HashSet;
import java.util.Optional;
import java.util.Set;
import oakbasket.core.team.Share;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** All SQL of the tables round_share, parcel_share and series_share, and of what the tables round, parcel and round_series say of sharing. */
@Repository
class ShareTable {

    private final JdbcClient jdbc;

    ShareTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** Whether any round, parcel or series is hidden from an account that is no administrator's. */
    boolean hidesFrom(long account) {
        return jdbc.sql("""
                SELECT EXISTS (SELECT 1 FROM seen_round r WHERE NOT r.whole_office AND r.asked_by <> :account
                    AND NOT EXISTS (SELECT 1 FROM round_share s WHERE s.round_id = r.id AND s.account_id = :account))
                    OR EXISTS (SELECT 1 FROM seen_parcel p WHERE NOT p.whole_office AND p.account_id <> :account
                    AND NOT EXISTS (SELECT 1 FROM parcel_share s WHERE s.parcel_id = p.id AND s.account_id = :account))
                    OR EXISTS (SELECT 1 FROM seen_round_series e WHERE NOT e.whole_office AND e.account_id <> :account
                    AND NOT EXISTS (SELECT 1 FROM series_share s WHERE s.series_id = e.id AND s.account_id = :account))""").param("account", account).query(Boolean.class).single();
    }

    Optional<Share> of(long round) {
        return jdbc.sql("SELECT asked_by, whole_office FROM seen_round round WHERE id = :round").param("round", round)
                .query((row, n) -> new Share(row.getLong("asked_by"), row.getBoolean("whole_office"), with(round))).optional();
    }

    private Set<Long> with(long round) {
        return new HashSet<>(jdbc.sql("SELECT account_id FROM round_share WHERE round_id = :round").param("round", round).query(Long.class).list());
    }

    void set(long round, Share share) {
        jdbc.sql("UPDATE round SET asked_by = :owner, whole_office = :office WHERE id = :round").param("owner", share.owner()).param("office", share.wholeOffice()).param("round", round).update();
        jdbc.sql("DELETE FROM round_share WHERE round_id = :round").param("round", round).update();
        share.with().forEach(account -> jdbc.sql("INSERT INTO round_share (round_id, account_id) VALUES (:round, :account)").param("round", round).param("account", account).update());
    }

    /** How many rounds somebody owns. */
    int owned(long account) {
        return jdbc.sql("SELECT COUNT(*) FROM seen_round round WHERE asked_by = :account").param("account", account).query(Integer.class).single();
    }

    /** Whether an account owns a round, a series or a parcel that was not purged. */
    boolean owns(long account) {
        return jdbc.sql("""
                SELECT EXISTS (SELECT 1 FROM seen_round round WHERE asked_by = :account) OR EXISTS (SELECT 1 FROM seen_round_series round_series WHERE account_id = :account)
                    OR EXISTS (SELECT 1 FROM seen_parcel parcel WHERE account_id = :account AND purged_at IS NULL)""").param("account", account).query(Boolean.class).single();
    }

    Share ofParcel(long parcel) {
        return jdbc.sql("SELECT account_id, whole_office FROM seen_parcel parcel WHERE id = :parcel").param("parcel", parcel)
                .query((row, n) -> new Share(row.getLong("account_id"), row.getBoolean("whole_office"),
                        new HashSet<>(jdbc.sql("SELECT account_id FROM parcel_share WHERE parcel_id = :parcel").param("parcel", parcel).query(Long.class).list()))).single();
    }

    void setOfParcel(long parcel, Share share) {
        jdbc.sql("UPDATE parcel SET account_id = :owner, whole_office = :office WHERE id = :parcel").param("owner", share.owner()).param("office", share.wholeOffice()).param("parcel", parcel).update();
        jdbc.sql("DELETE FROM parcel_share WHERE parcel_id = :parcel").param("parcel", parcel).update();
        share.with().forEach(account -> jdbc.sql("INSERT INTO parcel_share (parcel_id, account_id) VALUES (:parcel, :account)").param("parcel", parcel).param("account", account).update());
    }

    Share ofSeries(long series) {
        return jdbc.sql("SELECT account_id, whole_office FROM seen_round_series round_series WHERE id = :series").param("series", series)
                .query((row, n) -> new Share(row.getLong("account_id"), row.getBoolean("whole_office"),
                        new HashSet<>(jdbc.sql("SELECT account_id FROM series_share WHERE series_id = :series").param("series", series).query(Long.class).list()))).single();
    }

    void setOfSeries(long series, Share share) {
        jdbc.sql("UPDATE round_series SET whole_office = :office WHERE id = :series").param("office", share.wholeOffice()).param("series", series).update();
        share.with().forEach(account -> jdbc.sql("INSERT INTO series_share (series_id, account_id) VALUES (:series, :account)").param("series", series).param("account", account).update());
    }

    /** Everything that one account owns is another's from now on: rounds, series, parcels. */
    void handOver(long from, long to) {
        jdbc.sql("DELETE FROM round_share s WHERE s.account_id = :to AND s.round_id IN (SELECT id FROM seen_round round WHERE asked_by = :from)").param("to", to).param("from", from).update();
        jdbc.sql("UPDATE round SET asked_by = :to WHERE asked_by = :from").param("to", to).param("from", from).update();
        jdbc.sql("UPDATE round_series SET account_id = :to WHERE account_id = :from").param("to", to).param("from", from).update();
        jdbc.sql("UPDATE parcel SET account_id = :to WHERE account_id = :from").param("to", to).param("from", from).update();
        jdbc.sql("DELETE FROM round_share WHERE account_id = :from").param("from", from).update();
        jdbc.sql("DELETE FROM parcel_share s WHERE s.account_id = :to AND s.parcel_id IN (SELECT id FROM seen_parcel parcel WHERE account_id = :to)").param("to", to).update();
        jdbc.sql("DELETE FROM series_share WHERE account_id IN (:from, :to) AND (account_id = :from OR series_id IN (SELECT id FROM seen_round_series round_series WHERE account_id = :to))").param("from", from).param("to", to).update();
        jdbc.sql("DELETE FROM parcel_share WHERE account_id = :from").param("from", from).update();
    }
}
