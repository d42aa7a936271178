<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/**
 * A cell of a key is taken out by an expression that the planner writes into the query, a tenth of the time of a call; and the index of a part of
 * the key holds the key itself, so that its rows are found without reading them, unless keys are so long that they fit no index.
 */
return new class () extends Migration {
    public function up(): void
    {
        foreach ($this->statements() as $statement) {
            DB::statement($statement);
        }
    }

    /** @return list<string> */
    private function statements(): array
    {
        return [
            <<<'SQL'
            CREATE FUNCTION quoted_key_cell(key text, place int) RETURNS text LANGUAGE sql IMMUTABLE STRICT PARALLEL SAFE AS $$
                SELECT CASE WHEN cell[1] LIKE '"%' THEN replace(substr(cell[1], 2, length(cell[1]) - 2), '""', '"') ELSE cell[1] END
                FROM regexp_matches(key, '(?:^|,)("(?:[^"]|"")*"|[^,"]*)', 'g') WITH ORDINALITY AS cells (cell, nth) WHERE nth = place
            $$
            SQL,
            // Not strict, and nothing but an expression: else it would be called for each row.
            <<<'SQL'
            CREATE OR REPLACE FUNCTION key_cell(key text, place int) RETURNS text LANGUAGE sql IMMUTABLE PARALLEL SAFE AS $$
                SELECT CASE WHEN strpos(key, '"') = 0 THEN split_part(key, ',', place) ELSE quoted_key_cell(key, place) END
            $$
            SQL,
            // A line of an index holds 2,704 bytes.
            <<<'SQL'
            CREATE FUNCTION held_by_key_index(findings regclass) RETURNS text LANGUAGE plpgsql STABLE AS $$ DECLARE longest int; BEGIN
                EXECUTE format('SELECT max(octet_length(key)) FROM %s', findings) INTO longest;
                RETURN CASE WHEN longest > 2000 THEN '' ELSE ' INCLUDE (key, tally_id)' END;
            END $$
            SQL,
            <<<'SQL'
            CREATE OR REPLACE FUNCTION index_findings(tally bigint, key_columns int) RETURNS void LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS $$ DECLARE held text; BEGIN
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
                -- Not before: it writes to the catalogue without a lock on the table, and an automatic vacuum that has one would wait for it, and we for the vacuum.
                EXECUTE format('REVOKE INSERT ON row_findings_%s, cell_findings_%s FROM tally_app', tally, tally);
                EXECUTE format('ANALYZE row_findings_%s', tally);
                EXECUTE format('ANALYZE cell_findings_%s', tally);
            END $$
            SQL,
            'REVOKE ALL ON FUNCTION held_by_key_index(regclass) FROM PUBLIC',
            // Of tallies that were entered before.
            <<<'SQL'
            DO $$ DECLARE made record; BEGIN
                FOR made IN SELECT indexname, indexdef, tablename FROM pg_indexes WHERE schemaname = 'public' AND tablename LIKE 'row\_findings\_%' AND indexdef LIKE '%key\_cell(key, %' LOOP
                    EXECUTE format('DROP INDEX %I', made.indexname);
                    EXECUTE made.indexdef || held_by_key_index(made.tablename::regclass);
                END LOOP;
            END $$
            SQL,
        ];
    }
};
