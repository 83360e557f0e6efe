DROP TABLE tapes;
DROP TABLE invitations;
ALTER TABLE photos DROP COLUMN try_on_id;
