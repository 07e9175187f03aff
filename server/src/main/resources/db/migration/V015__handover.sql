-- The CRC-32 of a file, which archives need before its content; computed when a set is made ready, after its hash was found right.
CREATE TABLE file_crc (
    file_id BIGINT PRIMARY KEY,
    crc32   BIGINT NOT NULL,
    sha256  BINARY(32) NOT NULL
);
