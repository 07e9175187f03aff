-- Up to when an account was told of links that end soon; nothing was told before.
ALTER TABLE digest_setting ADD COLUMN told_ending TIMESTAMP(9) WITH TIME ZONE;
