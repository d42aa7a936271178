<?php

declare(strict_types=1);

use Database\Schema\Concept;

/** Filters with names, how many findings they have, and what people say to each other about a finding. */
return new class () extends Concept {
    protected function definitions(): array
    {
        return [
            <<<'SQL'
            CREATE TABLE kept_filters (
                id bigserial PRIMARY KEY,
                dataset_id bigint NOT NULL REFERENCES datasets,
                name text NOT NULL,
                filter json NOT NULL,
                user_id bigint NOT NULL REFERENCES users,
                created_at timestamptz NOT NULL,
                UNIQUE (dataset_id, name)
            )
            SQL,
            // How long a filtered list is, and where every so many findings of it stand: counted once for each state of the rulings.
            <<<'SQL'
            CREATE TABLE counted_filters (
                tally_id bigint NOT NULL REFERENCES tallies,
                digest char(64) NOT NULL,
                latest_act bigint NOT NULL,
                findings bigint NOT NULL,
                places json NOT NULL,
                counted_at timestamptz NOT NULL,
                PRIMARY KEY (tally_id, digest, latest_act)
            )
            SQL,
            // A finding is known by its identity, a pattern by what makes it one, so that a comment is found again in tallies to come.
            <<<'SQL'
            CREATE TABLE comments (
                id bigserial PRIMARY KEY,
                dataset_id bigint NOT NULL REFERENCES datasets,
                tally_id bigint NOT NULL REFERENCES tallies,
                subject text NOT NULL,
                place json NOT NULL,
                text text NOT NULL,
                user_id bigint NOT NULL REFERENCES users,
                created_at timestamptz NOT NULL
            )
            SQL,
            'CREATE INDEX comments_subject ON comments (dataset_id, subject, id)',
            <<<'SQL'
            CREATE TABLE comment_mentions (
                comment_id bigint NOT NULL REFERENCES comments,
                user_id bigint NOT NULL REFERENCES users,
                PRIMARY KEY (user_id, comment_id)
            )
            SQL,
        ];
    }

    protected function rights(): array
    {
        return [
            'kept_filters' => 'SELECT, INSERT, DELETE, UPDATE',
            'counted_filters' => 'SELECT, INSERT, DELETE, UPDATE',
            'comments' => 'SELECT, INSERT',
            'comment_mentions' => 'SELECT, INSERT',
        ];
    }
};
