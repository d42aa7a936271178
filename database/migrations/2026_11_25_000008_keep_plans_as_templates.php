<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** Plans that are kept to be used for other datasets. A new table: nothing is locked. */
return new class () extends Migration {
    public function up(): void
    {
        DB::statement(<<<'SQL'
            CREATE TABLE plan_templates (
                id bigserial PRIMARY KEY,
                migration_id bigint NOT NULL REFERENCES migrations,
                name text NOT NULL,
                document text NOT NULL,
                user_id bigint NOT NULL REFERENCES users,
                created_at timestamptz NOT NULL,
                UNIQUE (migration_id, name)
            )
            SQL);
        DB::statement('GRANT SELECT, INSERT ON plan_templates TO tally_app');
        DB::statement('GRANT USAGE ON SEQUENCE plan_templates_id_seq TO tally_app');
    }
};
