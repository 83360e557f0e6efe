-- What all garments of an account share: evenings, events, what is in the drawer, lessons.
CREATE TABLE workrooms (
    account_id uuid PRIMARY KEY REFERENCES accounts ON DELETE CASCADE,
    version integer NOT NULL DEFAULT 1,
    format integer NOT NULL,
    facts jsonb NOT NULL,
    -- The code of its calendar, hashed; nothing where there is none.
    calendar_hash bytea UNIQUE
);

-- What is wished for the work on a garment.
CREATE TABLE wishes (
    account_id uuid NOT NULL,
    garment_id uuid NOT NULL,
    version integer NOT NULL DEFAULT 1,
    format integer NOT NULL,
    facts jsonb NOT NULL,
    PRIMARY KEY (account_id, garment_id),
    FOREIGN KEY (account_id, garment_id) REFERENCES garments (account_id, id) ON DELETE CASCADE
);

-- What was done, task by task. It only grows.
CREATE TABLE log_entries (
    account_id uuid NOT NULL,
    garment_id uuid NOT NULL,
    id uuid NOT NULL,
    position integer NOT NULL,
    format integer NOT NULL,
    facts jsonb NOT NULL,
    PRIMARY KEY (account_id, garment_id, id),
    UNIQUE (account_id, garment_id, position),
    FOREIGN KEY (account_id, garment_id) REFERENCES garments (account_id, id) ON DELETE CASCADE
);

GRANT SELECT, INSERT, UPDATE, DELETE ON workrooms TO vemble_app;
GRANT SELECT, INSERT, UPDATE ON wishes TO vemble_app;
GRANT SELECT, INSERT ON log_entries TO vemble_app;
ALTER TABLE workrooms ENABLE ROW LEVEL SECURITY;
ALTER TABLE wishes ENABLE ROW LEVEL SECURITY;
ALTER TABLE log_entries ENABLE ROW LEVEL SECURITY;
CREATE POLICY own ON workrooms USING (account_id = vemble_account());
-- Whoever reads a calendar is nobody: the one row with that code can be read.
CREATE POLICY reading_calendar ON workrooms FOR SELECT
    USING (calendar_hash = decode(NULLIF(current_setting('vemble.calendar', true), ''), 'hex'));
CREATE POLICY own ON wishes USING (account_id = vemble_account());
CREATE POLICY own ON log_entries USING (account_id = vemble_account());
