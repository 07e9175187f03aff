-- Passwords that programs use in a person's name, each for itself and each to be revoked. They are random and long, so a fast hash keeps them.
CREATE TABLE app_password (
    id         BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    account_id BIGINT NOT NULL REFERENCES account,
    name       VARCHAR(100) NOT NULL,
    hash       BINARY(32) NOT NULL UNIQUE,
    created_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
    last_used  TIMESTAMP(9) WITH TIME ZONE,
    revoked_at TIMESTAMP(9) WITH TIME ZONE
);
