<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** Of a delivery that several datasets use, that each of its rows lands in one of them alone: only added to, the newest entry stands. */
return new class () extends Migration {
    public function up(): void
    {
        DB::statement(<<<'SQL'
            CREATE TABLE landing_demands (
                id bigserial PRIMARY KEY,
                migration_id bigint NOT NULL REFERENCES migrations,
                side text NOT NULL CHECK (side IN ('source', 'target')),
                files text NOT NULL,
                is_demanded boolean NOT NULL,
                user_id bigint NOT NULL REFERENCES users,
                created_at timestamptz NOT NULL
            )
            SQL);
        DB::statement('CREATE INDEX ON landing_demands (migration_id)');
        DB::statement('GRANT SELECT, INSERT ON landing_demands TO tally_app');
        DB::statement('GRANT USAGE ON SEQUENCE landing_demands_id_seq TO tally_app');
    }
};
