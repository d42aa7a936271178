<?php

declare(strict_types=1);

use Database\Schema\Concept;

/** Drafts change; versions, and plans to start from, are entered once. With them, what takes long to find out about a plan. */
return new class () extends Concept {
    protected function definitions(): array
    {
        return [
            <<<'SQL'
            CREATE TABLE plan_drafts (
                dataset_id bigint PRIMARY KEY REFERENCES datasets,
                document json NOT NULL,
                user_id bigint REFERENCES users,
                updated_at timestamptz(0) NOT NULL
            )
            SQL,
            <<<'SQL'
            CREATE TABLE plan_versions (
                id bigserial PRIMARY KEY,
                dataset_id bigint NOT NULL REFERENCES datasets,
                number integer NOT NULL,
                document text NOT NULL,
                digest char(64) NOT NULL,
                user_id bigint NOT NULL REFERENCES users,
                created_at timestamptz NOT NULL,
                UNIQUE (dataset_id, number)
            )
            SQL,
            <<<'SQL'
            CREATE TABLE starting_plans (
                id bigserial PRIMARY KEY,
                migration_id bigint NOT NULL REFERENCES migrations,
                name text NOT NULL,
                document text NOT NULL,
                user_id bigint NOT NULL REFERENCES users,
                created_at timestamptz NOT NULL,
                UNIQUE (migration_id, name)
            )
            SQL,
            <<<'SQL'
            CREATE TABLE key_counts (
                id bigserial PRIMARY KEY,
                delivery_id bigint NOT NULL,
                columns_digest char(64) NOT NULL,
                columns json NOT NULL,
                state text NOT NULL CHECK (state IN ('queued', 'counted', 'failed')),
                rows bigint,
                unique_rows bigint,
                repeated_rows bigint,
                unkeyed_rows bigint,
                created_at timestamptz(0) NOT NULL,
                UNIQUE (delivery_id, columns_digest)
            )
            SQL,
            // What takes a pass over deliveries to find out, kept under its hash.
            <<<'SQL'
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
            SQL,
        ];
    }

    protected function rights(): array
    {
        return [
            'plan_drafts' => 'SELECT, INSERT, DELETE, UPDATE',
            'plan_versions' => 'SELECT, INSERT',
            'starting_plans' => 'SELECT, INSERT',
            'key_counts' => 'SELECT, INSERT, DELETE, UPDATE',
            'answers' => 'SELECT, INSERT, DELETE, UPDATE',
        ];
    }
};
