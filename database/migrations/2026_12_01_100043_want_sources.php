<?php

declare(strict_types=1);

use Database\Schema\Concept;

/** What an imported plan says of where its rows are drawn from, until somebody has drawn them or wants them no more. */
return new class () extends Concept {
    protected function definitions(): array
    {
        return [
            <<<'SQL'
            CREATE TABLE wanted_sources (
                dataset_id bigint PRIMARY KEY REFERENCES datasets,
                drawn json NOT NULL,
                user_id bigint NOT NULL REFERENCES users,
                updated_at timestamptz NOT NULL
            )
            SQL,
        ];
    }

    protected function rights(): array
    {
        return ['wanted_sources' => 'SELECT, INSERT, UPDATE, DELETE'];
    }
};
