-- A series is shared like the round it was made of, and so are the rounds that come of it.
ALTER TABLE round_series ADD COLUMN whole_office BOOLEAN DEFAULT TRUE NOT NULL;
CREATE TABLE series_share (
    series_id  BIGINT NOT NULL REFERENCES round_series ON DELETE CASCADE,
    account_id BIGINT NOT NULL REFERENCES account,
    PRIMARY KEY (series_id, account_id)
);
