DROP TABLE photos;
DROP POLICY own ON accounts;
DROP POLICY signing_in ON accounts;
DROP POLICY open_to_all ON accounts;
DROP POLICY own ON wearers;
DROP POLICY own ON garments;
DROP POLICY own ON try_ons;
DROP POLICY own ON readings;
ALTER TABLE accounts DISABLE ROW LEVEL SECURITY;
ALTER TABLE wearers DISABLE ROW LEVEL SECURITY;
ALTER TABLE garments DISABLE ROW LEVEL SECURITY;
ALTER TABLE try_ons DISABLE ROW LEVEL SECURITY;
ALTER TABLE readings DISABLE ROW LEVEL SECURITY;
REVOKE ALL ON accounts, wearers, garments, try_ons, readings FROM vemble_app;
DROP FUNCTION vemble_account();
DROP INDEX garments_of_wearer;
DROP INDEX try_ons_of_garment;
ALTER TABLE garments DROP COLUMN archived;
ALTER TABLE accounts
    DROP COLUMN email CASCADE,
    DROP COLUMN password_hash CASCADE,
    DROP COLUMN is_household CASCADE,
    DROP COLUMN session_epoch;
