<?php

declare(strict_types=1);

use Database\Schema\Concept;

/** What people are told of without having asked, and how each of them wants to be told. */
return new class () extends Concept {
    protected function definitions(): array
    {
        $kinds = "('tally-done', 'limit-failed', 'new-patterns', 'new-repeats', 'draw-failed', 'sign-off-returned')";

        return [
            <<<SQL
            CREATE TABLE notices (
                id bigserial PRIMARY KEY,
                kind text NOT NULL CHECK (kind IN {$kinds}),
                dataset_id bigint NOT NULL REFERENCES datasets,
                tally_id bigint REFERENCES tallies,
                said text NOT NULL,
                link text NOT NULL,
                created_at timestamptz NOT NULL
            )
            SQL,
            'CREATE INDEX notices_dataset ON notices (dataset_id, id DESC)',
            // Of a tally everything is told once, whoever is asked to again.
            "CREATE UNIQUE INDEX notices_tally ON notices (tally_id, kind) WHERE tally_id IS NOT NULL AND kind <> 'sign-off-returned'",
            <<<SQL
            CREATE TABLE notice_choices (
                user_id bigint NOT NULL REFERENCES users,
                kind text NOT NULL CHECK (kind IN {$kinds}),
                in_application boolean NOT NULL,
                by_mail boolean NOT NULL,
                PRIMARY KEY (user_id, kind)
            )
            SQL,
            <<<'SQL'
            CREATE TABLE webhooks (
                id bigserial PRIMARY KEY,
                migration_id bigint NOT NULL REFERENCES migrations,
                url text NOT NULL,
                kinds json NOT NULL,
                secret text NOT NULL,
                user_id bigint NOT NULL REFERENCES users,
                created_at timestamptz NOT NULL
            )
            SQL,
            <<<'SQL'
            CREATE TABLE webhook_attempts (
                id bigserial PRIMARY KEY,
                webhook_id bigint NOT NULL REFERENCES webhooks ON DELETE CASCADE,
                notice_id bigint NOT NULL REFERENCES notices,
                said text NOT NULL,
                is_taken boolean NOT NULL,
                created_at timestamptz NOT NULL
            )
            SQL,
            'CREATE INDEX webhook_attempts_webhook ON webhook_attempts (webhook_id, id DESC)',
        ];
    }

    protected function rights(): array
    {
        return [
            'notices' => 'SELECT, INSERT',
            'notice_choices' => 'SELECT, INSERT, UPDATE',
            'webhooks' => 'SELECT, INSERT, UPDATE, DELETE',
            'webhook_attempts' => 'SELECT, INSERT, DELETE',
        ];
    }
};
