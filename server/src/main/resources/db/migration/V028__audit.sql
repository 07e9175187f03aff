-- Who did, saw or took away what. Nothing here is ever changed or deleted; hash covers the entry and the hash of the one before it.
CREATE TABLE audit_entry (
    number     BIGINT PRIMARY KEY,
    at         TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    account_id BIGINT NOT NULL,
    who        VARCHAR(300) NOT NULL,
    caller     VARCHAR(60) NOT NULL,
    kind       VARCHAR(10) NOT NULL,
    operation  VARCHAR(120) NOT NULL,
    subject    VARCHAR(300) NOT NULL,
    status     INT NOT NULL,
    hash       VARBINARY(32) NOT NULL
);
CREATE INDEX audit_entry_by_account ON audit_entry (account_id);
