<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** Which workers there are and what they are at, for whoever looks after the installation. */
return new class () extends Migration {
    public function up(): void
    {
        DB::statement(<<<'SQL'
            CREATE TABLE workers (
                id text PRIMARY KEY,
                queues text NOT NULL,
                doing text,
                since timestamptz NOT NULL,
                seen_at timestamptz NOT NULL
            )
            SQL);
        DB::statement('GRANT SELECT, INSERT, UPDATE, DELETE ON workers TO tally_app');
    }
};
