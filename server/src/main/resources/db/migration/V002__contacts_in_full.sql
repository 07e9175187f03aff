ALTER TABLE contact ADD COLUMN language VARCHAR(35) DEFAULT '' NOT NULL;
ALTER TABLE contact ADD COLUMN zone VARCHAR(60) DEFAULT '' NOT NULL;
ALTER TABLE contact ADD COLUMN notes CLOB DEFAULT '' NOT NULL;
ALTER TABLE contact ADD COLUMN version INT DEFAULT 1 NOT NULL;
-- A contact that was merged keeps its row and its address, which then leads to the one it was merged into.
ALTER TABLE contact ADD COLUMN merged_into BIGINT;
ALTER TABLE contact ADD CONSTRAINT contact_merged_into FOREIGN KEY (merged_into) REFERENCES contact;
ALTER TABLE contact ADD COLUMN discarded_at TIMESTAMP(9) WITH TIME ZONE;
CREATE INDEX contact_by_name ON contact (name);

-- What was done to contacts and can be undone: imports, merges, discards. The detail is JSON that only its own capability reads.
CREATE TABLE contact_act (
    id         BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    kind       VARCHAR(20) NOT NULL,
    account_id BIGINT NOT NULL REFERENCES account,
    at         TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    summary    VARCHAR(500) NOT NULL,
    detail     CLOB NOT NULL,
    undone_at  TIMESTAMP(9) WITH TIME ZONE
);
