-- The old system of Wherrymoor Navigation as a small database of its own, for deliveries that are asked of a database. All of it is made up.
CREATE TABLE inspections (
    index_no text NOT NULL,
    inspected_on date NOT NULL,
    inspector text,
    hull_sound boolean,
    length_m numeric(6, 2),
    fee numeric(8, 2) NOT NULL,
    remarks text,
    PRIMARY KEY (index_no, inspected_on)
);
INSERT INTO inspections
SELECT
    'W' || lpad((40000 + nth % 300 * 3)::text, 5, '0'),
    date '2021-03-01' + (nth / 300) * 365 + nth % 28,
    (ARRAY['Maëlle Zabłocki', 'Ilse Ashcombe-Lane', 'Tobias Fenwright', NULL])[nth % 4 + 1],
    CASE nth % 11 WHEN 0 THEN NULL WHEN 1 THEN false ELSE true END,
    6 + nth % 12 + (25 + nth % 60) / 100.0,
    45 + (nth % 7) * 2.5,
    CASE nth % 9 WHEN 0 THEN 'Anodes worn; look again in spring' WHEN 1 THEN '' ELSE NULL END
FROM generate_series(0, 1199) AS nth;
CREATE TABLE holders (holder_no integer PRIMARY KEY, name text NOT NULL, since date);
INSERT INTO holders
SELECT nth, (ARRAY['Ezekiel', 'Bríd', 'Jörg', 'Wanda', 'Søren'])[nth % 5 + 1] || ' ' || (ARRAY['Thornøy', 'Quillfeather', 'Saltmarsh', 'Underbridge'])[nth % 4 + 1], date '1998-01-01' + nth * 17
FROM generate_series(1, 420) AS nth;

-- Who may only read writes no large objects either: before PostgreSQL 16 a read-only transaction does not keep them from it.
DO $$ DECLARE writes regprocedure; BEGIN
    FOR writes IN SELECT oid FROM pg_proc WHERE pronamespace = 'pg_catalog'::regnamespace AND proname ~ '^(lo_|lowrite|loread)' LOOP
        EXECUTE format('REVOKE EXECUTE ON FUNCTION %s FROM PUBLIC', writes);
    END LOOP;
END $$;
