<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** The dataset that a workbook is made from, so that it waits there and nowhere else. Those from before go within a day. */
return new class () extends Migration {
    public function up(): void
    {
        DB::statement('ALTER TABLE workbooks ADD COLUMN dataset_id bigint REFERENCES datasets');
    }
};
