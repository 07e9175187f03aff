-- What was heard of a letter after the mail server took it: that its link was opened, and what the report says that it cannot be delivered.
ALTER TABLE letter ADD COLUMN opened_at TIMESTAMP(9) WITH TIME ZONE;
ALTER TABLE letter ADD COLUMN bounced_at TIMESTAMP(9) WITH TIME ZONE;
ALTER TABLE letter ADD COLUMN bounce_status VARCHAR(20) DEFAULT '' NOT NULL;

-- How many letters are handed over in a minute at most; 0 for as many as there are.
ALTER TABLE letter_setting ADD COLUMN per_minute INT DEFAULT 1200 NOT NULL;
-- How long nobody is written to again by itself, and the hours of the night in which nobody is.
ALTER TABLE letter_setting ADD COLUMN gap_hours INT DEFAULT 20 NOT NULL;
ALTER TABLE letter_setting ADD COLUMN quiet_from VARCHAR(5) DEFAULT '20:00' NOT NULL;
ALTER TABLE letter_setting ADD COLUMN quiet_to VARCHAR(5) DEFAULT '07:00' NOT NULL;
