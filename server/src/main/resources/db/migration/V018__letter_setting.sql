-- What all letters of the office have in common.
CREATE TABLE letter_setting (
    id        INT PRIMARY KEY CHECK (id = 1),
    signature VARCHAR(1000) NOT NULL,
    reply_to  VARCHAR(254) NOT NULL,
    calendar  BOOLEAN NOT NULL,
    version   INT NOT NULL
);
INSERT INTO letter_setting (id, signature, reply_to, calendar, version) VALUES (1, '', '', FALSE, 1);
