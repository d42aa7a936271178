<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/**
 * What the deliverer claims of a delivery, and how a claim that does not hold is explained; archives of several files and queries as
 * parts; what a worker finds out once. New columns are nullable or have a constant default: no table is rewritten, and each lock is
 * gone at once.
 */
return new class () extends Migration {
    public function up(): void
    {
        DB::statement("ALTER TABLE deliveries ADD COLUMN claims json NOT NULL DEFAULT '[]'");
        DB::statement('ALTER TABLE delivery_parts ADD COLUMN packed_in json, ADD COLUMN query json');
        DB::statement('ALTER TABLE receipts ADD COLUMN packed_in json, ADD COLUMN query json, ADD COLUMN unpacked_into json');
        DB::statement('ALTER TABLE receipts DROP CONSTRAINT receipts_state_check');
        DB::statement("ALTER TABLE receipts ADD CONSTRAINT receipts_state_check CHECK (state IN ('receiving', 'received', 'reading', 'delivered', 'refused', 'unpacked')) NOT VALID");
        DB::statement(<<<'SQL'
            CREATE TABLE claim_explanations (
                id bigserial PRIMARY KEY,
                delivery_id bigint NOT NULL REFERENCES deliveries,
                claim int NOT NULL,
                explanation text NOT NULL,
                user_id bigint NOT NULL REFERENCES users,
                explained_at timestamptz NOT NULL
            )
            SQL);
        DB::statement('CREATE INDEX ON claim_explanations (delivery_id)');
        DB::statement('GRANT SELECT, INSERT ON claim_explanations TO tally_app');
        DB::statement('GRANT USAGE ON SEQUENCE claim_explanations_id_seq TO tally_app');
        DB::statement(<<<'SQL'
            CREATE TABLE answers (
                digest char(64) PRIMARY KEY,
                kind text NOT NULL,
                state text NOT NULL CHECK (state IN ('asked', 'answered', 'failed', 'cancelled')),
                done bigint NOT NULL DEFAULT 0,
                total bigint NOT NULL DEFAULT 0,
                content json,
                problem text,
                created_at timestamptz NOT NULL,
                updated_at timestamptz NOT NULL
            )
            SQL);
        DB::statement('GRANT SELECT, INSERT, UPDATE, DELETE ON answers TO tally_app');
    }
};
