-- The address of a coordinator's calendar feed: found by its hash, shown again by unsealing, as with links.
CREATE TABLE calendar_feed (
    account_id   BIGINT PRIMARY KEY REFERENCES account,
    token_hash   BINARY(32) NOT NULL UNIQUE,
    token_sealed VARBINARY(100) NOT NULL,
    created_at   TIMESTAMP(9) WITH TIME ZONE NOT NULL
);
