ALTER TABLE basket ADD COLUMN version INT DEFAULT 1 NOT NULL;
ALTER TABLE basket ADD COLUMN paused_at TIMESTAMP(9) WITH TIME ZONE;
ALTER TABLE basket ADD COLUMN removed_at TIMESTAMP(9) WITH TIME ZONE;
ALTER TABLE basket ADD COLUMN note VARCHAR(500) DEFAULT '' NOT NULL;
-- The groups the person was in when asked, one on a line: what a person owes does not change behind their back.
ALTER TABLE basket ADD COLUMN groups_then CLOB DEFAULT '' NOT NULL;
CREATE INDEX basket_by_contact ON basket (contact_id);
CREATE INDEX link_by_basket ON link (basket_id);
CREATE INDEX submission_by_basket ON submission (basket_id);

-- What coordinators did to baskets, with what held before, so that it can be undone and told.
CREATE TABLE basket_act (
    id         BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    round_id   BIGINT NOT NULL REFERENCES round,
    account_id BIGINT NOT NULL REFERENCES account,
    at         TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    kind       VARCHAR(20) NOT NULL,
    said       VARCHAR(700) NOT NULL,
    detail     CLOB NOT NULL,
    undone_at  TIMESTAMP(9) WITH TIME ZONE
);
CREATE INDEX basket_act_by_round ON basket_act (round_id, at);
CREATE TABLE basket_act_basket (
    act_id    BIGINT NOT NULL REFERENCES basket_act,
    basket_id BIGINT NOT NULL REFERENCES basket,
    PRIMARY KEY (basket_id, act_id)
);

CREATE INDEX received_file_by_content ON received_file (sha256);
CREATE INDEX received_file_by_item ON received_file (item_id);
CREATE INDEX received_file_to_check ON received_file (round_id, review);
