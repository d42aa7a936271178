<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** A record ends by what stands behind it, and a file may have several kinds: how many of each there were is said. */
return new class () extends Migration {
    public function up(): void
    {
        // Of parts that were read before nobody counted; text of no other kind has any.
        DB::statement('ALTER TABLE delivery_parts ADD COLUMN line_ends json');
    }
};
