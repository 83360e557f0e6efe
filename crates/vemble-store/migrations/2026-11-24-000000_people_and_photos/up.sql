-- Accounts that people sign in to. An account has a password, or is the example, or is the one of a household.
ALTER TABLE accounts
    ADD COLUMN email text,
    ADD COLUMN password_hash text,
    ADD COLUMN is_household boolean NOT NULL DEFAULT false,
    -- Sessions that began under an older number have ended: it goes up when the password changes.
    ADD COLUMN session_epoch integer NOT NULL DEFAULT 1,
    ADD CHECK ((email IS NULL) = (password_hash IS NULL));
CREATE UNIQUE INDEX one_account_per_email ON accounts (email) WHERE email IS NOT NULL;
CREATE UNIQUE INDEX one_household ON accounts (is_household) WHERE is_household;

ALTER TABLE garments ADD COLUMN archived boolean NOT NULL DEFAULT false;
CREATE INDEX garments_of_wearer ON garments (account_id, wearer_id);
CREATE INDEX try_ons_of_garment ON try_ons (account_id, garment_id);

-- Photos live here so that one backup holds all. Position data is gone and orientation applied before they arrive.
CREATE TABLE photos (
    account_id uuid NOT NULL,
    id uuid NOT NULL,
    garment_id uuid NOT NULL,
    moment text NOT NULL CHECK (moment IN ('before', 'after', 'detail')),
    -- The photo of before that this one of after stands beside.
    pair_id uuid,
    caption text NOT NULL DEFAULT '',
    width integer NOT NULL,
    height integer NOT NULL,
    media_type text NOT NULL,
    image bytea NOT NULL,
    thumbnail bytea NOT NULL,
    PRIMARY KEY (account_id, id),
    FOREIGN KEY (account_id, garment_id) REFERENCES garments (account_id, id) ON DELETE CASCADE,
    FOREIGN KEY (account_id, pair_id) REFERENCES photos (account_id, id) ON DELETE SET NULL (pair_id)
);
CREATE INDEX photos_of_garment ON photos (account_id, garment_id);

-- The role that serves requests. It owns nothing and cannot pass by row-level security. Several databases of one
-- cluster share it, and may make it at the same moment.
DO $$
BEGIN
    -- Where an administrator made it already, nobody needs the right to.
    IF NOT EXISTS (SELECT FROM pg_roles WHERE rolname = 'vemble_app') THEN
        CREATE ROLE vemble_app NOLOGIN NOSUPERUSER NOBYPASSRLS;
    END IF;
EXCEPTION WHEN duplicate_object OR unique_violation THEN
    NULL;
END
$$;
DO $$
BEGIN
    IF NOT pg_has_role(current_user, 'vemble_app', 'MEMBER') THEN
        EXECUTE format('GRANT vemble_app TO %I', current_user);
    END IF;
EXCEPTION WHEN duplicate_object OR unique_violation THEN
    NULL;
END
$$;
GRANT USAGE ON SCHEMA public TO vemble_app;
GRANT SELECT, INSERT, UPDATE, DELETE ON accounts, wearers, garments, try_ons, readings, photos TO vemble_app;

-- Who the connection speaks for: set anew every time a connection is taken.
CREATE FUNCTION vemble_account() RETURNS uuid LANGUAGE sql STABLE AS
    $$ SELECT NULLIF(current_setting('vemble.account', true), '')::uuid $$;

ALTER TABLE accounts ENABLE ROW LEVEL SECURITY;
ALTER TABLE wearers ENABLE ROW LEVEL SECURITY;
ALTER TABLE garments ENABLE ROW LEVEL SECURITY;
ALTER TABLE try_ons ENABLE ROW LEVEL SECURITY;
ALTER TABLE readings ENABLE ROW LEVEL SECURITY;
ALTER TABLE photos ENABLE ROW LEVEL SECURITY;

CREATE POLICY own ON accounts USING (id = vemble_account());
-- Whoever signs in is not known yet: the one row with that address can be read, to compare the password.
CREATE POLICY signing_in ON accounts FOR SELECT
    USING (email = NULLIF(current_setting('vemble.signing_in', true), ''));
-- The example and the household belong to whoever asks.
CREATE POLICY open_to_all ON accounts FOR SELECT USING (is_example OR is_household);
CREATE POLICY own ON wearers USING (account_id = vemble_account());
CREATE POLICY own ON garments USING (account_id = vemble_account());
CREATE POLICY own ON try_ons USING (account_id = vemble_account());
CREATE POLICY own ON readings USING (account_id = vemble_account());
CREATE POLICY own ON photos USING (account_id = vemble_account());
