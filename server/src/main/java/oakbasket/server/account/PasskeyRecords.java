package oakbasket.server.account;

import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.util.List;
import oakbasket.server.security.SecretKeys;
import oakbasket.server.storage.Transactions;
import org.jspecify.annotations.Nullable;
import org.springframework.security.web.webauthn.api.Bytes;
import org.springframework.security.web.webauthn.api.CredentialRecord;
import org.springframework.security.web.webauthn.api.ImmutablePublicKeyCredentialUserEntity;
import org.springframework.security.web.webauthn.api.PublicKeyCredentialUserEntity;
import org.springframework.security.web.webauthn.management.PublicKeyCredentialUserEntityRepository;
import org.springframework.security.web.webauthn.management.UserCredentialRepository;
import org.springframework.stereotype.Component;

/** Passkeys and accounts as Spring Security's WebAuthn asks for them. Accounts are named by their number there; the handle that devices keep tells nothing of them. */
@Component
class PasskeyRecords implements UserCredentialRepository {

    private final PasskeyTable table;
    private final AccountService accounts;
    private final SecretKeys keys;
    private final Transactions transactions;
    private final Clock clock;

    PasskeyRecords(PasskeyTable table, AccountService accounts, SecretKeys keys, Transactions transactions, Clock clock) {
        this.table = table;
        this.accounts = accounts;
        this.keys = keys;
        this.transactions = transactions;
        this.clock = clock;
    }

    /** Accounts, which are neither made nor removed here. */
    PublicKeyCredentialUserEntityRepository users() {
        return new PublicKeyCredentialUserEntityRepository() {
            @Override
            public @Nullable PublicKeyCredentialUserEntity findById(Bytes handle) {
                return table.accountOf(handle.getBytes()).map(account -> entity(accounts.current(account))).orElse(null);
            }

            @Override
            public PublicKeyCredentialUserEntity findByUsername(String number) {
                return entity(accounts.current(Long.parseLong(number)));
            }

            @Override
            public void save(PublicKeyCredentialUserEntity entity) {
                throw new UnsupportedOperationException("Accounts are made elsewhere");
            }

            @Override
            public void delete(Bytes handle) {
                throw new UnsupportedOperationException("Accounts are ended elsewhere");
            }
        };
    }

    private PublicKeyCredentialUserEntity entity(Account account) {
        return ImmutablePublicKeyCredentialUserEntity.builder().id(new Bytes(handle(account.id()))).name(account.email()).displayName(account.name()).build();
    }

    private byte[] handle(long account) {
        return keys.sign(("passkey " + account).getBytes(StandardCharsets.UTF_8));
    }

    /** The account behind a handle. */
    long accountOf(Bytes handle) {
        return table.accountOf(handle.getBytes()).orElseThrow();
    }

    @Override
    public void delete(Bytes credential) {
        throw new UnsupportedOperationException("Passkeys are taken away by their number");
    }

    @Override
    public void save(CredentialRecord record) {
        if (table.byCredential(record.getCredentialId().getBytes()).isPresent()) {
            transactions.own(() -> table.used(record, clock.instant()));
        } else {
            long account = accounts.members().stream().map(Member::id).filter(id -> java.util.Arrays.equals(handle(id), record.getUserEntityUserId().getBytes())).findFirst().orElseThrow();
            transactions.own(() -> table.insert(account, record, clock.instant()));
        }
    }

    @Override
    public @Nullable CredentialRecord findByCredentialId(Bytes credential) {
        return table.byCredential(credential.getBytes()).orElse(null);
    }

    @Override
    public List<CredentialRecord> findByUserId(Bytes handle) {
        return table.byHandle(handle.getBytes());
    }
}
