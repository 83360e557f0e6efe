-- Ids are made by whoever creates a thing (UUIDv7) and are unique within an account, so that an archive can be
-- brought into another account without clashing.

CREATE TABLE accounts (
    id uuid PRIMARY KEY,
    name text NOT NULL,
    is_example boolean NOT NULL DEFAULT false
);
CREATE UNIQUE INDEX one_example_account ON accounts (is_example) WHERE is_example;

CREATE TABLE wearers (
    account_id uuid NOT NULL REFERENCES accounts ON DELETE CASCADE,
    id uuid NOT NULL,
    version integer NOT NULL DEFAULT 1,
    facts jsonb NOT NULL,
    PRIMARY KEY (account_id, id)
);

CREATE TABLE garments (
    account_id uuid NOT NULL REFERENCES accounts ON DELETE CASCADE,
    id uuid NOT NULL,
    wearer_id uuid NOT NULL,
    version integer NOT NULL DEFAULT 1,
    facts jsonb NOT NULL,
    PRIMARY KEY (account_id, id),
    FOREIGN KEY (account_id, wearer_id) REFERENCES wearers (account_id, id)
);

CREATE TABLE try_ons (
    account_id uuid NOT NULL REFERENCES accounts ON DELETE CASCADE,
    id uuid NOT NULL,
    garment_id uuid NOT NULL,
    version integer NOT NULL DEFAULT 1,
    -- Date, conditions and what is done to each seam; the readings stand in a table of their own.
    facts jsonb NOT NULL,
    PRIMARY KEY (account_id, id),
    FOREIGN KEY (account_id, garment_id) REFERENCES garments (account_id, id) ON DELETE CASCADE
);

-- A reading exactly as it was taken: lengths in nanometres, with the unit that was written.
CREATE TABLE readings (
    account_id uuid NOT NULL,
    id uuid NOT NULL,
    try_on_id uuid NOT NULL,
    alteration integer NOT NULL,
    position integer NOT NULL,
    side text NOT NULL CHECK (side IN ('left', 'right')),
    station_nm bigint NOT NULL,
    station_unit text NOT NULL CHECK (station_unit IN ('mm', 'cm', 'in')),
    amount_nm bigint NOT NULL CHECK (amount_nm >= 0),
    amount_unit text NOT NULL CHECK (amount_unit IN ('mm', 'cm', 'in')),
    how text NOT NULL CHECK (how IN ('fold', 'whole', 'front_panel', 'back_panel', 'gap')),
    PRIMARY KEY (account_id, id),
    FOREIGN KEY (account_id, try_on_id) REFERENCES try_ons (account_id, id) ON DELETE CASCADE
);
CREATE INDEX readings_of_try_on ON readings (account_id, try_on_id, alteration, position);
