<?php

declare(strict_types=1);

use Database\Schema\Concept;

/** Who works on which migration, with its datasets. */
return new class () extends Concept {
    protected function definitions(): array
    {
        return [
            <<<'SQL'
            CREATE TABLE users (
                id bigserial PRIMARY KEY,
                name text NOT NULL,
                email text NOT NULL UNIQUE,
                password text NOT NULL,
                is_administrator boolean NOT NULL DEFAULT false,
                is_demo boolean NOT NULL DEFAULT false,
                created_at timestamptz(0) NOT NULL
            )
            SQL,
            <<<'SQL'
            CREATE TABLE first_person_codes (
                id bigserial PRIMARY KEY,
                code_hash text NOT NULL,
                tries smallint NOT NULL DEFAULT 0,
                expires_at timestamptz(0) NOT NULL
            )
            SQL,
            <<<'SQL'
            CREATE TABLE migrations (
                id bigserial PRIMARY KEY,
                name text NOT NULL UNIQUE,
                source_label text NOT NULL,
                target_label text NOT NULL,
                created_at timestamptz(0) NOT NULL
            )
            SQL,
            <<<'SQL'
            CREATE TABLE memberships (
                id bigserial PRIMARY KEY,
                migration_id bigint NOT NULL REFERENCES migrations,
                user_id bigint NOT NULL REFERENCES users,
                role text NOT NULL CHECK (role IN ('analyst', 'data-owner', 'auditor')),
                UNIQUE (migration_id, user_id)
            )
            SQL,
            <<<'SQL'
            CREATE TABLE datasets (
                id bigserial PRIMARY KEY,
                migration_id bigint NOT NULL REFERENCES migrations,
                name text NOT NULL,
                created_at timestamptz(0) NOT NULL,
                parameters json NOT NULL DEFAULT '{}',
                runs_on_delivery boolean NOT NULL DEFAULT false,
                UNIQUE (migration_id, name)
            )
            SQL,
            // Who had sensitive values shown is on record.
            <<<'SQL'
            CREATE TABLE unmaskings (
                id bigserial PRIMARY KEY,
                dataset_id bigint NOT NULL REFERENCES datasets,
                user_id bigint NOT NULL REFERENCES users,
                created_at timestamptz NOT NULL,
                until timestamptz NOT NULL
            )
            SQL,
            'CREATE INDEX unmaskings_person ON unmaskings (dataset_id, user_id, id)',
        ];
    }

    protected function rights(): array
    {
        return [
            'users' => 'SELECT, INSERT, UPDATE',
            'first_person_codes' => 'SELECT, INSERT, DELETE, UPDATE',
            'migrations' => 'SELECT, INSERT, UPDATE',
            'memberships' => 'SELECT, INSERT, DELETE, UPDATE',
            'datasets' => 'SELECT, INSERT, UPDATE',
            'unmaskings' => 'SELECT, INSERT',
        ];
    }
};
