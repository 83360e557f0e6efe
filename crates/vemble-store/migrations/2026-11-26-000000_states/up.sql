-- A garment has a history: its facts are kept state by state, and a try-on names the state it was measured on. What is stored says in
-- which format: what was stored so far is of the first.
CREATE TABLE garment_states (
    account_id uuid NOT NULL,
    garment_id uuid NOT NULL,
    id uuid NOT NULL,
    -- From the oldest, 0, to the newest.
    position integer NOT NULL,
    -- Goes up with every correction.
    revision integer NOT NULL DEFAULT 1,
    format integer NOT NULL,
    facts jsonb NOT NULL,
    PRIMARY KEY (account_id, garment_id, id),
    UNIQUE (account_id, garment_id, position),
    FOREIGN KEY (account_id, garment_id) REFERENCES garments (account_id, id) ON DELETE CASCADE
);
INSERT INTO garment_states (account_id, garment_id, id, position, format, facts)
    SELECT account_id, id, gen_random_uuid(), 0, 1, facts FROM garments;
ALTER TABLE garments DROP COLUMN facts;

ALTER TABLE wearers ADD COLUMN format integer NOT NULL DEFAULT 1;
ALTER TABLE wearers ALTER COLUMN format DROP DEFAULT;

ALTER TABLE try_ons
    ADD COLUMN format integer NOT NULL DEFAULT 1,
    ADD COLUMN state_id uuid;
UPDATE try_ons SET state_id = garment_states.id FROM garment_states
    WHERE garment_states.account_id = try_ons.account_id AND garment_states.garment_id = try_ons.garment_id;
ALTER TABLE try_ons
    ALTER COLUMN format DROP DEFAULT,
    ALTER COLUMN state_id SET NOT NULL,
    ADD FOREIGN KEY (account_id, garment_id, state_id) REFERENCES garment_states (account_id, garment_id, id);

-- Readings of every change stand here, by the number of their change; seams keep theirs.
ALTER TABLE readings RENAME COLUMN alteration TO change;

-- What was done to a garment. It only grows: whoever serves requests may add to it and read it, no more.
CREATE TABLE record_entries (
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

GRANT SELECT, INSERT, UPDATE ON garment_states TO vemble_app;
GRANT SELECT, INSERT ON record_entries TO vemble_app;
ALTER TABLE garment_states ENABLE ROW LEVEL SECURITY;
ALTER TABLE record_entries ENABLE ROW LEVEL SECURITY;
CREATE POLICY own ON garment_states USING (account_id = vemble_account());
CREATE POLICY own ON record_entries USING (account_id = vemble_account());
