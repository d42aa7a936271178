<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/**
 * Rulings that a tally took over from the one before it, entered with the tally. New tables and a column with a constant default: nothing
 * is rewritten.
 */
return new class () extends Migration {
    public function up(): void
    {
        DB::statement(<<<'SQL'
            CREATE TABLE carried_rulings (
                tally_id bigint NOT NULL REFERENCES tallies,
                "group" text NOT NULL,
                sequence bigint NOT NULL,
                ruling_id bigint NOT NULL REFERENCES rulings,
                decision text NOT NULL,
                is_changed boolean NOT NULL,
                PRIMARY KEY (tally_id, "group", sequence)
            )
            SQL);
        DB::statement(<<<'SQL'
            CREATE TABLE carry_overs (
                tally_id bigint PRIMARY KEY REFERENCES tallies,
                from_tally_id bigint NOT NULL REFERENCES tallies,
                ruled bigint NOT NULL,
                carried bigint NOT NULL,
                changed bigint NOT NULL,
                has_other_key boolean NOT NULL
            )
            SQL);
        DB::statement('GRANT SELECT, INSERT ON carried_rulings, carry_overs TO tally_app');
        DB::statement('ALTER TABLE datasets ADD COLUMN runs_on_delivery boolean NOT NULL DEFAULT false');
    }
};
