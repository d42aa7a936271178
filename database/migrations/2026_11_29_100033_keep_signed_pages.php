<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** The page of the report as it was when a tally was accepted: it is shown, printed and packed byte for byte from then on. */
return new class () extends Migration {
    public function up(): void
    {
        DB::statement(<<<'SQL'
            CREATE TABLE signed_pages (
                signature_id bigint PRIMARY KEY REFERENCES signatures,
                html_digest text NOT NULL
            )
            SQL);
        DB::statement('GRANT SELECT, INSERT ON signed_pages TO tally_app');
    }
};
