-- Files are checked for malware and archives opened as they arrive; a sender without a link of their own can confirm an address by a code.

ALTER TABLE checklist_item ADD COLUMN archives VARCHAR(20) DEFAULT 'AS_SENT' NOT NULL;
ALTER TABLE checklist_item ADD COLUMN unchecked VARCHAR(10) DEFAULT 'WAIT' NOT NULL;

-- Files from before were never checked and carry no mark for it: nobody could check them then.
ALTER TABLE received_file ADD COLUMN unchecked BOOLEAN DEFAULT FALSE NOT NULL;
ALTER TABLE received_file ADD COLUMN opened BOOLEAN DEFAULT FALSE NOT NULL;
ALTER TABLE removed_file ADD COLUMN unchecked BOOLEAN DEFAULT FALSE NOT NULL;
ALTER TABLE removed_file ADD COLUMN opened BOOLEAN DEFAULT FALSE NOT NULL;

-- What lies in quarantine, and what lay there.
CREATE TABLE held_file (
    id            BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    upload_id     VARCHAR(32) NOT NULL UNIQUE,
    submission_id BIGINT NOT NULL REFERENCES submission,
    round_id      BIGINT NOT NULL REFERENCES round,
    item_id       BIGINT NOT NULL REFERENCES checklist_item,
    original_name VARCHAR(1000) NOT NULL,
    size_bytes    BIGINT NOT NULL,
    sha256        BINARY(32) NOT NULL,
    media_type    VARCHAR(200) NOT NULL,
    received_at   TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    found         VARCHAR(300) NOT NULL,
    waits         BOOLEAN NOT NULL,
    outcome       VARCHAR(10),
    settled_at    TIMESTAMP(9) WITH TIME ZONE,
    settled_by    BIGINT REFERENCES account
);
CREATE INDEX held_file_by_outcome ON held_file (outcome, waits);
CREATE INDEX held_file_by_submission ON held_file (submission_id);

ALTER TABLE submission ADD COLUMN code_hash BINARY(32);
ALTER TABLE submission ADD COLUMN code_until TIMESTAMP(9) WITH TIME ZONE;
ALTER TABLE submission ADD COLUMN code_tries INT DEFAULT 0 NOT NULL;
ALTER TABLE submission ADD COLUMN confirmed_at TIMESTAMP(9) WITH TIME ZONE;
