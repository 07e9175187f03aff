-- Files go where rules say, into one or several folder roots; everything that is done to them is in a journal.

-- The first root lies in the data folder and has no path of its own.
CREATE TABLE folder_root (
    id         BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    name       VARCHAR(100) NOT NULL,
    path       VARCHAR(1000) NOT NULL,
    added_at   TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    removed_at TIMESTAMP(9) WITH TIME ZONE
);
INSERT INTO folder_root (name, path, added_at) VALUES ('', '', TIMESTAMP WITH TIME ZONE '2026-01-01 00:00:00+00');

-- Every version of a list of rules; the last one holds. Round 0 stands for the office.
CREATE TABLE rule_set (
    id         BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    round_id   BIGINT NOT NULL,
    version    INT NOT NULL,
    rules      CLOB NOT NULL,
    changed_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    changed_by BIGINT REFERENCES account,
    UNIQUE (round_id, version)
);

-- What was done to files. An entry is written before the disk is touched, with begun set, and either loses that mark or goes.
CREATE TABLE journal_entry (
    id         BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    file_id    BIGINT NOT NULL,
    round_id   BIGINT NOT NULL,
    act        VARCHAR(12) NOT NULL,
    from_place VARCHAR(4000) NOT NULL,
    to_place   VARCHAR(4000) NOT NULL,
    at         TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    account_id BIGINT REFERENCES account,
    why        CLOB NOT NULL,
    batch_id   BIGINT,
    undoes     BIGINT,
    begun      BOOLEAN NOT NULL
);
CREATE INDEX journal_entry_by_file ON journal_entry (file_id);
CREATE INDEX journal_entry_by_round ON journal_entry (round_id);
CREATE INDEX journal_entry_by_batch ON journal_entry (batch_id);
CREATE INDEX journal_entry_by_undone ON journal_entry (undoes);

INSERT INTO journal_entry (file_id, round_id, act, from_place, to_place, at, why, begun)
SELECT id, round_id, 'PLACED', '', stored_path, received_at, '{"code":"before-journal"}', FALSE FROM received_file
UNION ALL SELECT id, round_id, 'PLACED', '', stored_path, received_at, '{"code":"before-journal"}', FALSE FROM removed_file;

-- Files that lie in the first root until their own place can be reached.
CREATE TABLE waiting_file (
    file_id BIGINT PRIMARY KEY,
    reason  VARCHAR(30) NOT NULL,
    place   VARCHAR(4000) NOT NULL,
    since   TIMESTAMP(9) WITH TIME ZONE NOT NULL
);

-- Copies that rules asked for: wanted, then made.
CREATE TABLE file_copy (
    id       BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    file_id  BIGINT NOT NULL,
    wanted   VARCHAR(4000) NOT NULL,
    place    VARCHAR(4000),
    path_key VARCHAR(4000) UNIQUE,
    why      CLOB NOT NULL,
    batch_id BIGINT,
    made_at  TIMESTAMP(9) WITH TIME ZONE,
    gone_at  TIMESTAMP(9) WITH TIME ZONE,
    UNIQUE (file_id, wanted)
);
CREATE INDEX file_copy_by_made ON file_copy (made_at);
CREATE INDEX file_copy_by_batch ON file_copy (batch_id);

CREATE TABLE file_mark (
    file_id  BIGINT NOT NULL,
    mark     VARCHAR(40) NOT NULL,
    batch_id BIGINT,
    PRIMARY KEY (file_id, mark)
);

-- People whom a rule tells of a file, until they are told.
CREATE TABLE file_notice (
    id      BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    file_id BIGINT NOT NULL,
    address VARCHAR(254) NOT NULL,
    why     CLOB NOT NULL,
    since   TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    tries   INT NOT NULL,
    next_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    told_at TIMESTAMP(9) WITH TIME ZONE
);
CREATE INDEX file_notice_by_next ON file_notice (told_at, next_at);

-- Rules put to files that were there before.
CREATE TABLE refiling (
    id       BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    round_id BIGINT NOT NULL,
    undoes   BIGINT,
    total    INT NOT NULL,
    begun_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    begun_by BIGINT NOT NULL REFERENCES account,
    ended_at TIMESTAMP(9) WITH TIME ZONE
);
CREATE TABLE refiling_step (
    refiling_id BIGINT NOT NULL REFERENCES refiling,
    number      INT NOT NULL,
    file_id     BIGINT NOT NULL,
    from_place  VARCHAR(4000) NOT NULL,
    to_place    VARCHAR(4000) NOT NULL,
    why         CLOB NOT NULL,
    state       VARCHAR(10) NOT NULL,
    problem     VARCHAR(40) NOT NULL,
    undoes      BIGINT,
    PRIMARY KEY (refiling_id, number)
);
CREATE INDEX refiling_step_by_state ON refiling_step (refiling_id, state);

ALTER TABLE received_file ADD COLUMN in_tray BOOLEAN DEFAULT FALSE NOT NULL;
ALTER TABLE removed_file ADD COLUMN in_tray BOOLEAN DEFAULT FALSE NOT NULL;

-- Whether a coordinator put in what came by other ways.
ALTER TABLE submission ADD COLUMN by_desk BOOLEAN DEFAULT FALSE NOT NULL;
