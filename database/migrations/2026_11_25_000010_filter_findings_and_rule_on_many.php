<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/**
 * Findings are filtered by parts of their key and by their ruling; acts of ruling cover a selection, a filter as it stood, or a pattern in
 * tallies to come; and both are commented on. New tables, nullable columns and columns with a constant default: no table is rewritten. The index of the standings
 * is made while nobody can rule.
 */
return new class () extends Migration {
    public function up(): void
    {
        foreach ($this->definitions() as $definition) {
            DB::statement($definition);
        }
        DB::statement('GRANT SELECT, INSERT ON ruling_members, comments, comment_mentions TO tally_app');
        DB::statement('GRANT SELECT, INSERT, UPDATE, DELETE ON counted_filters, kept_filters TO tally_app');
        DB::statement('GRANT USAGE ON ALL SEQUENCES IN SCHEMA public TO tally_app');
        DB::statement('REVOKE ALL ON FUNCTION index_findings(bigint, int) FROM PUBLIC');
        DB::statement('GRANT EXECUTE ON FUNCTION index_findings(bigint, int) TO tally_app');
    }

    /** @return list<string> */
    private function definitions(): array
    {
        return [
            'ALTER TABLE rulings ADD COLUMN ticket text, ADD COLUMN asked_id bigint REFERENCES users, ADD COLUMN filter json, ADD COLUMN holds_up_to bigint, ADD COLUMN holds_for json',
            'ALTER TABLE rulings DROP CONSTRAINT rulings_scope_check',
            "ALTER TABLE rulings ADD CONSTRAINT rulings_scope_check CHECK (scope IN ('row', 'cell', 'pattern', 'class', 'selection', 'filter', 'undo'))",
            "ALTER TABLE rulings ADD CHECK ((scope IN ('selection', 'filter')) = (filter IS NOT NULL))",
            "ALTER TABLE rulings ADD CHECK (scope = 'pattern' OR holds_up_to IS NULL AND holds_for IS NULL)",
            // What an act on a selection or a filter covered, as it stood then. Entered before the act in one transaction, for the act says how many they are: so there is no reference.
            <<<'SQL'
            CREATE TABLE ruling_members (
                ruling_id bigint NOT NULL,
                "group" text NOT NULL,
                sequence bigint NOT NULL,
                PRIMARY KEY (ruling_id, "group", sequence)
            )
            SQL,
            'ALTER TABLE carried_rulings ADD COLUMN is_beyond boolean NOT NULL DEFAULT false',
            // Standings are made from the acts and can be made again: looking up the act and the tally of each of half a million took half of the time.
            'ALTER TABLE standings DROP CONSTRAINT standings_tally_id_fkey, DROP CONSTRAINT standings_ruling_id_fkey',
            'CREATE INDEX standings_decision ON standings (tally_id, decision, "group", sequence)',
            'CREATE INDEX standings_ruling ON standings (ruling_id)',
            // How long a filtered list is, and where every so many findings of it stand: counted once for each state of the rulings.
            <<<'SQL'
            CREATE TABLE counted_filters (
                tally_id bigint NOT NULL REFERENCES tallies,
                digest char(64) NOT NULL,
                latest_act bigint NOT NULL,
                findings bigint NOT NULL,
                places json NOT NULL,
                counted_at timestamptz NOT NULL,
                PRIMARY KEY (tally_id, digest, latest_act)
            )
            SQL,
            <<<'SQL'
            CREATE TABLE kept_filters (
                id bigserial PRIMARY KEY,
                dataset_id bigint NOT NULL REFERENCES datasets,
                name text NOT NULL,
                filter json NOT NULL,
                user_id bigint NOT NULL REFERENCES users,
                created_at timestamptz NOT NULL,
                UNIQUE (dataset_id, name)
            )
            SQL,
            // A finding is known by its identity, a pattern by what makes it one, so that a comment is found again in tallies to come.
            <<<'SQL'
            CREATE TABLE comments (
                id bigserial PRIMARY KEY,
                dataset_id bigint NOT NULL REFERENCES datasets,
                tally_id bigint NOT NULL REFERENCES tallies,
                subject text NOT NULL,
                place json NOT NULL,
                text text NOT NULL,
                user_id bigint NOT NULL REFERENCES users,
                created_at timestamptz NOT NULL
            )
            SQL,
            'CREATE INDEX comments_subject ON comments (dataset_id, subject, id)',
            <<<'SQL'
            CREATE TABLE comment_mentions (
                comment_id bigint NOT NULL REFERENCES comments,
                user_id bigint NOT NULL REFERENCES users,
                PRIMARY KEY (user_id, comment_id)
            )
            SQL,
            // One cell of a key that is held as a record of CSV (RFC 4180), counted from 1.
            <<<'SQL'
            CREATE FUNCTION key_cell(key text, place int) RETURNS text LANGUAGE sql IMMUTABLE STRICT PARALLEL SAFE AS $$
                SELECT CASE WHEN position('"' IN key) = 0 THEN split_part(key, ',', place) ELSE (
                    SELECT CASE WHEN cell[1] LIKE '"%' THEN replace(substr(cell[1], 2, length(cell[1]) - 2), '""', '"') ELSE cell[1] END
                    FROM regexp_matches(key, '(?:^|,)("(?:[^"]|"")*"|[^,"]*)', 'g') WITH ORDINALITY AS cells (cell, nth) WHERE nth = place
                ) END
            $$
            SQL,
            'DROP FUNCTION index_findings(bigint)',
            <<<'SQL'
            CREATE FUNCTION index_findings(tally bigint, key_columns int) RETURNS void LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS $$ BEGIN
                IF EXISTS (SELECT 1 FROM tallies WHERE id = tally) THEN RAISE EXCEPTION 'tally % is entered', tally; END IF;
                EXECUTE format('CREATE UNIQUE INDEX ON row_findings_%s (tally_id, sequence)', tally);
                EXECUTE format('CREATE INDEX ON row_findings_%s (tally_id, class, class_ordinal)', tally);
                EXECUTE format('CREATE INDEX ON row_findings_%s ("left"(key, 100) text_pattern_ops)', tally);
                FOR place IN 1..key_columns LOOP
                    EXECUTE format('CREATE INDEX ON row_findings_%s ("left"(key_cell(key, %s), 100), sequence)', tally, place);
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
        ];
    }
};
