<?php

declare(strict_types=1);

use Database\Schema\Concept;

/**
 * Who mends a defect and until when: entries beside the act of ruling, of which the newest holds. And corrections that were made of
 * defects: a set
 * never changes, so that each later tally can say of each line whether it was done.
 */
return new class () extends Concept {
    protected function definitions(): array
    {
        return [
            <<<'SQL'
            CREATE TABLE defect_entries (
                id bigserial PRIMARY KEY,
                ruling_id bigint NOT NULL REFERENCES rulings,
                mends text NOT NULL,
                due date,
                user_id bigint NOT NULL REFERENCES users,
                created_at timestamptz NOT NULL
            )
            SQL,
            'CREATE INDEX defect_entries_ruling ON defect_entries (ruling_id, id DESC)',
            <<<'SQL'
            CREATE TABLE correction_sets (
                id bigserial PRIMARY KEY,
                dataset_id bigint NOT NULL REFERENCES datasets,
                tally_id bigint NOT NULL REFERENCES tallies,
                number integer NOT NULL,
                lines integer NOT NULL,
                rulings json NOT NULL,
                user_id bigint NOT NULL REFERENCES users,
                created_at timestamptz NOT NULL,
                UNIQUE (dataset_id, number)
            )
            SQL,
            <<<'SQL'
            CREATE TABLE correction_lines (
                set_id bigint NOT NULL REFERENCES correction_sets,
                number integer NOT NULL,
                action text NOT NULL CHECK (action IN ('add', 'take-out', 'set')),
                ruling_id bigint NOT NULL REFERENCES rulings,
                identity bytea NOT NULL,
                source_key text NOT NULL,
                key json NOT NULL,
                pair_id text,
                "column" text,
                stands text,
                must text,
                "row" json,
                uncertain text NOT NULL,
                PRIMARY KEY (set_id, number)
            )
            SQL,
        ];
    }

    protected function rights(): array
    {
        return [
            'defect_entries' => 'SELECT, INSERT',
            'correction_sets' => 'SELECT, INSERT',
            'correction_lines' => 'SELECT, INSERT',
        ];
    }
};
