<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** Workbooks that people asked for, while they are written and until they are taken. A new table. */
return new class () extends Migration {
    public function up(): void
    {
        DB::statement(<<<'SQL'
            CREATE TABLE workbooks (
                id uuid PRIMARY KEY,
                user_id bigint NOT NULL REFERENCES users,
                name text NOT NULL,
                state text NOT NULL CHECK (state IN ('asked', 'written', 'failed')),
                rows bigint NOT NULL,
                done bigint NOT NULL,
                total bigint NOT NULL,
                problem text,
                created_at timestamptz NOT NULL,
                updated_at timestamptz NOT NULL
            )
            SQL);
        DB::statement('CREATE INDEX workbooks_person ON workbooks (user_id, created_at)');
        DB::statement('GRANT SELECT, INSERT, UPDATE, DELETE ON workbooks TO tally_app');
    }
};
