<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** Pieces of a run's work, so that several workers can share it. A new table: nothing is locked. */
return new class () extends Migration {
    public function up(): void
    {
        DB::statement(<<<'SQL'
            CREATE TABLE run_pieces (
                run_id bigint NOT NULL REFERENCES runs,
                name text NOT NULL,
                worker uuid,
                lease_expires_at timestamptz,
                bytes_read bigint NOT NULL DEFAULT 0,
                records_read bigint NOT NULL DEFAULT 0,
                done_at timestamptz,
                PRIMARY KEY (run_id, name)
            )
            SQL);
        DB::statement('GRANT SELECT, INSERT, UPDATE, DELETE ON run_pieces TO tally_app');
    }
};
