<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** Packs that somebody has checked here: what was found stays, the bytes do not. */
return new class () extends Migration {
    public function up(): void
    {
        DB::statement(<<<'SQL'
            CREATE TABLE pack_checks (
                id uuid PRIMARY KEY,
                user_id bigint NOT NULL REFERENCES users,
                file_name text NOT NULL,
                bytes bigint NOT NULL,
                received_bytes bigint NOT NULL DEFAULT 0,
                key text,
                state text NOT NULL CHECK (state IN ('receiving', 'checking', 'done', 'failed')),
                found json,
                created_at timestamptz NOT NULL
            )
            SQL);
        DB::statement('GRANT SELECT, INSERT, UPDATE, DELETE ON pack_checks TO tally_app');
    }
};
