<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/**
 * What came of rules that values must have a record, for each tally; and, line by line, the values that have none and the records that
 * nothing refers to. Which deliveries the records were read from stands with the run. Like the tally they never change.
 */
return new class () extends Migration {
    public function up(): void
    {
        DB::statement("ALTER TABLE runs ADD record_deliveries json NOT NULL DEFAULT '{}'");
        DB::statement(<<<'SQL'
            CREATE TABLE record_checks (
                tally_id bigint NOT NULL REFERENCES tallies,
                number integer NOT NULL,
                figures json NOT NULL,
                PRIMARY KEY (tally_id, number)
            )
            SQL);
        DB::statement(<<<'SQL'
            CREATE TABLE record_lines (
                tally_id bigint NOT NULL,
                number integer NOT NULL,
                list text NOT NULL,
                place integer NOT NULL,
                figures json NOT NULL,
                PRIMARY KEY (tally_id, number, list, place),
                FOREIGN KEY (tally_id, number) REFERENCES record_checks
            )
            SQL);
        DB::statement('GRANT SELECT, INSERT ON record_checks, record_lines TO tally_app');
    }
};
