-- What whoever asks has shown, as `kind:value`: the address they sign in with, the hash of a code or of a session's token. Set anew, like
-- the account, every time a connection is taken.
CREATE FUNCTION vemble_shown(kind text) RETURNS text LANGUAGE sql STABLE AS $$
    SELECT CASE WHEN starts_with(current_setting('vemble.shown', true), kind || ':')
        THEN substr(current_setting('vemble.shown', true), length(kind) + 2) END
$$;

-- Somebody who is signed in, or a guest of one try-on. The token is in their cookie; only its hash is kept.
CREATE TABLE sessions (
    account_id uuid NOT NULL REFERENCES accounts ON DELETE CASCADE,
    id uuid NOT NULL,
    token_hash bytea NOT NULL UNIQUE,
    -- The browser and the system, as it named itself.
    device text NOT NULL,
    created_at timestamptz NOT NULL DEFAULT now(),
    seen_at timestamptz NOT NULL DEFAULT now(),
    -- Of a guest: what they were invited to.
    invitation_id uuid,
    PRIMARY KEY (account_id, id),
    FOREIGN KEY (account_id, invitation_id) REFERENCES invitations (account_id, id) ON DELETE CASCADE
);

-- Codes that somebody may sign up with, hashed.
CREATE TABLE sign_up_codes (
    code_hash bytea PRIMARY KEY,
    ends_at timestamptz NOT NULL
);

GRANT SELECT, INSERT, UPDATE, DELETE ON sessions TO vemble_app;
GRANT SELECT, INSERT, DELETE ON sign_up_codes TO vemble_app;
ALTER TABLE sessions ENABLE ROW LEVEL SECURITY;
ALTER TABLE sign_up_codes ENABLE ROW LEVEL SECURITY;

-- Every visitor gets an example of their own, which ends after a day. Sessions say by themselves when they end.
DROP INDEX one_example_account;
ALTER TABLE accounts DROP COLUMN session_epoch, ADD COLUMN ends_at timestamptz;
UPDATE accounts SET ends_at = now() + interval '1 day' WHERE is_example;
ALTER TABLE accounts ADD CHECK (is_example = (ends_at IS NOT NULL));
CREATE INDEX accounts_that_end ON accounts (ends_at) WHERE ends_at IS NOT NULL;

DROP POLICY signing_in ON accounts;
DROP POLICY open_to_all ON accounts;
DROP POLICY joining ON invitations;
DROP POLICY speaking ON tapes;
DROP POLICY taking_over ON tapes;
DROP POLICY reading_calendar ON workrooms;
-- Whoever signs in is not known yet: the one row with that address can be read, to compare the password.
CREATE POLICY signing_in ON accounts FOR SELECT USING (email = vemble_shown('email'));
-- The household belongs to whoever asks.
CREATE POLICY open_to_all ON accounts FOR SELECT USING (is_household);
CREATE POLICY own ON sessions USING (account_id = vemble_account());
-- Whoever has the token is in: the one session can be read, and its account.
CREATE POLICY in_session ON sessions FOR SELECT USING (token_hash = decode(vemble_shown('session'), 'hex'));
CREATE POLICY in_session ON accounts FOR SELECT USING (id = (
    SELECT account_id FROM sessions WHERE token_hash = decode(vemble_shown('session'), 'hex')
));
-- Examples can be counted, and those that have ended found, to be forgotten.
CREATE POLICY examples ON accounts FOR SELECT USING (ends_at IS NOT NULL AND vemble_shown('examples') IS NOT NULL);
-- Whoever joins is nobody yet: the one row with that code can be read.
CREATE POLICY joining ON invitations FOR SELECT USING (code_hash = decode(vemble_shown('joining'), 'hex'));
-- Whoever signs up by a code uses it up; whoever invites makes one.
CREATE POLICY shown ON sign_up_codes USING (code_hash = decode(vemble_shown('sign-up'), 'hex'));
-- A tape that speaks names itself: its one row can be read, and taken over by whoever pairs it next.
CREATE POLICY speaking ON tapes FOR SELECT USING (serial = vemble_shown('tape'));
CREATE POLICY taking_over ON tapes FOR DELETE USING (serial = vemble_shown('tape'));
-- Whoever reads a calendar is nobody: the one row with that code can be read.
CREATE POLICY reading_calendar ON workrooms FOR SELECT
    USING (calendar_hash = decode(vemble_shown('calendar'), 'hex'));
