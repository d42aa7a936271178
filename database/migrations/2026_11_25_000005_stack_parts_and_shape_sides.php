<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/**
 * A delivery is one or more parts; sides are shaped before they are compared. New columns are nullable or have a constant default,
 * so no table is rewritten. Deliveries that are there get the one part that they are.
 */
return new class () extends Migration {
    public function up(): void
    {
        DB::statement(<<<'SQL'
            CREATE TABLE delivery_parts (
                delivery_id bigint NOT NULL REFERENCES deliveries,
                number int NOT NULL,
                file_name text NOT NULL,
                origin text NOT NULL,
                digest char(64) NOT NULL,
                bytes bigint NOT NULL,
                format json NOT NULL,
                columns json NOT NULL,
                read_count bigint NOT NULL,
                refused_count bigint NOT NULL,
                delivered_count bigint NOT NULL,
                PRIMARY KEY (delivery_id, number),
                CHECK (read_count = refused_count + delivered_count)
            )
            SQL);
        DB::statement(<<<'SQL'
            INSERT INTO delivery_parts
            SELECT id, 1, file_name, file_name, digest, bytes, format, columns, read_count, refused_count, delivered_count FROM deliveries
            SQL);
        DB::statement('GRANT SELECT, INSERT ON delivery_parts TO tally_app');
        DB::statement('ALTER TABLE deliveries ADD COLUMN origin_column text, ADD COLUMN as_of timestamptz, ADD COLUMN rows_claimed bigint');
        DB::statement('ALTER TABLE refused_records ADD COLUMN part int NOT NULL DEFAULT 1');
        DB::statement('ALTER TABLE row_findings ADD COLUMN source_part int, ADD COLUMN target_part int');
        DB::statement("ALTER TABLE runs ADD COLUMN parameters json NOT NULL DEFAULT '{}', ADD COLUMN reference_deliveries json NOT NULL DEFAULT '{}'");
        DB::statement('ALTER TABLE receipts ADD COLUMN taking json');
        DB::statement("ALTER TABLE datasets ADD COLUMN parameters json NOT NULL DEFAULT '{}'");
    }
};
