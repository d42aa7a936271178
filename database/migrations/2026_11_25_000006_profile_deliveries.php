<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** What the columns of a delivery hold: computed once by a worker, and again if it is gone. A new table: nothing is locked. */
return new class () extends Migration {
    public function up(): void
    {
        DB::statement(<<<'SQL'
            CREATE TABLE delivery_profiles (
                delivery_id bigint PRIMARY KEY REFERENCES deliveries,
                columns json,
                problem text,
                created_at timestamptz NOT NULL
            )
            SQL);
        DB::statement('GRANT SELECT, INSERT, UPDATE, DELETE ON delivery_profiles TO tally_app');
    }
};
