<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** What the plans of new datasets of a migration begin with: how both sides write their values, and what is forgiven. */
return new class () extends Migration {
    public function up(): void
    {
        DB::statement('ALTER TABLE migrations ADD COLUMN plan_defaults json');
    }
};
