<?php

declare(strict_types=1);

use Database\Schema\Concept;

/**
 * Where deliveries are drawn from, and when. A connection belongs to a migration; what it needs to be let in is kept encrypted. Each draw
 * is kept with what became of it, in words.
 */
return new class () extends Concept {
    protected function definitions(): array
    {
        return [
            <<<'SQL'
            CREATE TABLE connections (
                id bigserial PRIMARY KEY,
                migration_id bigint NOT NULL REFERENCES migrations,
                label text NOT NULL,
                kind text NOT NULL CHECK (kind IN ('postgresql', 'mysql', 'sqlite', 'feed', 'folder')),
                settings json NOT NULL,
                secret text,
                user_id bigint NOT NULL REFERENCES users,
                created_at timestamptz NOT NULL,
                updated_at timestamptz NOT NULL,
                UNIQUE (migration_id, label)
            )
            SQL,
            <<<'SQL'
            CREATE TABLE schedules (
                dataset_id bigint PRIMARY KEY REFERENCES datasets,
                expression text NOT NULL,
                zone text NOT NULL,
                is_on boolean NOT NULL,
                considered_at timestamptz NOT NULL,
                user_id bigint NOT NULL REFERENCES users,
                updated_at timestamptz NOT NULL
            )
            SQL,
            <<<'SQL'
            CREATE TABLE draws (
                id bigserial PRIMARY KEY,
                dataset_id bigint NOT NULL REFERENCES datasets,
                due_at timestamptz,
                state text NOT NULL CHECK (state IN ('drawing', 'reading', 'tallying', 'done', 'failed', 'refused')),
                receipts json NOT NULL,
                run_id bigint REFERENCES runs,
                log json NOT NULL,
                user_id bigint NOT NULL REFERENCES users,
                created_at timestamptz NOT NULL,
                updated_at timestamptz NOT NULL
            )
            SQL,
            // Overlap is refused: of a dataset one is drawn at a time.
            "CREATE UNIQUE INDEX draws_going ON draws (dataset_id) WHERE state IN ('drawing', 'reading', 'tallying')",
            'CREATE INDEX draws_dataset ON draws (dataset_id, id DESC)',
        ];
    }

    protected function rights(): array
    {
        return [
            'connections' => 'SELECT, INSERT, UPDATE, DELETE',
            'schedules' => 'SELECT, INSERT, UPDATE, DELETE',
            'draws' => 'SELECT, INSERT, UPDATE',
        ];
    }
};
