<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** The key that seals is changed by an act; the old one signs which key follows, unless somebody else may have it. */
return new class () extends Migration {
    public function up(): void
    {
        foreach (
            [
                <<<'SQL'
                CREATE TABLE key_rotations (
                    id bigserial PRIMARY KEY,
                    from_fingerprint text NOT NULL UNIQUE REFERENCES seal_keys,
                    to_fingerprint text NOT NULL UNIQUE REFERENCES seal_keys,
                    statement text,
                    signature text,
                    reason text NOT NULL CHECK (reason <> ''),
                    user_id bigint NOT NULL REFERENCES users,
                    created_at timestamptz NOT NULL,
                    CHECK ((statement IS NULL) = (signature IS NULL))
                )
                SQL,
                'GRANT SELECT, INSERT ON key_rotations TO tally_app',
                'GRANT USAGE ON SEQUENCE key_rotations_id_seq TO tally_app',
            ] as $statement
        ) {
            DB::statement($statement);
        }
    }
};
