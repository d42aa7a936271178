<?php

declare(strict_types=1);

use Database\Schema\Concept;

/** What is made to be taken away. */
return new class () extends Concept {
    protected function definitions(): array
    {
        return [
            <<<'SQL'
            CREATE TABLE report_orders (
                id bigserial PRIMARY KEY,
                tally_id bigint NOT NULL REFERENCES tallies,
                state text NOT NULL CHECK (state IN ('queued', 'printing', 'done', 'failed')),
                problem text,
                report_id bigint,
                user_id bigint NOT NULL REFERENCES users,
                created_at timestamptz NOT NULL
            )
            SQL,
            <<<'SQL'
            CREATE TABLE reports (
                id bigserial PRIMARY KEY,
                tally_id bigint NOT NULL REFERENCES tallies,
                number integer NOT NULL,
                last_ruling_id bigint,
                html_digest char(64) NOT NULL,
                pdf_digest char(64) NOT NULL,
                user_id bigint NOT NULL REFERENCES users,
                created_at timestamptz NOT NULL,
                UNIQUE (tally_id, number)
            )
            SQL,
            <<<'SQL'
            CREATE TABLE workbooks (
                id uuid PRIMARY KEY,
                user_id bigint NOT NULL REFERENCES users,
                name text NOT NULL,
                state text NOT NULL CHECK (state IN ('asked', 'written', 'failed')),
                rows bigint NOT NULL,
                done bigint NOT NULL,
                total bigint NOT NULL,
                problem text,
                created_at timestamptz NOT NULL,
                updated_at timestamptz NOT NULL
            )
            SQL,
            'CREATE INDEX workbooks_person ON workbooks (user_id, created_at)',
        ];
    }

    protected function rights(): array
    {
        return [
            'report_orders' => 'SELECT, INSERT, DELETE, UPDATE',
            'reports' => 'SELECT, INSERT',
            'workbooks' => 'SELECT, INSERT, DELETE, UPDATE',
        ];
    }
};
