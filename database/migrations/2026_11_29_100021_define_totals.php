<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** The control totals of each tally, and their groups, those that differ most first. Like the tally they never change. */
return new class () extends Migration {
    public function up(): void
    {
        DB::statement(<<<'SQL'
            CREATE TABLE tally_totals (
                tally_id bigint NOT NULL REFERENCES tallies,
                number integer NOT NULL,
                differs boolean NOT NULL,
                figures json NOT NULL,
                groups integer NOT NULL,
                PRIMARY KEY (tally_id, number)
            )
            SQL);
        DB::statement(<<<'SQL'
            CREATE TABLE total_groups (
                tally_id bigint NOT NULL,
                number integer NOT NULL,
                place integer NOT NULL,
                figures json NOT NULL,
                PRIMARY KEY (tally_id, number, place),
                FOREIGN KEY (tally_id, number) REFERENCES tally_totals
            )
            SQL);
        DB::statement('GRANT SELECT, INSERT ON tally_totals, total_groups TO tally_app');
    }
};
