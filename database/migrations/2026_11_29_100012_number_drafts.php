<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/**
 * Each time a draft is saved it has the next number, so that nobody overwrites what they have not seen. A constant default rewrites no
 * table.
 */
return new class () extends Migration {
    public function up(): void
    {
        DB::statement('ALTER TABLE plan_drafts ADD COLUMN number integer NOT NULL DEFAULT 1');
    }
};
