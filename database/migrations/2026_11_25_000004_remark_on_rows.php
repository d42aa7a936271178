<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** What is known of a row beside its class. Nullable and without a default: no table is rewritten, and finished tallies stay as they are. */
return new class () extends Migration {
    public function up(): void
    {
        DB::statement('ALTER TABLE row_findings ADD COLUMN remark text');
    }
};
