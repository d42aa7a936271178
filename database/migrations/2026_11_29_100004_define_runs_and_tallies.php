<?php

declare(strict_types=1);

use Database\Schema\Concept;

/** Work under a lease, divided into tasks, and the tallies that it entered. A tally is never overwritten. */
return new class () extends Concept {
    protected function definitions(): array
    {
        return [
            <<<'SQL'
            CREATE TABLE runs (
                id bigserial PRIMARY KEY,
                dataset_id bigint NOT NULL REFERENCES datasets,
                plan_version_id bigint NOT NULL REFERENCES plan_versions,
                source_delivery_id bigint NOT NULL REFERENCES deliveries,
                target_delivery_id bigint NOT NULL REFERENCES deliveries,
                state text NOT NULL CHECK (state IN ('queued', 'reading', 'matching', 'merging', 'loading', 'done', 'failed', 'cancelled')),
                done real NOT NULL DEFAULT 0,
                figures json NOT NULL DEFAULT '{}',
                problem text,
                attempts integer NOT NULL DEFAULT 0,
                lease uuid,
                lease_expires_at timestamptz,
                cancel_requested_at timestamptz,
                tally_id bigint,
                user_id bigint NOT NULL REFERENCES users,
                created_at timestamptz NOT NULL,
                started_at timestamptz,
                finished_at timestamptz,
                parameters json NOT NULL DEFAULT '{}',
                reference_deliveries json NOT NULL DEFAULT '{}'
            )
            SQL,
            'CREATE INDEX runs_dataset ON runs (dataset_id, id DESC)',
            // One run at a time for a dataset: a second click finds the first.
            <<<'SQL'
            CREATE UNIQUE INDEX runs_one_going_on ON runs (dataset_id) WHERE state NOT IN ('done', 'failed', 'cancelled')
            SQL,
            <<<'SQL'
            CREATE TABLE run_tasks (
                run_id bigint NOT NULL REFERENCES runs,
                name text NOT NULL,
                worker uuid,
                lease_expires_at timestamptz,
                bytes_read bigint NOT NULL DEFAULT 0,
                records_read bigint NOT NULL DEFAULT 0,
                done_at timestamptz,
                PRIMARY KEY (run_id, name)
            )
            SQL,
            <<<'SQL'
            CREATE TABLE tallies (
                id bigserial PRIMARY KEY,
                dataset_id bigint NOT NULL REFERENCES datasets,
                number integer NOT NULL,
                run_id bigint NOT NULL UNIQUE REFERENCES runs,
                plan_version_id bigint NOT NULL REFERENCES plan_versions,
                source_delivery_id bigint NOT NULL REFERENCES deliveries,
                target_delivery_id bigint NOT NULL REFERENCES deliveries,
                summary json NOT NULL,
                user_id bigint NOT NULL REFERENCES users,
                started_at timestamptz NOT NULL,
                finished_at timestamptz NOT NULL,
                UNIQUE (dataset_id, number)
            )
            SQL,
        ];
    }

    protected function rights(): array
    {
        return [
            'runs' => 'SELECT, INSERT, DELETE, UPDATE',
            'run_tasks' => 'SELECT, INSERT, DELETE, UPDATE',
            'tallies' => 'SELECT, INSERT',
        ];
    }
};
