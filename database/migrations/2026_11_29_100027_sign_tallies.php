<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/**
 * What counts for signing in a migration, waivers, and signatures with the states that they are given on. All of it is only added to.
 * The new column of runs is empty where it is not known, which takes no time on a full table.
 */
return new class () extends Migration {
    public function up(): void
    {
        foreach (
            [
                <<<'SQL'
                CREATE TABLE signing_terms (
                    id bigserial PRIMARY KEY,
                    migration_id bigint NOT NULL REFERENCES migrations,
                    terms json NOT NULL,
                    user_id bigint NOT NULL REFERENCES users,
                    created_at timestamptz NOT NULL
                )
                SQL,
                'CREATE INDEX ON signing_terms (migration_id, id)',
                'ALTER TABLE runs ADD COLUMN signing_terms_id bigint REFERENCES signing_terms',
                <<<'SQL'
                CREATE TABLE waivers (
                    id bigserial PRIMARY KEY,
                    dataset_id bigint NOT NULL REFERENCES datasets,
                    tally_id bigint NOT NULL REFERENCES tallies,
                    limit_id text NOT NULL,
                    worst text NOT NULL,
                    value text,
                    reason text NOT NULL CHECK (reason <> ''),
                    ticket text,
                    ends_on date NOT NULL,
                    is_lifted boolean NOT NULL DEFAULT false,
                    user_id bigint NOT NULL REFERENCES users,
                    created_at timestamptz NOT NULL
                )
                SQL,
                'CREATE INDEX ON waivers (dataset_id, id)',
                'CREATE TABLE signed_states (digest text PRIMARY KEY CHECK (length(digest) = 64), content text NOT NULL)',
                <<<'SQL'
                CREATE TABLE signatures (
                    id bigserial PRIMARY KEY,
                    tally_id bigint NOT NULL REFERENCES tallies,
                    act text NOT NULL CHECK (act IN ('prepared', 'checked', 'accepted', 'returned', 'withdrawn')),
                    user_id bigint NOT NULL REFERENCES users,
                    role text NOT NULL,
                    method text NOT NULL,
                    words text NOT NULL,
                    reason text NOT NULL DEFAULT '',
                    digest text REFERENCES signed_states,
                    created_at timestamptz NOT NULL,
                    CHECK ((digest IS NOT NULL) = (act IN ('prepared', 'checked', 'accepted'))),
                    CHECK (act NOT IN ('returned', 'withdrawn') OR reason <> '')
                )
                SQL,
                'CREATE INDEX ON signatures (tally_id, id)',
                'GRANT SELECT, INSERT ON signing_terms, waivers, signed_states, signatures TO tally_app',
                'GRANT USAGE ON SEQUENCE signing_terms_id_seq, waivers_id_seq, signatures_id_seq TO tally_app',
            ] as $statement
        ) {
            DB::statement($statement);
        }
    }
};
