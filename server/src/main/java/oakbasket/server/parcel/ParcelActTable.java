package oakbasket.server.parcel;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** All SQL of the table parcel_act. */
@Repository
class ParcelActTable {

    private final JdbcClient jdbc;

    ParcelActTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    void insert(long parcel, ParcelAct.Kind kind, String said, @Nullable Long account, Instant at) {
        jdbc.sql("INSERT INTO parcel_act (parcel_id, account_id, at, kind, said) VALUES (:parcel, :account, :at, :kind, :said)").param("parcel", parcel).param("account", account).param("at", at)
                .param("kind", kind.name()).param("said", said).update();
    }

    List<ParcelAct> ofParcel(long parcel) {
        return jdbc.sql("SELECT id, account_id, at, kind, said FROM seen_parcel_act parcel_act WHERE parcel_id = :parcel ORDER BY id DESC").param("parcel", parcel).query(ParcelAct.class).list();
    }

    int deleteOf(long parcel) {
        return jdbc.sql("DELETE FROM parcel_act WHERE parcel_id = :parcel").param("parcel", parcel).update();
    }
}
