-- A parcel is shared like a round: with the whole office, as every parcel was until now, or with some of it.
ALTER TABLE parcel ADD COLUMN whole_office BOOLEAN DEFAULT TRUE NOT NULL;
CREATE TABLE parcel_share (
    parcel_id  BIGINT NOT NULL REFERENCES parcel ON DELETE CASCADE,
    account_id BIGINT NOT NULL REFERENCES account,
    PRIMARY KEY (parcel_id, account_id)
);
