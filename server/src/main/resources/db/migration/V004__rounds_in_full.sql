CREATE TABLE work_calendar (
    id         BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    name       VARCHAR(100) NOT NULL UNIQUE,
    weekend    VARCHAR(60) NOT NULL,
    country    VARCHAR(10) NOT NULL DEFAULT '',
    region     VARCHAR(20) NOT NULL DEFAULT '',
    is_default BOOLEAN NOT NULL DEFAULT FALSE,
    version    INT NOT NULL DEFAULT 1
);
CREATE TABLE closing_day (
    calendar_id BIGINT NOT NULL REFERENCES work_calendar,
    closed_on   DATE NOT NULL,
    name        VARCHAR(200) NOT NULL,
    PRIMARY KEY (calendar_id, closed_on)
);
INSERT INTO work_calendar (name, weekend, is_default) VALUES ('Office', 'SATURDAY,SUNDAY', TRUE);

CREATE TABLE blank_form (
    id         BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    name       VARCHAR(255) NOT NULL,
    media_type VARCHAR(200) NOT NULL,
    size_bytes BIGINT NOT NULL,
    sha256     BINARY(32) NOT NULL,
    content    BLOB NOT NULL,
    created_at TIMESTAMP(9) WITH TIME ZONE NOT NULL
);

-- Checklists and whole rounds kept for another time.
CREATE TABLE round_template (
    id         BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    kind       VARCHAR(10) NOT NULL,
    name       VARCHAR(200) NOT NULL,
    sheet      CLOB NOT NULL,
    version    INT NOT NULL DEFAULT 1,
    changed_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    UNIQUE (kind, name)
);

-- Rounds that come again.
CREATE TABLE round_series (
    id               BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    sheet            CLOB NOT NULL,
    rule             VARCHAR(500) NOT NULL,
    starts_on        DATE NOT NULL,
    opens_days       INT NOT NULL,
    shift            VARCHAR(10) NOT NULL,
    opens_itself     BOOLEAN NOT NULL,
    account_id       BIGINT NOT NULL REFERENCES account,
    last_occurrence  DATE,
    paused           BOOLEAN NOT NULL DEFAULT FALSE,
    trouble          VARCHAR(1000) NOT NULL DEFAULT '',
    version          INT NOT NULL DEFAULT 1
);

ALTER TABLE round ADD COLUMN calendar_id BIGINT;
ALTER TABLE round ADD CONSTRAINT round_calendar FOREIGN KEY (calendar_id) REFERENCES work_calendar;
ALTER TABLE round ADD COLUMN keep_until DATE;
ALTER TABLE round ADD COLUMN series_id BIGINT;
ALTER TABLE round ADD CONSTRAINT round_series_of FOREIGN KEY (series_id) REFERENCES round_series ON DELETE SET NULL;
ALTER TABLE checklist_item ADD COLUMN owed_by CLOB DEFAULT '' NOT NULL;
ALTER TABLE checklist_item ADD COLUMN form_id BIGINT;
ALTER TABLE checklist_item ADD CONSTRAINT item_form FOREIGN KEY (form_id) REFERENCES blank_form;
ALTER TABLE checklist_item ADD COLUMN removed_at TIMESTAMP(9) WITH TIME ZONE;
