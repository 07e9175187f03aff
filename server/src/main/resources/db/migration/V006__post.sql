-- Which letters a round sends by itself, as JSON; empty for rounds that send none.
ALTER TABLE round ADD COLUMN letter_plan CLOB DEFAULT '' NOT NULL;

-- A letter is about one or more baskets of one person. Its words are made when it goes, from what is owed then; links stand in them as the numbers of
-- baskets, so that this table opens none.
CREATE TABLE letter (
    id         BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    contact_id BIGINT NOT NULL REFERENCES contact,
    kind       VARCHAR(20) NOT NULL,
    state      VARCHAR(20) NOT NULL,
    batch      BIGINT NOT NULL,
    made_at    TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    not_before TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    account_id BIGINT REFERENCES account,
    to_address VARCHAR(254) DEFAULT '' NOT NULL,
    subject    VARCHAR(300) DEFAULT '' NOT NULL,
    body       CLOB DEFAULT '' NOT NULL,
    settled_at TIMESTAMP(9) WITH TIME ZONE,
    tries      INT DEFAULT 0 NOT NULL,
    trouble    VARCHAR(500) DEFAULT '' NOT NULL
);
CREATE SEQUENCE letter_batch;
CREATE INDEX letter_by_state ON letter (state, not_before);
CREATE INDEX letter_by_contact ON letter (contact_id, id);
CREATE INDEX letter_by_batch ON letter (batch);

-- step_at is the moment of the plan that a letter answers; a step is answered once for a basket.
CREATE TABLE letter_basket (
    letter_id BIGINT NOT NULL REFERENCES letter,
    basket_id BIGINT NOT NULL REFERENCES basket,
    round_id  BIGINT NOT NULL REFERENCES round,
    step_at   TIMESTAMP(9) WITH TIME ZONE,
    PRIMARY KEY (letter_id, basket_id),
    UNIQUE (basket_id, step_at)
);
CREATE INDEX letter_basket_by_round ON letter_basket (round_id);

-- Until when the plan of a gathering round has been looked at.
CREATE TABLE letter_look (
    round_id  BIGINT PRIMARY KEY REFERENCES round,
    looked_at TIMESTAMP(9) WITH TIME ZONE NOT NULL
);

-- The office's own words; a kind without a row has those that ship.
CREATE TABLE letter_text (
    kind    VARCHAR(20) PRIMARY KEY,
    subject VARCHAR(150) NOT NULL,
    body    CLOB NOT NULL,
    version INT NOT NULL DEFAULT 1
);
