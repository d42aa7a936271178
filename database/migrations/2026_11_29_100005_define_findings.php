<?php

declare(strict_types=1);

use Database\Schema\Concept;

/** Findings enter by way of tables of a run, one partition for each tally, and are never overwritten. */
return new class () extends Concept {
    protected function definitions(): array
    {
        return [
            <<<'SQL'
            CREATE TABLE patterns (
                tally_id bigint NOT NULL REFERENCES tallies,
                number integer NOT NULL,
                pair_position integer NOT NULL,
                pair_id text NOT NULL,
                source_column text NOT NULL,
                target_column text NOT NULL,
                class text NOT NULL,
                cause text NOT NULL,
                facts json NOT NULL,
                cells bigint NOT NULL,
                examples json NOT NULL,
                PRIMARY KEY (tally_id, number)
            )
            SQL,
            // A row that did not agree, with the whole record of both sides; a changed row holds no finding itself, its cells do.
            <<<'SQL'
            CREATE TABLE row_findings (
                tally_id bigint NOT NULL,
                sequence bigint NOT NULL,
                class text NOT NULL,
                class_ordinal bigint NOT NULL,
                side text,
                key text,
                identity bytea NOT NULL,
                source_rows integer NOT NULL,
                target_rows integer NOT NULL,
                source_line bigint,
                target_line bigint,
                source_cells json,
                target_cells json,
                refusal text,
                differing_cells integer NOT NULL,
                source_part integer,
                target_part integer,
                reason text,
                reason_facts json,
                kept_line bigint,
                kept_part integer,
                is_bridged boolean NOT NULL DEFAULT false,
                ordinal integer,
                refusal_facts json,
                refused_text text
            ) PARTITION BY LIST (tally_id)
            SQL,
            'CREATE INDEX row_findings_key ON row_findings ("left"(key, 100) text_pattern_ops)',
            'CREATE INDEX row_findings_class ON row_findings (tally_id, class, class_ordinal)',
            'CREATE UNIQUE INDEX row_findings_order ON row_findings (tally_id, sequence)',
            <<<'SQL'
            CREATE TABLE cell_findings (
                tally_id bigint NOT NULL,
                sequence bigint NOT NULL,
                row_sequence bigint NOT NULL,
                pattern_number integer NOT NULL,
                pattern_ordinal bigint NOT NULL,
                pair_position integer NOT NULL,
                class text NOT NULL,
                cause text NOT NULL,
                source_value text NOT NULL,
                target_value text NOT NULL,
                identity bytea NOT NULL
            ) PARTITION BY LIST (tally_id)
            SQL,
            'CREATE INDEX cell_findings_pattern ON cell_findings (tally_id, pattern_number, pattern_ordinal)',
            'CREATE INDEX cell_findings_row ON cell_findings (tally_id, row_sequence)',
            'CREATE UNIQUE INDEX cell_findings_order ON cell_findings (tally_id, sequence)',
            // In which rows the findings of each group stand, a hundred thousand rows at a time: the two numbers of two bytes have the
            // lower
            // byte first.
            <<<'SQL'
            CREATE TABLE group_places (
                tally_id bigint NOT NULL REFERENCES tallies,
                part integer NOT NULL,
                "group" text NOT NULL,
                findings bytea NOT NULL,
                rows bytea NOT NULL,
                PRIMARY KEY (tally_id, part, "group")
            )
            SQL,
        ];
    }

    protected function rights(): array
    {
        return [
            'patterns' => 'SELECT, INSERT',
            'row_findings' => 'SELECT',
            'cell_findings' => 'SELECT',
            'group_places' => 'SELECT, INSERT',
        ];
    }

    protected function functions(): array
    {
        return [
            // One cell of a key that is held as a record of CSV (RFC 4180), counted from 1. What a body in quotes names is looked for when
            // it is called, and not found while a backup is restored: indexes use it. So the body is no text.
            'quoted_key_cell(text, integer)' => <<<'SQL'
            CREATE FUNCTION quoted_key_cell(key text, place integer) RETURNS text
                LANGUAGE sql IMMUTABLE STRICT PARALLEL SAFE
                RETURN (
                    SELECT CASE WHEN cell[1] LIKE '"%' THEN replace(substr(cell[1], 2, length(cell[1]) - 2), '""', '"') ELSE cell[1] END
                    FROM regexp_matches(key, '(?:^|,)("(?:[^"]|"")*"|[^,"]*)', 'g') WITH ORDINALITY AS cells (cell, nth) WHERE nth = place
                )
            SQL,
            // Not strict, and nothing but an expression: else it would be called for each row.
            'key_cell(text, integer)' => <<<'SQL'
            CREATE FUNCTION key_cell(key text, place integer) RETURNS text
                LANGUAGE sql IMMUTABLE PARALLEL SAFE
                RETURN CASE WHEN strpos(key, '"') = 0 THEN split_part(key, ',', place) ELSE quoted_key_cell(key, place) END
            SQL,
            // A line of an index holds 2,704 bytes.
            'held_by_key_index(regclass)' => <<<'SQL'
            CREATE FUNCTION held_by_key_index(findings regclass) RETURNS text
                LANGUAGE plpgsql STABLE
                AS $$ DECLARE longest int; BEGIN
                EXECUTE format('SELECT max(octet_length(key)) FROM %s', findings) INTO longest;
                RETURN CASE WHEN longest > 2000 THEN '' ELSE ' INCLUDE (key, tally_id)' END;
            END $$
            SQL,
            // A run loads its findings into tables of its own that no screen sees; one short transaction attaches them to the tally. Only
            // the
            // owner of a table can attach it, so the serving role does it through these functions and can do no more.
            'open_findings(bigint)' => <<<'SQL'
            CREATE FUNCTION open_findings(tally bigint) RETURNS void
                LANGUAGE plpgsql SECURITY DEFINER
                SET search_path = public, pg_temp
                AS $$ BEGIN
                IF EXISTS (SELECT 1 FROM tallies WHERE id = tally) THEN RAISE EXCEPTION 'tally % is entered', tally; END IF;
                EXECUTE format('CREATE TABLE row_findings_%s (LIKE row_findings INCLUDING DEFAULTS INCLUDING CONSTRAINTS,
                    CHECK (tally_id = %s))', tally, tally);
                EXECUTE format('CREATE TABLE cell_findings_%s (LIKE cell_findings INCLUDING DEFAULTS INCLUDING CONSTRAINTS,
                    CHECK (tally_id = %s))', tally, tally);
                EXECUTE format('GRANT SELECT, INSERT ON row_findings_%s, cell_findings_%s TO tally_app', tally, tally);
            END $$
            SQL,
            'index_findings(bigint, integer)' => <<<'SQL'
            CREATE FUNCTION index_findings(tally bigint, key_columns integer) RETURNS void
                LANGUAGE plpgsql SECURITY DEFINER
                SET search_path = public, pg_temp
                AS $$ DECLARE held text; BEGIN
                IF EXISTS (SELECT 1 FROM tallies WHERE id = tally) THEN RAISE EXCEPTION 'tally % is entered', tally; END IF;
                EXECUTE format('CREATE UNIQUE INDEX ON row_findings_%s (tally_id, sequence)', tally);
                EXECUTE format('CREATE INDEX ON row_findings_%s (tally_id, class, class_ordinal)', tally);
                EXECUTE format('CREATE INDEX ON row_findings_%s ("left"(key, 100) text_pattern_ops)', tally);
                held := held_by_key_index(format('row_findings_%s', tally)::regclass);
                FOR place IN 1..key_columns LOOP
                    EXECUTE format('CREATE INDEX ON row_findings_%s ("left"(key_cell(key, %s), 100), sequence)%s', tally, place, held);
                END LOOP;
                EXECUTE format('CREATE UNIQUE INDEX ON cell_findings_%s (tally_id, sequence)', tally);
                EXECUTE format('CREATE INDEX ON cell_findings_%s (tally_id, pattern_number, pattern_ordinal)', tally);
                EXECUTE format('CREATE INDEX ON cell_findings_%s (tally_id, row_sequence)', tally);
                -- Not before: it writes to the catalogue without a lock on the table, and an automatic vacuum that has
                -- one would wait for it, and we for the vacuum.
                EXECUTE format('REVOKE INSERT ON row_findings_%s, cell_findings_%s FROM tally_app', tally, tally);
                EXECUTE format('ANALYZE row_findings_%s', tally);
                EXECUTE format('ANALYZE cell_findings_%s', tally);
            END $$
            SQL,
            'attach_findings(bigint)' => <<<'SQL'
            CREATE FUNCTION attach_findings(tally bigint) RETURNS void
                LANGUAGE plpgsql SECURITY DEFINER
                SET search_path = public, pg_temp
                AS $$ BEGIN
                IF EXISTS (SELECT 1 FROM tallies WHERE id = tally) THEN RAISE EXCEPTION 'tally % is entered', tally; END IF;
                EXECUTE format('ALTER TABLE row_findings ATTACH PARTITION row_findings_%s FOR VALUES IN (%s)', tally, tally);
                EXECUTE format('ALTER TABLE cell_findings ATTACH PARTITION cell_findings_%s FOR VALUES IN (%s)', tally, tally);
            END $$
            SQL,
            'drop_findings(bigint)' => <<<'SQL'
            CREATE FUNCTION drop_findings(tally bigint) RETURNS void
                LANGUAGE plpgsql SECURITY DEFINER
                SET search_path = public, pg_temp
                AS $$ BEGIN
                IF EXISTS (SELECT 1 FROM tallies WHERE id = tally) THEN RAISE EXCEPTION 'tally % is entered', tally; END IF;
                EXECUTE format('DROP TABLE IF EXISTS row_findings_%s, cell_findings_%s', tally, tally);
            END $$
            SQL,
        ];
    }
};
