package oakbasket.server.parcel;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import oakbasket.server.storage.IdChunks;
import oakbasket.server.storage.Known;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;

/** All SQL of the table parcel_link. */
@Repository
class ParcelLinkTable {

    private static final String SELECT = "SELECT id, parcel_id, contact_id, token_sealed, made_at, withdrawn_at, seen_at FROM seen_parcel_link parcel_link ";

    private final JdbcClient jdbc;

    ParcelLinkTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    long insert(long parcel, @Nullable Long contact, byte[] hash, byte[] sealed, Instant now) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("INSERT INTO parcel_link (parcel_id, contact_id, token_hash, token_sealed, made_at) VALUES (:parcel, :contact, :hash, :sealed, :now)").param("parcel", parcel)
                .param("contact", contact).param("hash", hash).param("sealed", sealed).param("now", now).update(key, "id");
        return Known.id(key);
    }

    Optional<ParcelLink> byTokenHash(byte[] hash) {
        return jdbc.sql(SELECT + "WHERE token_hash = :hash").param("hash", hash).query(ParcelLink.class).optional();
    }

    Optional<ParcelLink> byId(long id) {
        return jdbc.sql(SELECT + "WHERE id = :id").param("id", id).query(ParcelLink.class).optional();
    }

    List<ParcelLink> byIds(Collection<Long> ids) {
        return IdChunks.ask(ids, some -> jdbc.sql(SELECT + "WHERE id = ANY(?) ORDER BY id").param(some).query(ParcelLink.class).list());
    }

    List<ParcelLink> ofParcels(Collection<Long> parcels) {
        return IdChunks.ask(parcels, some -> jdbc.sql(SELECT + "WHERE parcel_id = ANY(?) ORDER BY id").param(some).query(ParcelLink.class).list());
    }

    boolean any(long contact) {
        return jdbc.sql("SELECT EXISTS (SELECT 1 FROM seen_parcel_link parcel_link WHERE contact_id = :contact)").param("contact", contact).query(Boolean.class).single();
    }

    int withdraw(long id, @Nullable Instant at) {
        return jdbc.sql("UPDATE parcel_link SET withdrawn_at = :at WHERE id = :id").param("at", at, java.sql.Types.TIMESTAMP_WITH_TIMEZONE).param("id", id).update();
    }

    int readdress(long id, byte[] hash, byte[] sealed) {
        return jdbc.sql("UPDATE parcel_link SET token_hash = :hash, token_sealed = :sealed WHERE id = :id").param("hash", hash).param("sealed", sealed).param("id", id).update();
    }

    int seen(long id, Instant at) {
        return jdbc.sql("UPDATE parcel_link SET seen_at = :at WHERE id = :id AND seen_at IS NULL").param("at", at).param("id", id).update();
    }
}
