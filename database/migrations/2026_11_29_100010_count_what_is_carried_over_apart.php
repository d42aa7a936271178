<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/**
 * Of rulings that were carried over: those that a ruling meant for tallies to come took on, and those that opened again because their
 * pattern has more cells than it was meant for, are counted apart. Columns with a constant default: no table is rewritten.
 */
return new class () extends Migration {
    public function up(): void
    {
        DB::statement('ALTER TABLE carry_overs ADD COLUMN taken_on bigint NOT NULL DEFAULT 0, ADD COLUMN beyond bigint NOT NULL DEFAULT 0');
    }
};
