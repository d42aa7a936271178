<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/**
 * Any column of a side can be sensitive, whether it is compared, part of the key or neither. Drafts name them so; versions, which are never
 * changed, keep the flags of their pairs, and both are read.
 */
return new class () extends Migration {
    public function up(): void
    {
        DB::statement(<<<'SQL'
            UPDATE plan_drafts d SET document = (d.document::jsonb || jsonb_build_object(
                'columnPairs', (SELECT jsonb_agg(pair - 'sensitive' ORDER BY place) FROM jsonb_array_elements(d.document::jsonb -> 'columnPairs') WITH ORDINALITY AS pairs (pair, place)),
                'sensitive', (SELECT jsonb_build_object('source', jsonb_agg(pair -> 'source'), 'target', jsonb_agg(pair -> 'target')) FROM jsonb_array_elements(d.document::jsonb -> 'columnPairs') AS pair WHERE (pair ->> 'sensitive')::boolean)
            ))::json
            WHERE EXISTS (SELECT 1 FROM json_array_elements(d.document::json -> 'columnPairs') AS pair WHERE (pair ->> 'sensitive')::boolean)
            SQL);
    }
};
