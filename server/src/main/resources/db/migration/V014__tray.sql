-- What somebody decided in the tray.

-- A file that was given to another person or item than it was sent for; it does not follow its sending any more.
ALTER TABLE received_file ADD COLUMN assigned BOOLEAN DEFAULT FALSE NOT NULL;
ALTER TABLE removed_file ADD COLUMN assigned BOOLEAN DEFAULT FALSE NOT NULL;
-- A file that rules do not send to the tray again.
ALTER TABLE received_file ADD COLUMN tray_decided BOOLEAN DEFAULT FALSE NOT NULL;
ALTER TABLE removed_file ADD COLUMN tray_decided BOOLEAN DEFAULT FALSE NOT NULL;

ALTER TABLE submission ADD COLUMN sender_seen_at TIMESTAMP(9) WITH TIME ZONE;

CREATE TABLE tray_act (
    id           BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    at           TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    account_id   BIGINT NOT NULL REFERENCES account,
    before       CLOB NOT NULL,
    undone_at    TIMESTAMP(9) WITH TIME ZONE
);
