<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** Auditors look at everything but sensitive values; who has those shown is on record. A new table and a wider check: no table is rewritten. */
return new class () extends Migration {
    public function up(): void
    {
        DB::statement('ALTER TABLE memberships DROP CONSTRAINT memberships_role_check');
        DB::statement("ALTER TABLE memberships ADD CONSTRAINT memberships_role_check CHECK (role IN ('analyst', 'data-owner', 'auditor'))");
        DB::statement(<<<'SQL'
            CREATE TABLE unmaskings (
                id bigserial PRIMARY KEY,
                dataset_id bigint NOT NULL REFERENCES datasets,
                user_id bigint NOT NULL REFERENCES users,
                created_at timestamptz NOT NULL,
                until timestamptz NOT NULL
            )
            SQL);
        DB::statement('CREATE INDEX unmaskings_person ON unmaskings (dataset_id, user_id, id)');
        DB::statement('GRANT SELECT, INSERT ON unmaskings TO tally_app');
        DB::statement('GRANT USAGE ON ALL SEQUENCES IN SCHEMA public TO tally_app');
    }
};
