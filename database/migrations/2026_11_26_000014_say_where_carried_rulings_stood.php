<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** A ruling that was carried over says on which finding of the tally before it stood, so that those that were not can be listed. A nullable column: no table is rewritten. */
return new class () extends Migration {
    public function up(): void
    {
        DB::statement('ALTER TABLE carried_rulings ADD COLUMN from_sequence bigint');
    }
};
