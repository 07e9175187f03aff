-- Files that should never have come: out of every count and list, and kept until they are purged, so that they can be put back.
CREATE TABLE removed_file (
    id            BIGINT PRIMARY KEY,
    upload_id     VARCHAR(32) NOT NULL UNIQUE,
    submission_id BIGINT NOT NULL REFERENCES submission,
    round_id      BIGINT NOT NULL REFERENCES round,
    basket_id     BIGINT NOT NULL REFERENCES basket,
    item_id       BIGINT NOT NULL REFERENCES checklist_item,
    original_name VARCHAR(1000) NOT NULL,
    stored_path   VARCHAR(4000) NOT NULL,
    path_key      VARCHAR(4000) NOT NULL UNIQUE,
    size_bytes    BIGINT NOT NULL,
    sha256        BINARY(32) NOT NULL,
    media_type    VARCHAR(200) NOT NULL,
    received_at   TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    review        VARCHAR(10) NOT NULL,
    reviewed_at   TIMESTAMP(9) WITH TIME ZONE,
    review_reason VARCHAR(500) NOT NULL,
    kept_apart    BOOLEAN NOT NULL
);
CREATE INDEX removed_file_by_basket ON removed_file (basket_id);
CREATE INDEX removed_file_by_item ON removed_file (item_id);

-- What was removed, by whom and why, and what was put back; it stays when the file is back.
CREATE TABLE file_removal (
    id          BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    file_id     BIGINT NOT NULL,
    path        VARCHAR(4000) NOT NULL,
    reason      VARCHAR(500) NOT NULL,
    removed_at  TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    removed_by  BIGINT NOT NULL REFERENCES account,
    restored_at TIMESTAMP(9) WITH TIME ZONE,
    restored_by BIGINT REFERENCES account
);
CREATE INDEX file_removal_by_file ON file_removal (file_id);
