<?php

declare(strict_types=1);

use Database\Schema\Concept;

/** What workers are asked for. */
return new class () extends Concept {
    protected function definitions(): array
    {
        return [
            <<<'SQL'
            CREATE TABLE jobs (
                id bigserial PRIMARY KEY,
                queue varchar(255) NOT NULL,
                payload text NOT NULL,
                attempts smallint NOT NULL,
                reserved_at integer,
                available_at integer NOT NULL,
                created_at integer NOT NULL
            )
            SQL,
            'CREATE INDEX jobs_queue_index ON jobs (queue)',
        ];
    }

    protected function rights(): array
    {
        return [
            'jobs' => 'SELECT, INSERT, DELETE, UPDATE',
        ];
    }
};
