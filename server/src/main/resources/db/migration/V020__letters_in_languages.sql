-- The office's own words, one text of each kind in each language.
ALTER TABLE letter_text ADD COLUMN language VARCHAR(8) DEFAULT 'en' NOT NULL;
ALTER TABLE letter_text DROP PRIMARY KEY;
ALTER TABLE letter_text ADD PRIMARY KEY (kind, language);

-- The sending that a receipt or thanks tells of; the language a letter was written in.
ALTER TABLE letter ADD COLUMN submission_id BIGINT REFERENCES submission;
ALTER TABLE letter ADD COLUMN language VARCHAR(8) DEFAULT 'en' NOT NULL;
