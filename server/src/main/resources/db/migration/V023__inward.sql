-- Messages that came by mail, each once. The message itself lies in the folder post-in for a while.
CREATE TABLE inward_message (
    id            BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    folder        VARCHAR(1000) NOT NULL,
    folder_number BIGINT NOT NULL,
    file_name     VARCHAR(100) NOT NULL,
    size_bytes    BIGINT NOT NULL,
    whole         BOOLEAN NOT NULL,
    came_at       TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    state         VARCHAR(10) NOT NULL,
    kind          VARCHAR(20) DEFAULT '' NOT NULL,
    same_as       BINARY(32),
    from_name     VARCHAR(300) DEFAULT '' NOT NULL,
    from_address  VARCHAR(320) DEFAULT '' NOT NULL,
    subject       VARCHAR(500) DEFAULT '' NOT NULL,
    message_id    VARCHAR(500) DEFAULT '' NOT NULL,
    text          CLOB DEFAULT '' NOT NULL,
    contact_id    BIGINT REFERENCES contact ON DELETE SET NULL,
    basket_id     BIGINT REFERENCES basket ON DELETE SET NULL,
    round_id      BIGINT REFERENCES round,
    letter_id     BIGINT REFERENCES letter,
    submission_id BIGINT REFERENCES submission ON DELETE SET NULL,
    confirmed     BOOLEAN DEFAULT FALSE NOT NULL,
    why           VARCHAR(500) DEFAULT '' NOT NULL,
    tries         INT DEFAULT 0 NOT NULL,
    read_at       TIMESTAMP(9) WITH TIME ZONE,
    read_by       BIGINT REFERENCES account,
    answer_state  VARCHAR(10) DEFAULT 'NONE' NOT NULL,
    answer_subject VARCHAR(500) DEFAULT '' NOT NULL,
    answer_body   CLOB DEFAULT '' NOT NULL,
    answer_language VARCHAR(8) DEFAULT 'en' NOT NULL,
    answer_tries  INT DEFAULT 0 NOT NULL,
    answer_at     TIMESTAMP(9) WITH TIME ZONE,
    answer_trouble VARCHAR(500) DEFAULT '' NOT NULL,
    UNIQUE (folder, folder_number)
);
CREATE INDEX inward_by_state ON inward_message (state);
CREATE INDEX inward_by_answer ON inward_message (answer_state, answer_at);
CREATE INDEX inward_by_same ON inward_message (same_as);
CREATE INDEX inward_by_basket ON inward_message (basket_id);
CREATE INDEX inward_by_contact ON inward_message (contact_id);

-- What was attached, and what became of it.
CREATE TABLE inward_part (
    message_id BIGINT NOT NULL REFERENCES inward_message,
    part_no    INT NOT NULL,
    name       VARCHAR(1000) NOT NULL,
    size_bytes BIGINT NOT NULL,
    outcome    VARCHAR(10) NOT NULL,
    why        VARCHAR(1000) DEFAULT '' NOT NULL,
    item       VARCHAR(200) DEFAULT '' NOT NULL,
    loose_id   BIGINT,
    file_id    BIGINT,
    PRIMARY KEY (message_id, part_no)
);

-- Who a paper came from by mail, and the basket it is supposed to be for.
ALTER TABLE loose_file ADD COLUMN from_address VARCHAR(320) DEFAULT '' NOT NULL;
ALTER TABLE loose_file ADD COLUMN basket_hint BIGINT;

-- What came by mail and was filed by itself.
ALTER TABLE submission ADD COLUMN by_mail BOOLEAN DEFAULT FALSE NOT NULL;
