<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** Evidence packs, the seals over them, one chained to the other, and the keys that sealed. All of it is only added to, but the orders. */
return new class () extends Migration {
    public function up(): void
    {
        foreach (
            [
                'CREATE TABLE seal_keys (fingerprint text PRIMARY KEY, pem text NOT NULL, created_at timestamptz NOT NULL)',
                <<<'SQL'
                CREATE TABLE seals (
                    id bigserial PRIMARY KEY,
                    digest text NOT NULL UNIQUE,
                    statement text NOT NULL,
                    signature text NOT NULL,
                    key_fingerprint text NOT NULL REFERENCES seal_keys,
                    previous_id bigint UNIQUE REFERENCES seals,
                    created_at timestamptz NOT NULL
                )
                SQL,
                <<<'SQL'
                CREATE TABLE packs (
                    id bigserial PRIMARY KEY,
                    tally_id bigint NOT NULL REFERENCES tallies,
                    number integer NOT NULL,
                    digest text NOT NULL,
                    bytes bigint NOT NULL,
                    seal_id bigint NOT NULL UNIQUE REFERENCES seals,
                    has_clear_values boolean NOT NULL,
                    user_id bigint NOT NULL REFERENCES users,
                    created_at timestamptz NOT NULL,
                    UNIQUE (tally_id, number)
                )
                SQL,
                <<<'SQL'
                CREATE TABLE pack_orders (
                    id bigserial PRIMARY KEY,
                    tally_id bigint NOT NULL REFERENCES tallies,
                    has_clear_values boolean NOT NULL,
                    state text NOT NULL CHECK (state IN ('queued', 'packing', 'done', 'failed')),
                    problem text,
                    pack_id bigint REFERENCES packs,
                    user_id bigint NOT NULL REFERENCES users,
                    created_at timestamptz NOT NULL
                )
                SQL,
                'GRANT SELECT, INSERT ON seal_keys, seals, packs TO tally_app',
                'GRANT SELECT, INSERT, UPDATE, DELETE ON pack_orders TO tally_app',
                'GRANT USAGE ON SEQUENCE seals_id_seq, packs_id_seq, pack_orders_id_seq TO tally_app',
            ] as $statement
        ) {
            DB::statement($statement);
        }
    }
};
