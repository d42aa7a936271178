<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/**
 * Samples of rows that agree, to be looked at by people: which rows they are follows from the seed, and is found again. Who was given a
 * sample, and what each said of its rows, is only added to; what somebody said last stands.
 */
return new class () extends Migration {
    public function up(): void
    {
        DB::statement(<<<'SQL'
            CREATE TABLE eye_checks (
                id bigserial PRIMARY KEY,
                tally_id bigint NOT NULL REFERENCES tallies,
                seed text NOT NULL,
                confidence double precision NOT NULL,
                share double precision NOT NULL,
                sizes json NOT NULL,
                populations json NOT NULL,
                user_id bigint NOT NULL REFERENCES users,
                created_at timestamptz NOT NULL
            )
            SQL);
        DB::statement(<<<'SQL'
            CREATE TABLE eye_check_people (
                id bigserial PRIMARY KEY,
                eye_check_id bigint NOT NULL REFERENCES eye_checks,
                user_id bigint NOT NULL REFERENCES users,
                given_by bigint NOT NULL REFERENCES users,
                created_at timestamptz NOT NULL,
                UNIQUE (eye_check_id, user_id)
            )
            SQL);
        DB::statement(<<<'SQL'
            CREATE TABLE eye_verdicts (
                id bigserial PRIMARY KEY,
                eye_check_id bigint NOT NULL REFERENCES eye_checks,
                place integer NOT NULL,
                by_rule boolean NOT NULL,
                key text NOT NULL,
                verdict text NOT NULL,
                remark text NOT NULL,
                user_id bigint NOT NULL REFERENCES users,
                created_at timestamptz NOT NULL
            )
            SQL);
        DB::statement('CREATE INDEX ON eye_checks (tally_id)');
        DB::statement('CREATE INDEX ON eye_verdicts (eye_check_id, place)');
        DB::statement('GRANT SELECT, INSERT ON eye_checks, eye_check_people, eye_verdicts TO tally_app');
        DB::statement('GRANT USAGE ON SEQUENCE eye_checks_id_seq, eye_check_people_id_seq, eye_verdicts_id_seq TO tally_app');
    }
};
