<?php

declare(strict_types=1);

use Database\Schema\Concept;

/**
 * What a tally is called, such as "Rehearsal 3", and a remark on it. The tally itself never changes: a name is an entry of its own, and the
 * newest one holds. A run may be started under a name already.
 */
return new class () extends Concept {
    protected function definitions(): array
    {
        return [
            'ALTER TABLE runs ADD COLUMN name text',
            <<<'SQL'
            CREATE TABLE tally_names (
                id bigserial PRIMARY KEY,
                tally_id bigint NOT NULL REFERENCES tallies,
                name text NOT NULL,
                remark text NOT NULL DEFAULT '',
                user_id bigint NOT NULL REFERENCES users,
                created_at timestamptz NOT NULL
            )
            SQL,
            'CREATE INDEX tally_names_tally ON tally_names (tally_id, id DESC)',
        ];
    }

    protected function rights(): array
    {
        return ['tally_names' => 'SELECT, INSERT'];
    }
};
