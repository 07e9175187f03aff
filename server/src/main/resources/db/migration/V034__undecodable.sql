-- Contents that ended the child process that was to decode them. They are shown as what cannot be shown, and not tried again.
CREATE TABLE undecodable (
    sha256   BINARY(32)                  NOT NULL,
    work     VARCHAR(40)                 NOT NULL,
    noted_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    PRIMARY KEY (sha256, work)
);
CREATE INDEX undecodable_noted_at ON undecodable (noted_at);
