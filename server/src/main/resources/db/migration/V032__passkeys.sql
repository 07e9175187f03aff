-- Passkeys (WebAuthn): public keys by which devices of an account prove that it is they. The handle stands for the account towards devices, and tells nothing of it.
CREATE TABLE passkey (
    id            BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    account_id    BIGINT NOT NULL REFERENCES account,
    handle        VARBINARY(64) NOT NULL,
    credential_id VARBINARY(1023) NOT NULL UNIQUE,
    public_key    VARBINARY(2000) NOT NULL,
    sign_count    BIGINT NOT NULL,
    transports    VARCHAR(200) NOT NULL,
    eligible      BOOLEAN NOT NULL,
    backed_up     BOOLEAN NOT NULL,
    attestation   VARBINARY(10000) NOT NULL,
    client_data   VARBINARY(5000) NOT NULL,
    label         VARCHAR(100) NOT NULL,
    made_at       TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    used_at       TIMESTAMP(9) WITH TIME ZONE
);
CREATE INDEX passkey_by_account ON passkey (account_id);
CREATE INDEX passkey_by_handle ON passkey (handle);
