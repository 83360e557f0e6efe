-- Only what is still in the first format can go back: later ones would not be read.
DO $$
BEGIN
    IF EXISTS (SELECT FROM garment_states WHERE format > 1) OR EXISTS (SELECT FROM try_ons WHERE format > 1) THEN
        RAISE EXCEPTION 'there are states or try-ons of a later format';
    END IF;
END
$$;
DROP TABLE record_entries;
ALTER TABLE readings RENAME COLUMN change TO alteration;
ALTER TABLE try_ons DROP COLUMN state_id, DROP COLUMN format;
ALTER TABLE wearers DROP COLUMN format;
ALTER TABLE garments ADD COLUMN facts jsonb;
UPDATE garments SET facts = garment_states.facts FROM garment_states
    WHERE garment_states.account_id = garments.account_id AND garment_states.garment_id = garments.id
        AND garment_states.position = 0;
ALTER TABLE garments ALTER COLUMN facts SET NOT NULL;
DROP TABLE garment_states;
