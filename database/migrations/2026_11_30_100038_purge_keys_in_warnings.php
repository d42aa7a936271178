<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** Warnings that name keys go with the content of their tally: an idle bridge, and rows that were chosen by hand. */
return new class () extends Migration {
    public function up(): void
    {
        $schema = DB::scalar('SELECT current_schema()');
        DB::statement(str_replace('{schema}', is_string($schema) ? $schema : 'public', <<<'SQL'
            CREATE FUNCTION purge_warnings(purge bigint) RETURNS void
                LANGUAGE sql SECURITY DEFINER
                SET search_path = {schema}, pg_temp
                AS $$
                UPDATE tallies SET summary = (
                    SELECT json_object_agg(key, CASE WHEN key = 'warnings' THEN (
                        SELECT coalesce(json_agg(warning ORDER BY nth), '[]'::json)
                        FROM json_array_elements(value) WITH ORDINALITY AS of_warnings (warning, nth)
                        WHERE json_typeof(warning) = 'object'
                            AND warning->>'kind' NOT IN ('idle-bridge', 'reopened-choice', 'idle-choice')
                    ) ELSE value END ORDER BY place)
                    FROM json_each(summary) WITH ORDINALITY AS of_summary (key, value, place)
                ) WHERE id IN (SELECT tally_id FROM purged_tallies WHERE purge_id = purge)
                $$
            SQL));
        DB::statement('REVOKE ALL ON FUNCTION purge_warnings(bigint) FROM PUBLIC');
        DB::statement('GRANT EXECUTE ON FUNCTION purge_warnings(bigint) TO tally_app');
    }
};
