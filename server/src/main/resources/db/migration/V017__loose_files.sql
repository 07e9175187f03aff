-- Papers that came without a link, until somebody says whose they are and what: put in at the desk, or found in a folder.
CREATE TABLE loose_file (
    id            BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    upload_id     VARCHAR(40) NOT NULL UNIQUE,
    came_by       VARCHAR(10) NOT NULL,
    found_at      VARCHAR(4000) NOT NULL,
    file_name     VARCHAR(1000) NOT NULL,
    size_bytes    BIGINT NOT NULL,
    sha256        BINARY(32) NOT NULL,
    media_type    VARCHAR(200) NOT NULL,
    unchecked     BOOLEAN NOT NULL,
    came_at       TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    account_id    BIGINT REFERENCES account,
    state         VARCHAR(10) NOT NULL,
    submission_id BIGINT,
    file_id       BIGINT,
    settled_at    TIMESTAMP(9) WITH TIME ZONE,
    settled_by    BIGINT REFERENCES account
);
CREATE INDEX loose_file_by_state ON loose_file (state);
