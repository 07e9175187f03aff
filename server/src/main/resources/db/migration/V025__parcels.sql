-- Files handed out. Until it is handed out, a parcel is a draft whose window may be told in days, and its people stand in it as JSON; then they have links.
CREATE TABLE parcel (
    id            BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    title         VARCHAR(150) DEFAULT '' NOT NULL,
    message       VARCHAR(4000) DEFAULT '' NOT NULL,
    account_id    BIGINT NOT NULL REFERENCES account,
    made_at       TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    handed_out_at TIMESTAMP(9) WITH TIME ZONE,
    days          INT,
    set_at        TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    begins_at     TIMESTAMP(9) WITH TIME ZONE,
    ends_at       TIMESTAMP(9) WITH TIME ZONE,
    stopped_at    TIMESTAMP(9) WITH TIME ZONE,
    purged_at     TIMESTAMP(9) WITH TIME ZONE,
    passcode_hash VARCHAR(100),
    most_pick_ups INT,
    kept_days     INT NOT NULL,
    name          VARCHAR(60) DEFAULT '' NOT NULL,
    reminders     CLOB DEFAULT '' NOT NULL,
    people        CLOB DEFAULT '' NOT NULL,
    open          BOOLEAN DEFAULT FALSE NOT NULL,
    looked_at     TIMESTAMP(9) WITH TIME ZONE,
    by_letter     BOOLEAN DEFAULT TRUE NOT NULL,
    when_ready    BOOLEAN DEFAULT FALSE NOT NULL,
    version       INT DEFAULT 1 NOT NULL
);

-- A file of a parcel has bytes of its own (bytes_id) or is a received file, whose bytes stay where they lie; it may be taken out meanwhile, and put back.
CREATE TABLE parcel_file (
    id               BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    parcel_id        BIGINT NOT NULL REFERENCES parcel,
    number           INT NOT NULL,
    file_name        VARCHAR(255) NOT NULL,
    size_bytes       BIGINT NOT NULL,
    offset_bytes     BIGINT DEFAULT 0 NOT NULL,
    bytes_id         VARCHAR(40) UNIQUE,
    received_file_id BIGINT,
    state            VARCHAR(10) NOT NULL,
    trouble          VARCHAR(60) DEFAULT '' NOT NULL,
    sha256           VARBINARY(32),
    crc32            BIGINT DEFAULT 0 NOT NULL,
    media_type       VARCHAR(200) DEFAULT '' NOT NULL,
    unchecked        BOOLEAN DEFAULT FALSE NOT NULL,
    UNIQUE (parcel_id, number)
);
CREATE INDEX parcel_file_by_state ON parcel_file (state);
CREATE INDEX parcel_file_by_received ON parcel_file (received_file_id);

-- The link of one person, or the one for anybody who holds it.
CREATE TABLE parcel_link (
    id           BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    parcel_id    BIGINT NOT NULL REFERENCES parcel,
    contact_id   BIGINT REFERENCES contact,
    token_hash   VARBINARY(32) NOT NULL UNIQUE,
    token_sealed VARBINARY(200) NOT NULL,
    made_at      TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    withdrawn_at TIMESTAMP(9) WITH TIME ZONE,
    seen_at      TIMESTAMP(9) WITH TIME ZONE
);
CREATE INDEX parcel_link_by_parcel ON parcel_link (parcel_id);
CREATE INDEX parcel_link_by_contact ON parcel_link (contact_id);

-- One file taken away through one link, in pieces or at once.
CREATE TABLE pick_up (
    id       BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    link_id  BIGINT NOT NULL REFERENCES parcel_link,
    file_id  BIGINT NOT NULL REFERENCES parcel_file,
    caller   VARCHAR(60) NOT NULL,
    taken    VARCHAR(6000) NOT NULL,
    begun_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    last_at  TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    whole_at TIMESTAMP(9) WITH TIME ZONE
);
CREATE INDEX pick_up_by_link ON pick_up (link_id, file_id);
CREATE INDEX pick_up_by_whole ON pick_up (whole_at);

-- What coordinators did with a parcel.
CREATE TABLE parcel_act (
    id         BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    parcel_id  BIGINT NOT NULL REFERENCES parcel,
    account_id BIGINT REFERENCES account,
    at         TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    kind       VARCHAR(20) NOT NULL,
    said       VARCHAR(500) DEFAULT '' NOT NULL
);
CREATE INDEX parcel_act_by_parcel ON parcel_act (parcel_id, id);

-- A letter about a parcel tells of the link of one person.
ALTER TABLE letter ADD COLUMN parcel_link_id BIGINT REFERENCES parcel_link;
CREATE INDEX letter_by_parcel_link ON letter (parcel_link_id);

-- Up to when each coordinator was told of what was taken away, by the bell and by mail.
ALTER TABLE bell_look ADD COLUMN taken_at TIMESTAMP(9) WITH TIME ZONE DEFAULT CURRENT_TIMESTAMP NOT NULL;
ALTER TABLE digest_setting ADD COLUMN told_taken TIMESTAMP(9) WITH TIME ZONE DEFAULT CURRENT_TIMESTAMP NOT NULL;
