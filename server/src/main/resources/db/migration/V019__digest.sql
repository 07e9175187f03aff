-- How each account is told by mail of what has come; told_file is the newest file that was told.
CREATE TABLE digest_setting (
    account_id BIGINT PRIMARY KEY REFERENCES account,
    plan       VARCHAR(10) NOT NULL,
    muted      VARCHAR(4000) NOT NULL,
    told_file  BIGINT NOT NULL,
    told_at    TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    problem    VARCHAR(500) NOT NULL
);
