-- Up to which file and message each coordinator has seen what came.
CREATE TABLE bell_look (
    account_id BIGINT PRIMARY KEY REFERENCES account,
    file_id    BIGINT NOT NULL,
    mail_id    BIGINT NOT NULL
);
