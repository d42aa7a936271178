<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** What a run is divided into are tasks; a file that is uploaded comes in chunks. */
return new class () extends Migration {
    public function up(): void
    {
        DB::statement('ALTER TABLE run_pieces RENAME TO run_tasks');
    }
};
