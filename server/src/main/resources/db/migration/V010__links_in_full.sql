-- Every link has terms of its own, and what is done to it is kept and can be undone.
ALTER TABLE link ADD COLUMN set_at TIMESTAMP(9) WITH TIME ZONE;
UPDATE link SET set_at = created_at;
ALTER TABLE link ALTER COLUMN set_at SET NOT NULL;
ALTER TABLE link ADD COLUMN file_limit INT;
ALTER TABLE link ADD COLUMN file_bytes_limit BIGINT;
ALTER TABLE link ADD COLUMN total_bytes_limit BIGINT;
ALTER TABLE link ADD COLUMN readable_name VARCHAR(60) DEFAULT '' NOT NULL;
ALTER TABLE link ADD COLUMN version INT DEFAULT 1 NOT NULL;
CREATE INDEX link_by_round ON link (round_id);

-- What came with a sending, counted where it is written anyway; files taken out later stay counted, since they came.
ALTER TABLE submission ADD COLUMN files INT DEFAULT 0 NOT NULL;
ALTER TABLE submission ADD COLUMN bytes BIGINT DEFAULT 0 NOT NULL;
ALTER TABLE submission ADD COLUMN last_file_at TIMESTAMP(9) WITH TIME ZONE;
UPDATE submission SET
    files = (SELECT COUNT(*) FROM received_file f WHERE f.submission_id = submission.id) + (SELECT COUNT(*) FROM removed_file f WHERE f.submission_id = submission.id),
    bytes = (SELECT COALESCE(SUM(size_bytes), 0) FROM received_file f WHERE f.submission_id = submission.id)
        + (SELECT COALESCE(SUM(size_bytes), 0) FROM removed_file f WHERE f.submission_id = submission.id),
    last_file_at = GREATEST((SELECT MAX(received_at) FROM received_file f WHERE f.submission_id = submission.id),
        (SELECT MAX(received_at) FROM removed_file f WHERE f.submission_id = submission.id));
CREATE INDEX submission_by_link ON submission (link_id);

CREATE TABLE link_act (
    id         BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    kind       VARCHAR(20) NOT NULL,
    said       VARCHAR(200) NOT NULL,
    account_id BIGINT NOT NULL REFERENCES account,
    at         TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    undone_at  TIMESTAMP(9) WITH TIME ZONE
);
-- What held before for each link it was done to, as JSON that only its own capability reads.
CREATE TABLE link_act_link (
    act_id        BIGINT NOT NULL REFERENCES link_act,
    link_id       BIGINT NOT NULL REFERENCES link,
    version_after INT NOT NULL,
    held          VARCHAR(2000) NOT NULL,
    PRIMARY KEY (link_id, act_id)
);
CREATE INDEX link_act_link_by_act ON link_act_link (act_id);

-- On which web sites the page of a round's open link may stand in a frame.
CREATE TABLE frame_origin (
    round_id BIGINT NOT NULL REFERENCES round,
    origin   VARCHAR(270) NOT NULL,
    PRIMARY KEY (round_id, origin)
);

-- What the sender wrote to the office along with the files.
ALTER TABLE submission ADD COLUMN note VARCHAR(2000) DEFAULT '' NOT NULL;

-- What senders could not send because something was full, for the coordinator to hear of: one row a link and reason.
CREATE TABLE refused_upload (
    link_id BIGINT NOT NULL REFERENCES link,
    code    VARCHAR(30) NOT NULL,
    last_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    PRIMARY KEY (link_id, code)
);
CREATE INDEX refused_upload_by_time ON refused_upload (last_at);
