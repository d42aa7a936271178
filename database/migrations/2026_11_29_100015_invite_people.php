<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/**
 * People come by invitation, have roles that begin and end, and sign-ins that can be ended. What somebody did here is only ever added: who
 * had which role when, and what went on at the door.
 */
return new class () extends Migration {
    private const ROLES = "('viewer', 'analyst', 'test-manager', 'data-owner', 'auditor')";

    public function up(): void
    {
        $roles = self::ROLES;
        foreach (
            [
                'ALTER TABLE users ADD COLUMN locked_at timestamptz(0)',
                'ALTER TABLE memberships DROP CONSTRAINT memberships_role_check',
                "ALTER TABLE memberships ADD CONSTRAINT memberships_role_check CHECK (role IN {$roles})",
                <<<SQL
                CREATE TABLE role_entries (
                    id bigserial PRIMARY KEY,
                    migration_id bigint NOT NULL REFERENCES migrations,
                    user_id bigint NOT NULL REFERENCES users,
                    role text CHECK (role IN {$roles}),
                    by_id bigint REFERENCES users,
                    created_at timestamptz NOT NULL
                )
                SQL,
                'CREATE INDEX role_entries_migration ON role_entries (migration_id, id)',
                // What was given before anybody kept count begins now.
                'INSERT INTO role_entries (migration_id, user_id, role, created_at) '.
                    'SELECT migration_id, user_id, role, now() FROM memberships',
                <<<SQL
                CREATE TABLE invitations (
                    id bigserial PRIMARY KEY,
                    name text NOT NULL,
                    email text NOT NULL,
                    migration_id bigint REFERENCES migrations,
                    role text CHECK (role IN {$roles}),
                    is_administrator boolean NOT NULL DEFAULT false,
                    token_hash text NOT NULL UNIQUE,
                    by_id bigint NOT NULL REFERENCES users,
                    created_at timestamptz NOT NULL,
                    expires_at timestamptz NOT NULL,
                    ended_at timestamptz,
                    user_id bigint REFERENCES users
                )
                SQL,
                <<<'SQL'
                CREATE TABLE sign_ins (
                    id bigserial PRIMARY KEY,
                    user_id bigint NOT NULL REFERENCES users,
                    address text NOT NULL,
                    agent text NOT NULL,
                    created_at timestamptz NOT NULL,
                    seen_at timestamptz NOT NULL,
                    ended_at timestamptz
                )
                SQL,
                'CREATE INDEX sign_ins_person ON sign_ins (user_id, id)',
                <<<'SQL'
                CREATE TABLE moved_questions (
                    id bigserial PRIMARY KEY,
                    from_id bigint NOT NULL REFERENCES users,
                    to_id bigint NOT NULL REFERENCES users,
                    by_id bigint NOT NULL REFERENCES users,
                    created_at timestamptz NOT NULL
                )
                SQL,
                'CREATE INDEX moved_questions_to ON moved_questions (to_id)',
                <<<'SQL'
                CREATE TABLE trail_entries (
                    id bigserial PRIMARY KEY,
                    act text NOT NULL,
                    user_id bigint REFERENCES users,
                    migration_id bigint REFERENCES migrations,
                    about text NOT NULL DEFAULT '',
                    address text NOT NULL DEFAULT '',
                    created_at timestamptz NOT NULL
                )
                SQL,
                'CREATE INDEX trail_entries_migration ON trail_entries (migration_id, id)',
                'GRANT SELECT, INSERT ON role_entries, moved_questions, trail_entries TO tally_app',
                'GRANT SELECT, INSERT, UPDATE ON invitations, sign_ins TO tally_app',
                'GRANT USAGE ON SEQUENCE role_entries_id_seq, invitations_id_seq, sign_ins_id_seq, moved_questions_id_seq, '.
                    'trail_entries_id_seq TO tally_app',
            ]
            as $statement
        ) {
            DB::statement($statement);
        }
    }
};
