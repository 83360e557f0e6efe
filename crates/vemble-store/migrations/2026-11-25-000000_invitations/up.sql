-- A photo may belong to one try-on of its garment.
ALTER TABLE photos
    ADD COLUMN try_on_id uuid,
    ADD FOREIGN KEY (account_id, try_on_id) REFERENCES try_ons (account_id, id) ON DELETE SET NULL (try_on_id);

-- Somebody without an account who may see one try-on, or add to it, until it is over. The code is kept as its hash only.
CREATE TABLE invitations (
    account_id uuid NOT NULL REFERENCES accounts ON DELETE CASCADE,
    id uuid NOT NULL,
    garment_id uuid NOT NULL,
    try_on_id uuid NOT NULL,
    may_add boolean NOT NULL,
    code_hash bytea NOT NULL UNIQUE,
    ends_at timestamptz NOT NULL,
    PRIMARY KEY (account_id, id),
    FOREIGN KEY (account_id, garment_id) REFERENCES garments (account_id, id) ON DELETE CASCADE
);
CREATE INDEX invitations_to_try_on ON invitations (account_id, try_on_id);

-- Which account the readings of a digital tape go to.
CREATE TABLE tapes (
    account_id uuid PRIMARY KEY REFERENCES accounts ON DELETE CASCADE,
    serial text NOT NULL UNIQUE
);

GRANT SELECT, INSERT, UPDATE, DELETE ON invitations, tapes TO vemble_app;
ALTER TABLE invitations ENABLE ROW LEVEL SECURITY;
ALTER TABLE tapes ENABLE ROW LEVEL SECURITY;
CREATE POLICY own ON invitations USING (account_id = vemble_account());
-- Whoever joins is nobody yet: the one row with that code can be read.
CREATE POLICY joining ON invitations FOR SELECT
    USING (code_hash = decode(NULLIF(current_setting('vemble.joining', true), ''), 'hex'));
CREATE POLICY own ON tapes USING (account_id = vemble_account());
-- A tape that speaks names itself: its one row can be read, and taken over by whoever pairs it next.
CREATE POLICY speaking ON tapes FOR SELECT USING (serial = NULLIF(current_setting('vemble.tape', true), ''));
CREATE POLICY taking_over ON tapes FOR DELETE USING (serial = NULLIF(current_setting('vemble.tape', true), ''));
