package oakbasket.server.audit;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.stream.Stream;
import javax.sql.DataSource;
import oakbasket.core.audit.AuditKind;
import oakbasket.core.audit.AuditRecord;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** All SQL of the table audit_entry, which is only ever added to, and the names of what entries are about. */
@Repository
class AuditTable {

    private static final String SELECT = "SELECT number, at, account_id, who, caller, kind, operation, subject, status, hash FROM audit_entry ";

    /** The last entry: its number and its hash. */
    record Last(long number, byte[] hash) {
    }

    private final JdbcClient jdbc;

    AuditTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** The same table in another database. */
    static AuditTable in(DataSource source) {
        return new AuditTable(JdbcClient.create(source));
    }

    Optional<Last> last() {
        return jdbc.sql("SELECT number, hash FROM audit_entry ORDER BY number DESC FETCH FIRST ROW ONLY").query((row, n) -> new Last(row.getLong(1), row.getBytes(2))).optional();
    }

    Optional<byte[]> hashAt(long number) {
        return jdbc.sql("SELECT hash FROM audit_entry WHERE number = :number").param("number", number).query((row, n) -> row.getBytes(1)).optional();
    }

    void insert(AuditRecord entry, byte[] hash) {
        jdbc.sql("""
                INSERT INTO audit_entry (number, at, account_id, who, caller, kind, operation, subject, status, hash)
                VALUES (:number, :at, :account, :who, :caller, :kind, :operation, :subject, :status, :hash)""").param("at", entry.at()).param("account", entry.account())
                .param("who", entry.who()).param("caller", entry.caller()).param("kind", entry.kind().name()).param("operation", entry.operation()).param("subject", entry.subject())
                .param("status", entry.status()).param("hash", hash).param("number", entry.number()).update();
    }

    /** Entries before a number, the newest first. */
    List<AuditRecord> page(AuditTrail.Wanted wanted, long before, int most) {
        return jdbc.sql(SELECT + """
                WHERE number < :before AND (:account = 0 OR account_id = :account) AND (:kind = '' OR kind = :kind) AND at >= :from AND at < :to
                AND (:words = '' OR LOWER(who) LIKE :like ESCAPE '!' OR LOWER(subject) LIKE :like ESCAPE '!' OR caller LIKE :like ESCAPE '!' OR LOWER(operation) LIKE :like ESCAPE '!')
                ORDER BY number DESC FETCH FIRST :most ROWS ONLY""").param("before", before).param("account", wanted.account()).param("kind", wanted.kind() == null ? "" : wanted.kind().name())
                .param("from", wanted.from()).param("to", wanted.to()).param("words", wanted.words()).param("like", "%" + wanted.words().toLowerCase(java.util.Locale.ROOT).replace("!", "!!").replace("%", "!%").replace("_", "!_") + "%")
                .param("most", most).query((row, n) -> read(row)).list();
    }

    /** Every entry in its order, with the hash beside it. */
    void all(BiConsumer<AuditRecord, byte[]> reader) {
        try (Stream<Object> rows = jdbc.sql(SELECT + "ORDER BY number").withFetchSize(1_000).query((row, n) -> {
            reader.accept(read(row), row.getBytes("hash"));
            return (Object) n;
        }).stream()) {
            rows.forEach(row -> {
            });
        }
    }

    static AuditRecord read(ResultSet row) throws SQLException {
        return new AuditRecord(row.getLong("number"), row.getObject("at", Instant.class), row.getLong("account_id"), row.getString("who"), row.getString("caller"), AuditKind.valueOf(row.getString("kind")),
                row.getString("operation"), row.getString("subject"), row.getInt("status"));
    }

    /** What something is called now; null where nothing has this number. */
    @Nullable String name(AuditSubject.Of of, long id) {
        String sql = switch (of) {
            case ROUND -> "SELECT title FROM seen_round round WHERE id = :id";
            case BASKET -> "SELECT c.name || ', ' || r.title FROM seen_basket b JOIN contact c ON c.id = b.contact_id JOIN seen_round r ON r.id = b.round_id WHERE b.id = :id";
            case FILE -> "SELECT c.name || ', ' || f.original_name FROM seen_received_file f JOIN seen_basket b ON b.id = f.basket_id JOIN contact c ON c.id = b.contact_id WHERE f.id = :id";
            case CONTACT -> "SELECT name FROM contact WHERE id = :id";
            case PARCEL -> "SELECT title FROM seen_parcel parcel WHERE id = :id";
            case LINK -> "SELECT COALESCE(c.name || ', ', '') || r.title FROM seen_link l JOIN seen_round r ON r.id = l.round_id LEFT JOIN seen_basket b ON b.id = l.basket_id LEFT JOIN contact c ON c.id = b.contact_id WHERE l.id = :id";
            case LETTER -> "SELECT c.name || ', ' || l.subject FROM seen_letter l JOIN contact c ON c.id = l.contact_id WHERE l.id = :id";
            case MEMBER -> "SELECT name FROM account WHERE id = :id";
            case INVITATION -> "SELECT name FROM invitation WHERE id = :id";
            case OTHER -> "SELECT CAST(:id AS VARCHAR)";
        };
        return jdbc.sql(sql).param("id", id).query(String.class).optional().orElse(null);
    }
}
