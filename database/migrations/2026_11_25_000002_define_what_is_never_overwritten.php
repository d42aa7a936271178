<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/**
 * Deliveries, plan versions, tallies, findings, acts of ruling and reports: entered once, complete. The role that serves may
 * select and insert, and nothing else. On a new database; locks nothing.
 */
return new class () extends Migration {
    private const NEVER_OVERWRITTEN = ['deliveries', 'refused_records', 'plan_versions', 'tallies', 'patterns', 'row_findings', 'cell_findings', 'rulings', 'reports'];

    public function up(): void
    {
        foreach ($this->tables() as $definition) {
            DB::statement($definition);
        }
        foreach (self::NEVER_OVERWRITTEN as $table) {
            DB::statement("GRANT SELECT, INSERT ON {$table} TO tally_app");
        }
        // Findings enter by way of a run's own tables only.
        DB::statement('REVOKE INSERT ON row_findings, cell_findings FROM tally_app');
        foreach (['runs', 'report_orders', 'standings', 'standing_counts'] as $table) {
            DB::statement("GRANT SELECT, INSERT, UPDATE, DELETE ON {$table} TO tally_app");
        }
        DB::statement('GRANT USAGE ON ALL SEQUENCES IN SCHEMA public TO tally_app');
        foreach ($this->functions() as $name => $definition) {
            DB::statement($definition);
            DB::statement("REVOKE ALL ON FUNCTION {$name} FROM PUBLIC");
            DB::statement("GRANT EXECUTE ON FUNCTION {$name} TO tally_app");
        }
    }

    /** @return list<string> */
    private function tables(): array
    {
        return [
            <<<'SQL'
            CREATE TABLE deliveries (
                id bigserial PRIMARY KEY,
                dataset_id bigint NOT NULL REFERENCES datasets,
                side text NOT NULL CHECK (side IN ('source', 'target')),
                number int NOT NULL,
                file_name text NOT NULL,
                digest char(64) NOT NULL,
                bytes bigint NOT NULL,
                format json NOT NULL,
                columns json NOT NULL,
                read_count bigint NOT NULL,
                refused_count bigint NOT NULL,
                delivered_count bigint NOT NULL,
                user_id bigint NOT NULL REFERENCES users,
                delivered_at timestamptz NOT NULL,
                UNIQUE (dataset_id, side, number),
                CHECK (read_count = refused_count + delivered_count)
            )
            SQL,
            <<<'SQL'
            CREATE TABLE refused_records (
                delivery_id bigint NOT NULL REFERENCES deliveries,
                number bigint NOT NULL,
                line bigint NOT NULL,
                reason text NOT NULL,
                sentence text NOT NULL,
                raw text NOT NULL,
                PRIMARY KEY (delivery_id, number)
            )
            SQL,
            <<<'SQL'
            CREATE TABLE plan_versions (
                id bigserial PRIMARY KEY,
                dataset_id bigint NOT NULL REFERENCES datasets,
                number int NOT NULL,
                document text NOT NULL,
                digest char(64) NOT NULL,
                user_id bigint NOT NULL REFERENCES users,
                created_at timestamptz NOT NULL,
                UNIQUE (dataset_id, number)
            )
            SQL,
            <<<'SQL'
            CREATE TABLE runs (
                id bigserial PRIMARY KEY,
                dataset_id bigint NOT NULL REFERENCES datasets,
                plan_version_id bigint NOT NULL REFERENCES plan_versions,
                source_delivery_id bigint NOT NULL REFERENCES deliveries,
                target_delivery_id bigint NOT NULL REFERENCES deliveries,
                state text NOT NULL CHECK (state IN ('queued', 'reading', 'matching', 'merging', 'loading', 'done', 'failed', 'cancelled')),
                done real NOT NULL DEFAULT 0,
                figures json NOT NULL DEFAULT '{}',
                problem text,
                attempts int NOT NULL DEFAULT 0,
                lease uuid,
                lease_expires_at timestamptz,
                cancel_requested_at timestamptz,
                tally_id bigint,
                user_id bigint NOT NULL REFERENCES users,
                created_at timestamptz NOT NULL,
                started_at timestamptz,
                finished_at timestamptz
            )
            SQL,
            'CREATE INDEX runs_dataset ON runs (dataset_id, id DESC)',
            // One run at a time for a dataset: a second click finds the first.
            "CREATE UNIQUE INDEX runs_one_going_on ON runs (dataset_id) WHERE state NOT IN ('done', 'failed', 'cancelled')",
            <<<'SQL'
            CREATE TABLE tallies (
                id bigserial PRIMARY KEY,
                dataset_id bigint NOT NULL REFERENCES datasets,
                number int NOT NULL,
                run_id bigint NOT NULL UNIQUE REFERENCES runs,
                plan_version_id bigint NOT NULL REFERENCES plan_versions,
                source_delivery_id bigint NOT NULL REFERENCES deliveries,
                target_delivery_id bigint NOT NULL REFERENCES deliveries,
                summary json NOT NULL,
                user_id bigint NOT NULL REFERENCES users,
                started_at timestamptz NOT NULL,
                finished_at timestamptz NOT NULL,
                UNIQUE (dataset_id, number)
            )
            SQL,
            <<<'SQL'
            CREATE TABLE patterns (
                tally_id bigint NOT NULL REFERENCES tallies,
                number int NOT NULL,
                pair_position int NOT NULL,
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
                source_rows int NOT NULL,
                target_rows int NOT NULL,
                source_line bigint,
                target_line bigint,
                source_cells json,
                target_cells json,
                refusal text,
                differing_cells int NOT NULL
            ) PARTITION BY LIST (tally_id)
            SQL,
            <<<'SQL'
            CREATE TABLE cell_findings (
                tally_id bigint NOT NULL,
                sequence bigint NOT NULL,
                row_sequence bigint NOT NULL,
                pattern_number int NOT NULL,
                pattern_ordinal bigint NOT NULL,
                pair_position int NOT NULL,
                class text NOT NULL,
                cause text NOT NULL,
                source_value text NOT NULL,
                target_value text NOT NULL,
                identity bytea NOT NULL
            ) PARTITION BY LIST (tally_id)
            SQL,
            'CREATE UNIQUE INDEX row_findings_order ON row_findings (tally_id, sequence)',
            'CREATE INDEX row_findings_class ON row_findings (tally_id, class, class_ordinal)',
            'CREATE INDEX row_findings_key ON row_findings ("left"(key, 100) text_pattern_ops)',
            'CREATE UNIQUE INDEX cell_findings_order ON cell_findings (tally_id, sequence)',
            'CREATE INDEX cell_findings_pattern ON cell_findings (tally_id, pattern_number, pattern_ordinal)',
            'CREATE INDEX cell_findings_row ON cell_findings (tally_id, row_sequence)',
            <<<'SQL'
            CREATE TABLE rulings (
                id bigserial PRIMARY KEY,
                dataset_id bigint NOT NULL REFERENCES datasets,
                tally_id bigint NOT NULL REFERENCES tallies,
                scope text NOT NULL CHECK (scope IN ('row', 'cell', 'pattern', 'class', 'undo')),
                sequence bigint,
                identity bytea,
                pattern_number int,
                row_class text,
                undoes_id bigint UNIQUE REFERENCES rulings,
                decision text CHECK (decision IN ('expected', 'defect', 'ask', 'open')),
                reason text NOT NULL,
                findings bigint NOT NULL,
                user_id bigint NOT NULL REFERENCES users,
                created_at timestamptz NOT NULL,
                CHECK ((scope = 'undo') = (undoes_id IS NOT NULL) AND (scope = 'undo') = (decision IS NULL)),
                CHECK ((scope IN ('row', 'cell')) = (sequence IS NOT NULL AND identity IS NOT NULL)),
                CHECK ((scope = 'pattern') = (pattern_number IS NOT NULL) AND (scope = 'class') = (row_class IS NOT NULL))
            )
            SQL,
            'CREATE INDEX rulings_tally ON rulings (tally_id, id)',
            // A projection of the rulings, which can be made again from them: the act that stands for each finding that has one.
            <<<'SQL'
            CREATE TABLE standings (
                tally_id bigint NOT NULL REFERENCES tallies,
                "group" text NOT NULL,
                sequence bigint NOT NULL,
                ruling_id bigint NOT NULL REFERENCES rulings,
                decision text NOT NULL,
                PRIMARY KEY (tally_id, "group", sequence)
            )
            SQL,
            <<<'SQL'
            CREATE TABLE standing_counts (
                tally_id bigint NOT NULL REFERENCES tallies,
                "group" text NOT NULL,
                findings bigint NOT NULL,
                expected bigint NOT NULL DEFAULT 0,
                defect bigint NOT NULL DEFAULT 0,
                ask bigint NOT NULL DEFAULT 0,
                PRIMARY KEY (tally_id, "group")
            )
            SQL,
            <<<'SQL'
            CREATE TABLE report_orders (
                id bigserial PRIMARY KEY,
                tally_id bigint NOT NULL REFERENCES tallies,
                state text NOT NULL CHECK (state IN ('queued', 'printing', 'done', 'failed')),
                problem text,
                report_id bigint,
                user_id bigint NOT NULL REFERENCES users,
                created_at timestamptz NOT NULL
            )
            SQL,
            <<<'SQL'
            CREATE TABLE reports (
                id bigserial PRIMARY KEY,
                tally_id bigint NOT NULL REFERENCES tallies,
                number int NOT NULL,
                last_ruling_id bigint,
                html_digest char(64) NOT NULL,
                pdf_digest char(64) NOT NULL,
                user_id bigint NOT NULL REFERENCES users,
                created_at timestamptz NOT NULL,
                UNIQUE (tally_id, number)
            )
            SQL,
        ];
    }

    /**
     * A run loads its findings into tables of its own that no screen sees; one short transaction attaches them to the tally.
     * Only the owner of a table can attach it, so the serving role does it through these functions and can do no more.
     *
     * @return array<string, string>
     */
    private function functions(): array
    {
        $begin = 'RETURNS void LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS $$ BEGIN';
        $mustBeNew = "IF EXISTS (SELECT 1 FROM tallies WHERE id = tally) THEN RAISE EXCEPTION 'tally % is entered', tally; END IF;";

        return [
            'open_findings(bigint)' => <<<SQL
                CREATE FUNCTION open_findings(tally bigint) {$begin}
                    {$mustBeNew}
                    EXECUTE format('CREATE TABLE row_findings_%s (LIKE row_findings INCLUDING DEFAULTS INCLUDING CONSTRAINTS, CHECK (tally_id = %s))', tally, tally);
                    EXECUTE format('CREATE TABLE cell_findings_%s (LIKE cell_findings INCLUDING DEFAULTS INCLUDING CONSTRAINTS, CHECK (tally_id = %s))', tally, tally);
                    EXECUTE format('GRANT SELECT, INSERT ON row_findings_%s, cell_findings_%s TO tally_app', tally, tally);
                END $$
                SQL,
            'index_findings(bigint)' => <<<SQL
                CREATE FUNCTION index_findings(tally bigint) {$begin}
                    {$mustBeNew}
                    EXECUTE format('REVOKE INSERT ON row_findings_%s, cell_findings_%s FROM tally_app', tally, tally);
                    EXECUTE format('CREATE UNIQUE INDEX ON row_findings_%s (tally_id, sequence)', tally);
                    EXECUTE format('CREATE INDEX ON row_findings_%s (tally_id, class, class_ordinal)', tally);
                    EXECUTE format('CREATE INDEX ON row_findings_%s ("left"(key, 100) text_pattern_ops)', tally);
                    EXECUTE format('CREATE UNIQUE INDEX ON cell_findings_%s (tally_id, sequence)', tally);
                    EXECUTE format('CREATE INDEX ON cell_findings_%s (tally_id, pattern_number, pattern_ordinal)', tally);
                    EXECUTE format('CREATE INDEX ON cell_findings_%s (tally_id, row_sequence)', tally);
                    EXECUTE format('ANALYZE row_findings_%s', tally);
                    EXECUTE format('ANALYZE cell_findings_%s', tally);
                END $$
                SQL,
            'attach_findings(bigint)' => <<<SQL
                CREATE FUNCTION attach_findings(tally bigint) {$begin}
                    {$mustBeNew}
                    EXECUTE format('ALTER TABLE row_findings ATTACH PARTITION row_findings_%s FOR VALUES IN (%s)', tally, tally);
                    EXECUTE format('ALTER TABLE cell_findings ATTACH PARTITION cell_findings_%s FOR VALUES IN (%s)', tally, tally);
                END $$
                SQL,
            'drop_findings(bigint)' => <<<SQL
                CREATE FUNCTION drop_findings(tally bigint) {$begin}
                    {$mustBeNew}
                    EXECUTE format('DROP TABLE IF EXISTS row_findings_%s, cell_findings_%s', tally, tally);
                END $$
                SQL,
        ];
    }
};
