-- What coordinators decided about letters of plans before they go; step_at is the moment the plan means.
CREATE TABLE plan_change (
    basket_id  BIGINT NOT NULL REFERENCES basket ON DELETE CASCADE,
    step_at    TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    round_id   BIGINT NOT NULL REFERENCES round,
    act        VARCHAR(10) NOT NULL,
    to_at      TIMESTAMP(9) WITH TIME ZONE,
    batch      BIGINT NOT NULL,
    account_id BIGINT NOT NULL REFERENCES account,
    decided_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    PRIMARY KEY (basket_id, step_at)
);
CREATE INDEX plan_change_by_round ON plan_change (round_id);
CREATE INDEX plan_change_by_batch ON plan_change (batch);

-- What held before a decision, so that it can be taken back; empty act for nothing.
CREATE TABLE plan_change_before (
    batch     BIGINT NOT NULL,
    basket_id BIGINT NOT NULL,
    step_at   TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    act       VARCHAR(10) NOT NULL,
    to_at     TIMESTAMP(9) WITH TIME ZONE,
    PRIMARY KEY (batch, basket_id, step_at)
);

-- The hours in which one person is not written to, where they are not the office's.
CREATE TABLE contact_quiet (
    contact_id BIGINT PRIMARY KEY REFERENCES contact ON DELETE CASCADE,
    quiet_from VARCHAR(5) NOT NULL,
    quiet_to   VARCHAR(5) NOT NULL
);

-- Plans to be used again, as JSON.
CREATE TABLE kept_plan (
    id      BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    name    VARCHAR(100) NOT NULL UNIQUE,
    plan    CLOB NOT NULL,
    made_at TIMESTAMP(9) WITH TIME ZONE NOT NULL
);
