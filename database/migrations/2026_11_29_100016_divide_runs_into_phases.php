<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/**
 * A run is done in phases of short tasks, and what of it is done stands in one table: no worker holds a run any more. One that goes on
 * while this is applied begins again.
 */
return new class () extends Migration {
    public function up(): void
    {
        DB::statement('DROP TABLE run_tasks');
        DB::statement('ALTER TABLE runs DROP COLUMN lease, DROP COLUMN lease_expires_at');
        DB::statement('ALTER TABLE runs ADD COLUMN phase text, ADD COLUMN entering_tally_id bigint');
        DB::statement(<<<'SQL'
            CREATE TABLE run_tasks (
                run_id bigint NOT NULL REFERENCES runs,
                name text NOT NULL,
                phase text NOT NULL,
                place integer NOT NULL,
                attempts integer NOT NULL DEFAULT 0,
                queued_at timestamptz,
                worker text,
                seen_at timestamptz,
                share real NOT NULL DEFAULT 0,
                records bigint NOT NULL DEFAULT 0,
                done_at timestamptz,
                digest text,
                PRIMARY KEY (run_id, name)
            )
            SQL);
        DB::statement('GRANT SELECT, INSERT, DELETE, UPDATE ON run_tasks TO tally_app');
        DB::statement('DROP FUNCTION index_findings(bigint, integer)');
        // One at a time, so that several workers build them.
        $this->define('index_findings(bigint, integer, integer)', <<<'SQL'
            CREATE FUNCTION index_findings(tally bigint, key_columns integer, place integer) RETURNS void
                LANGUAGE plpgsql SECURITY DEFINER
                SET search_path = {schema}, pg_temp
                AS $$ DECLARE findings text; entries text; BEGIN
                IF EXISTS (SELECT 1 FROM tallies WHERE id = tally) THEN RAISE EXCEPTION 'tally % is entered', tally; END IF;
                findings := format(CASE WHEN place <= 3 + key_columns THEN 'row_findings_%s' ELSE 'cell_findings_%s' END, tally);
                entries := CASE
                    WHEN place = 1 OR place = 4 + key_columns THEN '(tally_id, sequence)'
                    WHEN place = 2 THEN '(tally_id, class, class_ordinal)'
                    WHEN place = 3 THEN '("left"(key, 100) text_pattern_ops)'
                    WHEN place <= 3 + key_columns THEN format('("left"(key_cell(key, %s), 100), sequence)%s', place - 3,
                        held_by_key_index(findings::regclass))
                    WHEN place = 5 + key_columns THEN '(tally_id, pattern_number, pattern_ordinal)'
                    WHEN place = 6 + key_columns THEN '(tally_id, row_sequence)'
                END;
                EXECUTE format('CREATE %s INDEX IF NOT EXISTS %s_index_%s ON %s %s',
                    CASE WHEN place IN (1, 4 + key_columns) THEN 'UNIQUE' ELSE '' END, findings, place, findings, entries);
            END $$
            SQL);
        $this->define('seal_findings(bigint)', <<<'SQL'
            CREATE FUNCTION seal_findings(tally bigint) RETURNS void
                LANGUAGE plpgsql SECURITY DEFINER
                SET search_path = {schema}, pg_temp
                AS $$ BEGIN
                IF EXISTS (SELECT 1 FROM tallies WHERE id = tally) THEN RAISE EXCEPTION 'tally % is entered', tally; END IF;
                -- Not before: it writes to the catalogue without a lock on the table, and an automatic vacuum that has
                -- one would wait for it, and we for the vacuum.
                EXECUTE format('REVOKE INSERT ON row_findings_%s, cell_findings_%s FROM tally_app', tally, tally);
                EXECUTE format('ANALYZE row_findings_%s', tally);
                EXECUTE format('ANALYZE cell_findings_%s', tally);
            END $$
            SQL);
    }

    /** Those who serve may call it, and nobody else. */
    private function define(string $signature, string $definition): void
    {
        $schema = DB::scalar('SELECT current_schema()');
        DB::statement(str_replace('{schema}', is_string($schema) ? $schema : 'public', $definition));
        DB::statement("REVOKE ALL ON FUNCTION {$signature} FROM PUBLIC");
        DB::statement("GRANT EXECUTE ON FUNCTION {$signature} TO tally_app");
    }
};
