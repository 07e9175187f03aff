-- The office's own face for people outside. One row at most; logos stand by the hash of their content and are never changed.
CREATE TABLE brand (
    id         INT DEFAULT 1 PRIMARY KEY CHECK (id = 1),
    name       VARCHAR(120) NOT NULL,
    colour     VARCHAR(7) NOT NULL,
    background VARCHAR(7) NOT NULL,
    logo       VARCHAR(64) NOT NULL,
    contact    VARCHAR(300) NOT NULL,
    privacy    VARCHAR(600) NOT NULL,
    version    INT NOT NULL
);
CREATE TABLE brand_logo (
    hash    VARCHAR(64) PRIMARY KEY,
    content BLOB NOT NULL,
    width   INT NOT NULL,
    height  INT NOT NULL
);
