<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** The difference of two numbers stands with their cell, and what those of a pattern come to with the pattern. Tallies before have none. */
return new class () extends Migration {
    public function up(): void
    {
        DB::statement('ALTER TABLE cell_findings ADD difference numeric, ADD relative_difference double precision');
        DB::statement('ALTER TABLE patterns ADD worth json');
    }
};
