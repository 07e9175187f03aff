-- What files on the disk held when they were read last, by what the disk says of them. A file whose mark is not here is read before it is given out.
CREATE TABLE known_bytes (
    mark     VARCHAR(160)                PRIMARY KEY,
    sha256   BINARY(32)                  NOT NULL,
    noted_at TIMESTAMP(9) WITH TIME ZONE NOT NULL
);
CREATE INDEX known_bytes_noted_at ON known_bytes (noted_at);
