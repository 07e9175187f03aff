CREATE TABLE account (
    id            BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    name          VARCHAR(200) NOT NULL,
    email         VARCHAR(254) NOT NULL,
    email_key     VARCHAR(254) NOT NULL UNIQUE,
    password_hash VARCHAR(200) NOT NULL,
    created_at    TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    last_look     TIMESTAMP(9) WITH TIME ZONE NOT NULL
);

CREATE TABLE contact (
    id           BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    name         VARCHAR(200) NOT NULL,
    email        VARCHAR(254) NOT NULL,
    email_key    VARCHAR(254) NOT NULL UNIQUE,
    organisation VARCHAR(200) NOT NULL DEFAULT '',
    reference    VARCHAR(100) NOT NULL DEFAULT '',
    provisional  BOOLEAN NOT NULL DEFAULT FALSE,
    created_at   TIMESTAMP(9) WITH TIME ZONE NOT NULL
);

CREATE TABLE contact_group (
    id   BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    name VARCHAR(200) NOT NULL UNIQUE
);

CREATE TABLE contact_group_member (
    group_id   BIGINT NOT NULL REFERENCES contact_group,
    contact_id BIGINT NOT NULL REFERENCES contact,
    PRIMARY KEY (contact_id, group_id)
);

-- A draft lives in its sheet alone; opening writes the columns and the items, baskets and links.
CREATE TABLE round (
    id             BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    state          VARCHAR(10) NOT NULL,
    version        INT NOT NULL DEFAULT 1,
    sheet          CLOB NOT NULL,
    title          VARCHAR(200) NOT NULL,
    note           CLOB NOT NULL,
    zone           VARCHAR(60),
    deadline_date  DATE,
    deadline_time  TIME,
    warning_hours  INT NOT NULL DEFAULT 0,
    grace_hours    INT NOT NULL DEFAULT 0,
    folder_pattern VARCHAR(300),
    name_pattern   VARCHAR(300),
    asked_by       BIGINT NOT NULL REFERENCES account,
    created_at     TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    changed_at     TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    opened_at      TIMESTAMP(9) WITH TIME ZONE,
    closes_at      TIMESTAMP(9) WITH TIME ZONE,
    closed_at      TIMESTAMP(9) WITH TIME ZONE
);

CREATE TABLE checklist_item (
    id        BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    round_id  BIGINT NOT NULL REFERENCES round,
    position  INT NOT NULL,
    title     VARCHAR(200) NOT NULL,
    help      CLOB NOT NULL,
    required  BOOLEAN NOT NULL,
    min_files INT NOT NULL,
    max_files INT NOT NULL,
    kinds     VARCHAR(200) NOT NULL,
    max_bytes BIGINT NOT NULL,
    UNIQUE (round_id, position)
);

CREATE TABLE basket (
    id               BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    round_id         BIGINT NOT NULL REFERENCES round,
    contact_id       BIGINT NOT NULL REFERENCES contact,
    walk_in          BOOLEAN NOT NULL,
    asked_at         TIMESTAMP(9) WITH TIME ZONE,
    opened_at        TIMESTAMP(9) WITH TIME ZONE,
    waived_at        TIMESTAMP(9) WITH TIME ZONE,
    extension_date   DATE,
    extension_time   TIME,
    extension_reason VARCHAR(500) NOT NULL DEFAULT '',
    UNIQUE (round_id, contact_id)
);

CREATE TABLE waiver (
    basket_id BIGINT NOT NULL REFERENCES basket,
    item_id   BIGINT NOT NULL REFERENCES checklist_item,
    waived_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    PRIMARY KEY (basket_id, item_id)
);

-- token_hash finds a link; token_sealed shows it again and opens only with a key that is not in this database.
CREATE TABLE link (
    id            BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    round_id      BIGINT NOT NULL REFERENCES round,
    basket_id     BIGINT REFERENCES basket,
    token_hash    BINARY(32) NOT NULL UNIQUE,
    token_sealed  VARBINARY(100) NOT NULL,
    created_at    TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    begins_at     TIMESTAMP(9) WITH TIME ZONE,
    ends_at       TIMESTAMP(9) WITH TIME ZONE,
    paused_at     TIMESTAMP(9) WITH TIME ZONE,
    withdrawn_at  TIMESTAMP(9) WITH TIME ZONE,
    use_limit     INT,
    uses          INT NOT NULL DEFAULT 0,
    passcode_hash VARCHAR(200)
);

CREATE TABLE submission (
    id             BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    basket_id      BIGINT NOT NULL REFERENCES basket,
    link_id        BIGINT NOT NULL REFERENCES link,
    key_hash       BINARY(32) NOT NULL UNIQUE,
    receipt_code   VARCHAR(12) NOT NULL UNIQUE,
    declared_name  VARCHAR(200),
    declared_email VARCHAR(254),
    started_at     TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    finished_at    TIMESTAMP(9) WITH TIME ZONE
);

CREATE TABLE upload (
    id            VARCHAR(32) PRIMARY KEY,
    submission_id BIGINT NOT NULL REFERENCES submission,
    item_id       BIGINT NOT NULL REFERENCES checklist_item,
    file_name     VARCHAR(1000) NOT NULL,
    length_bytes  BIGINT NOT NULL,
    offset_bytes  BIGINT NOT NULL DEFAULT 0,
    state         VARCHAR(10) NOT NULL,
    touched_at    TIMESTAMP(9) WITH TIME ZONE NOT NULL
);
CREATE INDEX upload_by_state ON upload (state, touched_at);
CREATE INDEX upload_by_submission ON upload (submission_id, item_id);

CREATE TABLE received_file (
    id            BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
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
    review        VARCHAR(10) NOT NULL DEFAULT 'NONE',
    reviewed_at   TIMESTAMP(9) WITH TIME ZONE,
    review_reason VARCHAR(500) NOT NULL DEFAULT ''
);
CREATE INDEX received_file_by_basket ON received_file (basket_id, item_id);
CREATE INDEX received_file_by_time ON received_file (received_at);
CREATE INDEX received_file_by_round ON received_file (round_id);
CREATE INDEX received_file_by_submission ON received_file (submission_id);
