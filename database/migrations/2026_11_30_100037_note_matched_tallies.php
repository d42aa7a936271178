<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** Of each run the tallies of other datasets whose matched rows it took numbers from: what these were made of, it was made of too. */
return new class () extends Migration {
    public function up(): void
    {
        DB::statement("ALTER TABLE runs ADD COLUMN matched_tallies json NOT NULL DEFAULT '{}'");
        DB::statement(<<<'SQL'
            CREATE OR REPLACE VIEW run_deliveries AS
                SELECT id AS run_id, source_delivery_id AS delivery_id, 'side' AS how FROM runs
                UNION SELECT id, target_delivery_id, 'side' FROM runs
                UNION SELECT r.id, of.value::bigint, 'reference' FROM runs r, json_each_text(
                    CASE json_typeof(r.reference_deliveries) WHEN 'object' THEN r.reference_deliveries ELSE '{}' END) of
                UNION SELECT r.id, of.value::bigint, 'records' FROM runs r, json_each(
                    CASE json_typeof(r.record_deliveries) WHEN 'object' THEN r.record_deliveries ELSE '{}' END) named, json_each_text(
                    CASE json_typeof(named.value) WHEN 'object' THEN named.value ELSE '{}' END) of WHERE of.value IS NOT NULL
                UNION SELECT r.id, side.delivery_id, 'reference' FROM runs r, json_each_text(
                    CASE json_typeof(r.matched_tallies) WHEN 'object' THEN r.matched_tallies ELSE '{}' END) of
                    JOIN tallies t ON t.id = of.value::bigint
                    CROSS JOIN LATERAL (VALUES (t.source_delivery_id), (t.target_delivery_id)) side (delivery_id)
            SQL);
    }
};
