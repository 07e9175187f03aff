-- Several people of one office: what each of them is, who left, and whose a round is. Whoever was here before set the office up.
ALTER TABLE account ADD COLUMN role VARCHAR(15) DEFAULT 'ADMINISTRATOR' NOT NULL;
ALTER TABLE account ADD COLUMN ended_at TIMESTAMP(9) WITH TIME ZONE;
ALTER TABLE account ADD COLUMN version INT DEFAULT 1 NOT NULL;
ALTER TABLE account ADD COLUMN totp_sealed VARBINARY(200);
ALTER TABLE account ADD COLUMN totp_step BIGINT DEFAULT 0 NOT NULL;

-- Codes that let somebody in once who has lost what makes the other codes.
CREATE TABLE spare_code (
    account_id BIGINT NOT NULL REFERENCES account,
    code_hash  VARCHAR(64) NOT NULL,
    PRIMARY KEY (account_id, code_hash)
);

-- Whoever holds the secret of an invitation makes an account of their own, once.
CREATE TABLE invitation (
    id           BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    name         VARCHAR(200) NOT NULL,
    email        VARCHAR(254) NOT NULL,
    email_key    VARCHAR(254) NOT NULL UNIQUE,
    role         VARCHAR(15) NOT NULL,
    token_hash   VARBINARY(32) NOT NULL UNIQUE,
    invited_by   BIGINT NOT NULL REFERENCES account,
    made_at      TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    ends_at      TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    trouble      VARCHAR(500) DEFAULT '' NOT NULL
);

-- Whoever holds the secret sets a new password, once. One for an account: a new one ends the one before.
CREATE TABLE password_reset (
    account_id BIGINT PRIMARY KEY REFERENCES account,
    token_hash VARBINARY(32) NOT NULL UNIQUE,
    ends_at    TIMESTAMP(9) WITH TIME ZONE NOT NULL
);

ALTER TABLE round ADD COLUMN whole_office BOOLEAN DEFAULT TRUE NOT NULL;
CREATE TABLE round_share (
    round_id   BIGINT NOT NULL REFERENCES round ON DELETE CASCADE,
    account_id BIGINT NOT NULL REFERENCES account,
    PRIMARY KEY (round_id, account_id)
);

-- One row at most.
CREATE TABLE team_setting (
    id                          INT DEFAULT 1 PRIMARY KEY CHECK (id = 1),
    coordinators_open_links     BOOLEAN NOT NULL,
    coordinators_hand_out       BOOLEAN NOT NULL,
    most_live_links             INT,
    version                     INT NOT NULL
);
