-- A place for one person outside in which papers go in both directions: a basket, through whose link files are handed out too. Those lie in a parcel of their own, which is never handed out as one.
ALTER TABLE parcel ADD COLUMN round_id BIGINT REFERENCES round;
ALTER TABLE parcel_file ADD COLUMN taken_back_at TIMESTAMP(9) WITH TIME ZONE;
ALTER TABLE parcel_file ADD COLUMN answers_id BIGINT;
ALTER TABLE parcel_file ADD COLUMN answers VARCHAR(1000) DEFAULT '' NOT NULL;
CREATE INDEX parcel_by_round ON parcel (round_id);

CREATE TABLE exchange (
    id          BIGINT PRIMARY KEY REFERENCES parcel,
    round_id    BIGINT NOT NULL REFERENCES round,
    basket_id   BIGINT NOT NULL UNIQUE REFERENCES basket,
    way_id      BIGINT NOT NULL REFERENCES parcel_link,
    alone       BOOLEAN NOT NULL,
    put_in      BOOLEAN NOT NULL,
    see         BOOLEAN NOT NULL,
    take_away   BOOLEAN NOT NULL,
    asks_first  BOOLEAN NOT NULL,
    answer      VARCHAR(10) DEFAULT 'NONE' NOT NULL,
    answered_at TIMESTAMP(9) WITH TIME ZONE,
    version     INT DEFAULT 1 NOT NULL
);
CREATE INDEX exchange_by_round ON exchange (round_id);

-- A link through which nothing can be put in for now.
ALTER TABLE link ADD COLUMN takes_in BOOLEAN DEFAULT TRUE NOT NULL;
-- A round that is there for an exchange only stands in no list of rounds, and its deadline is nobody's.
ALTER TABLE round ADD COLUMN for_exchange BOOLEAN DEFAULT FALSE NOT NULL;
