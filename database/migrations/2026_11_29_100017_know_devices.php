<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** Browsers that people have signed in from before: there they are not made to wait because somebody else guesses at their account. */
return new class () extends Migration {
    public function up(): void
    {
        DB::statement(<<<'SQL'
            CREATE TABLE known_devices (
                id bigserial PRIMARY KEY,
                user_id bigint NOT NULL REFERENCES users,
                digest text NOT NULL,
                created_at timestamptz NOT NULL,
                UNIQUE (user_id, digest)
            )
            SQL);
        DB::statement('GRANT SELECT, INSERT, DELETE ON known_devices TO tally_app');
        DB::statement('GRANT USAGE ON SEQUENCE known_devices_id_seq TO tally_app');
    }
};
