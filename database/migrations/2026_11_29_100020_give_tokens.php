<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** Tokens for programs that speak to the API in somebody's name; the columns are those that Sanctum knows. */
return new class () extends Migration {
    public function up(): void
    {
        DB::statement(<<<'SQL'
            CREATE TABLE tokens (
                id bigserial PRIMARY KEY,
                tokenable_type text NOT NULL,
                tokenable_id bigint NOT NULL REFERENCES users,
                name text NOT NULL,
                token text NOT NULL UNIQUE,
                abilities text NOT NULL,
                last_used_at timestamptz,
                expires_at timestamptz NOT NULL,
                created_at timestamptz NOT NULL,
                updated_at timestamptz NOT NULL
            )
            SQL);
        DB::statement('CREATE INDEX ON tokens (tokenable_id)');
        DB::statement('GRANT SELECT, INSERT, DELETE ON tokens TO tally_app');
        DB::statement('GRANT UPDATE (last_used_at, updated_at) ON tokens TO tally_app');
        DB::statement('GRANT USAGE ON SEQUENCE tokens_id_seq TO tally_app');
    }
};
