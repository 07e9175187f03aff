-- Files are destroyed on their date, unless somebody holds the round; what was destroyed stays on record by name and hash.

CREATE TABLE retention_hold (
    id          BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    round_id    BIGINT NOT NULL REFERENCES round,
    reason      VARCHAR(500) NOT NULL,
    held_at     TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    held_by     BIGINT NOT NULL REFERENCES account,
    released_at TIMESTAMP(9) WITH TIME ZONE,
    released_by BIGINT REFERENCES account
);
CREATE INDEX retention_hold_by_round ON retention_hold (round_id);

ALTER TABLE received_file ADD COLUMN purged_at TIMESTAMP(9) WITH TIME ZONE;
ALTER TABLE removed_file ADD COLUMN purged_at TIMESTAMP(9) WITH TIME ZONE;
-- Set before the bytes are removed and taken back after, so that a crash leaves nothing behind.
ALTER TABLE received_file ADD COLUMN purging BOOLEAN DEFAULT FALSE NOT NULL;
ALTER TABLE removed_file ADD COLUMN purging BOOLEAN DEFAULT FALSE NOT NULL;

-- What a look at the disk found to be otherwise than the records say.
CREATE TABLE disk_finding (
    id         BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    kind       VARCHAR(10) NOT NULL,
    place      VARCHAR(4000) NOT NULL,
    path_key   VARCHAR(4000) NOT NULL,
    file_id    BIGINT,
    size_bytes BIGINT NOT NULL,
    sha256     BINARY(32),
    found_at   TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    left_alone BOOLEAN DEFAULT FALSE NOT NULL,
    UNIQUE (kind, path_key)
);

-- How a file looked on the disk when it was last known to be as it should.
CREATE TABLE disk_seen (
    file_id    BIGINT PRIMARY KEY,
    size_bytes BIGINT NOT NULL,
    changed_at TIMESTAMP(9) WITH TIME ZONE NOT NULL
);
