<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** A key that a bridge joins and that the target has to correct is a line of corrections, too: no act of ruling stands behind it. */
return new class () extends Migration {
    public function up(): void
    {
        DB::statement('ALTER TABLE correction_lines ALTER COLUMN ruling_id DROP NOT NULL');
        DB::statement('ALTER TABLE correction_lines DROP CONSTRAINT correction_lines_action_check');
        DB::statement(<<<'SQL'
            ALTER TABLE correction_lines ADD CONSTRAINT correction_lines_action_check
                CHECK (action IN ('add', 'take-out', 'set', 'set-key') AND (ruling_id IS NULL) = (action = 'set-key'))
            SQL);
    }
};
