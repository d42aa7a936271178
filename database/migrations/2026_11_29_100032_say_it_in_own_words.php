<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** What an analyst says in the report in their own words, at two marked places. Only added to: the newest of a place stands. */
return new class () extends Migration {
    public function up(): void
    {
        DB::statement(<<<'SQL'
            CREATE TABLE report_texts (
                id bigserial PRIMARY KEY,
                tally_id bigint NOT NULL REFERENCES tallies,
                place text NOT NULL CHECK (place IN ('opening', 'closing')),
                text text NOT NULL,
                user_id bigint NOT NULL REFERENCES users,
                created_at timestamptz NOT NULL
            )
            SQL);
        DB::statement('CREATE INDEX ON report_texts (tally_id, id)');
        DB::statement('GRANT SELECT, INSERT ON report_texts TO tally_app');
        DB::statement('GRANT USAGE ON SEQUENCE report_texts_id_seq TO tally_app');
    }
};
