<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** A second factor of whoever wants one, and codes for when it is lost. */
return new class () extends Migration {
    public function up(): void
    {
        DB::statement(<<<'SQL'
            CREATE TABLE second_factors (
                user_id bigint PRIMARY KEY REFERENCES users,
                secret text NOT NULL,
                last_step bigint NOT NULL DEFAULT 0,
                confirmed_at timestamptz,
                created_at timestamptz NOT NULL
            )
            SQL);
        DB::statement(<<<'SQL'
            CREATE TABLE recovery_codes (
                id bigserial PRIMARY KEY,
                user_id bigint NOT NULL REFERENCES users,
                digest text NOT NULL,
                created_at timestamptz NOT NULL,
                UNIQUE (user_id, digest)
            )
            SQL);
        DB::statement('GRANT SELECT, INSERT, UPDATE, DELETE ON second_factors TO tally_app');
        DB::statement('GRANT SELECT, INSERT, DELETE ON recovery_codes TO tally_app');
        DB::statement('GRANT USAGE ON SEQUENCE recovery_codes_id_seq TO tally_app');
    }
};
