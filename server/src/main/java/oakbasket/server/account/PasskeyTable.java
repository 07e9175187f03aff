package oakbasket.server.account;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.security.web.webauthn.api.AuthenticatorTransport;
import org.springframework.security.web.webauthn.api.Bytes;
import org.springframework.security.web.webauthn.api.CredentialRecord;
import org.springframework.security.web.webauthn.api.ImmutableCredentialRecord;
import org.springframework.security.web.webauthn.api.ImmutablePublicKeyCose;
import org.springframework.security.web.webauthn.api.PublicKeyCredentialType;
import org.springframework.stereotype.Repository;

/** All SQL of the table passkey. */
@Repository
class PasskeyTable {

    private final JdbcClient jdbc;

    PasskeyTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    List<Passkey> of(long account) {
        return jdbc.sql("SELECT id, label, made_at, used_at FROM passkey WHERE account_id = :account ORDER BY id").param("account", account).query(Passkey.class).list();
    }

    int delete(long account, long id) {
        return jdbc.sql("DELETE FROM passkey WHERE account_id = :account AND id = :id").param("account", account).param("id", id).update();
    }

    Optional<Long> accountOf(byte[] handle) {
        return jdbc.sql("SELECT account_id FROM passkey WHERE handle = :handle FETCH FIRST ROW ONLY").param("handle", handle).query(Long.class).optional();
    }

    Optional<CredentialRecord> byCredential(byte[] id) {
        return jdbc.sql("SELECT * FROM passkey WHERE credential_id = :id").param("id", id).query((row, n) -> (CredentialRecord) credential(row)).optional();
    }

    List<CredentialRecord> byHandle(byte[] handle) {
        return jdbc.sql("SELECT * FROM passkey WHERE handle = :handle ORDER BY id").param("handle", handle).query((row, n) -> (CredentialRecord) credential(row)).list();
    }

    void insert(long account, CredentialRecord record, Instant now) {
        jdbc.sql("""
                INSERT INTO passkey (account_id, handle, credential_id, public_key, sign_count, transports, eligible, backed_up, attestation, client_data, label, made_at)
                VALUES (:account, :handle, :credential, :key, :count, :transports, :eligible, :backed, :attestation, :client, :label, :now)""").param("account", account)
                .param("handle", record.getUserEntityUserId().getBytes()).param("credential", record.getCredentialId().getBytes()).param("key", record.getPublicKey().getBytes())
                .param("count", record.getSignatureCount()).param("transports", record.getTransports().stream().map(AuthenticatorTransport::getValue).sorted().collect(Collectors.joining(",")))
                .param("eligible", record.isBackupEligible()).param("backed", record.isBackupState()).param("attestation", bytes(record.getAttestationObject()))
                .param("client", bytes(record.getAttestationClientDataJSON())).param("label", record.getLabel()).param("now", now).update();
    }

    /** How many rows changed: 0 when it was taken away meanwhile. */
    int used(CredentialRecord record, Instant now) {
        return jdbc.sql("UPDATE passkey SET sign_count = :count, backed_up = :backed, used_at = :now WHERE credential_id = :credential").param("count", record.getSignatureCount())
                .param("backed", record.isBackupState()).param("now", now).param("credential", record.getCredentialId().getBytes()).update();
    }

    private static byte[] bytes(@Nullable Bytes known) {
        return known == null ? new byte[0] : known.getBytes();
    }

    private static ImmutableCredentialRecord credential(ResultSet row) throws SQLException {
        String transports = row.getString("transports");
        Set<AuthenticatorTransport> ways = transports.isEmpty() ? Set.of() : Arrays.stream(transports.split(",")).map(AuthenticatorTransport::valueOf).collect(Collectors.toSet());
        Instant made = row.getObject("made_at", Instant.class);
        Instant used = row.getObject("used_at", Instant.class);
        return ImmutableCredentialRecord.builder().credentialType(PublicKeyCredentialType.PUBLIC_KEY).credentialId(new Bytes(row.getBytes("credential_id"))).userEntityUserId(new Bytes(row.getBytes("handle")))
                .publicKey(new ImmutablePublicKeyCose(row.getBytes("public_key"))).signatureCount(row.getLong("sign_count")).uvInitialized(true).transports(ways)
                .backupEligible(row.getBoolean("eligible")).backupState(row.getBoolean("backed_up")).attestationObject(new Bytes(row.getBytes("attestation")))
                .attestationClientDataJSON(new Bytes(row.getBytes("client_data"))).created(made).lastUsed(used == null ? made : used).label(row.getString("label")).build();
    }
}
