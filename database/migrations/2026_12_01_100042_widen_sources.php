<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** Files of other machines and buckets, databases of further makes; schedules by arrival, and how far apart both sides may be. */
return new class () extends Migration {
    public function up(): void
    {
        DB::statement('ALTER TABLE connections DROP CONSTRAINT connections_kind_check');
        DB::statement(<<<'SQL'
            ALTER TABLE connections ADD CONSTRAINT connections_kind_check
                CHECK (kind IN ('postgresql', 'mysql', 'sqlite', 'sqlserver', 'odbc', 'feed', 'folder', 'sftp', 's3'))
            SQL);
        DB::statement(<<<'SQL'
            CREATE TABLE feed_page_marks (
                id bigserial PRIMARY KEY,
                connection_id bigint NOT NULL REFERENCES connections ON DELETE CASCADE,
                address text NOT NULL,
                mark text NOT NULL,
                digest text NOT NULL,
                type text NOT NULL,
                link text NOT NULL,
                UNIQUE (connection_id, address)
            )
            SQL);
        DB::statement('GRANT SELECT, INSERT, UPDATE, DELETE ON feed_page_marks TO tally_app');
        DB::statement('GRANT USAGE ON SEQUENCE feed_page_marks_id_seq TO tally_app');
        DB::statement('ALTER TABLE draws DROP CONSTRAINT draws_state_check');
        DB::statement(<<<'SQL'
            ALTER TABLE draws ADD CONSTRAINT draws_state_check
                CHECK (state IN ('asking', 'drawing', 'reading', 'waiting', 'tallying', 'done', 'failed', 'refused'))
            SQL);
        DB::statement('DROP INDEX draws_going');
        DB::statement(
            "CREATE UNIQUE INDEX draws_going ON draws (dataset_id) WHERE state IN ('asking', 'drawing', 'reading', 'waiting', 'tallying')",
        );
        DB::statement(
            <<<'SQL'
            ALTER TABLE schedules
                ALTER COLUMN expression DROP NOT NULL,
                ADD COLUMN in_place boolean NOT NULL DEFAULT false,
                ADD COLUMN on_arrival boolean NOT NULL DEFAULT false,
                ADD COLUMN most_apart integer CHECK (most_apart >= 0),
                ADD CONSTRAINT schedules_when CHECK (on_arrival OR expression IS NOT NULL)
            SQL
        );
    }
};
