-- How much room a round, a user and the office may take up. The office has number 0.
CREATE TABLE space_limit (
    room_of    VARCHAR(10) NOT NULL,
    id         BIGINT NOT NULL,
    most_bytes BIGINT NOT NULL,
    PRIMARY KEY (room_of, id)
);
