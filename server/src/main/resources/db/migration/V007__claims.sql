-- Who only says who they are gets a basket with the first file that arrives, not before; what comes under the address of somebody asked is kept apart.
ALTER TABLE submission ALTER COLUMN basket_id SET NULL;
ALTER TABLE submission ADD COLUMN declared_key VARCHAR(254);
-- A keyed hash of the caller's address: limits hold over submissions of one sender, and nobody's address is kept.
ALTER TABLE submission ADD COLUMN caller_hash BINARY(32);
ALTER TABLE submission ADD COLUMN claim VARCHAR(10);
ALTER TABLE submission ADD COLUMN claim_decided_at TIMESTAMP(9) WITH TIME ZONE;
ALTER TABLE submission ADD COLUMN claim_decided_by BIGINT REFERENCES account;
CREATE INDEX submission_by_declared ON submission (link_id, declared_key);
CREATE INDEX submission_by_start ON submission (started_at);

ALTER TABLE received_file ADD COLUMN kept_apart BOOLEAN DEFAULT FALSE NOT NULL;
-- While a file moves: the place it goes to, then the place it came from. Start-up ends what was begun.
ALTER TABLE received_file ADD COLUMN other_path VARCHAR(4000);
CREATE INDEX received_file_moving ON received_file (other_path);

ALTER TABLE upload ADD COLUMN metadata VARCHAR(8000) DEFAULT '' NOT NULL;

-- Whether this round takes files that run or open with script: pages, macros, disk images and the like.
ALTER TABLE round ADD COLUMN takes_active BOOLEAN DEFAULT FALSE NOT NULL;

-- Search finds a name however it is written; the rule is in the core.
CREATE ALIAS FOLDED DETERMINISTIC FOR "oakbasket.core.naming.Folded.of";
