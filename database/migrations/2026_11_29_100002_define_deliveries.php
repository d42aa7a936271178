<?php

declare(strict_types=1);

use Database\Schema\Concept;

/** What both sides handed over, and files on their way to become a part. A delivery is entered once and never overwritten. */
return new class () extends Concept {
    protected function definitions(): array
    {
        return [
            <<<'SQL'
            CREATE TABLE receipts (
                id uuid PRIMARY KEY,
                dataset_id bigint NOT NULL REFERENCES datasets,
                side text NOT NULL CHECK (side IN ('source', 'target')),
                file_name text NOT NULL,
                bytes bigint NOT NULL,
                received_bytes bigint NOT NULL DEFAULT 0,
                state text NOT NULL CHECK (state IN ('receiving', 'received', 'reading', 'delivered', 'refused', 'unpacked')),
                found json,
                format json,
                problem text,
                digest char(64),
                records_read bigint NOT NULL DEFAULT 0,
                delivery_id bigint,
                user_id bigint NOT NULL REFERENCES users,
                created_at timestamptz(0),
                updated_at timestamptz(0),
                taking json,
                packed_in json,
                query json,
                unpacked_into json
            )
            SQL,
            'CREATE INDEX receipts_dataset_id_state_index ON receipts (dataset_id, state)',
            <<<'SQL'
            CREATE TABLE deliveries (
                id bigserial PRIMARY KEY,
                dataset_id bigint NOT NULL REFERENCES datasets,
                side text NOT NULL CHECK (side IN ('source', 'target')),
                number integer NOT NULL,
                file_name text NOT NULL,
                digest char(64) NOT NULL,
                bytes bigint NOT NULL,
                format json NOT NULL,
                columns json NOT NULL,
                read_count bigint NOT NULL,
                refused_count bigint NOT NULL,
                delivered_count bigint NOT NULL,
                user_id bigint NOT NULL REFERENCES users,
                delivered_at timestamptz NOT NULL,
                part_label_column text,
                as_of timestamptz,
                rows_claimed bigint,
                claims json NOT NULL DEFAULT '[]',
                CHECK (read_count = (refused_count + delivered_count)),
                UNIQUE (dataset_id, side, number)
            )
            SQL,
            <<<'SQL'
            CREATE TABLE delivery_parts (
                delivery_id bigint NOT NULL REFERENCES deliveries,
                number integer NOT NULL,
                file_name text NOT NULL,
                part_label text NOT NULL,
                digest char(64) NOT NULL,
                bytes bigint NOT NULL,
                format json NOT NULL,
                columns json NOT NULL,
                read_count bigint NOT NULL,
                refused_count bigint NOT NULL,
                delivered_count bigint NOT NULL,
                packed_in json,
                query json,
                line_ends json,
                CHECK (read_count = (refused_count + delivered_count)),
                PRIMARY KEY (delivery_id, number)
            )
            SQL,
            <<<'SQL'
            CREATE TABLE refused_records (
                delivery_id bigint NOT NULL REFERENCES deliveries,
                number bigint NOT NULL,
                line bigint NOT NULL,
                reason text NOT NULL,
                raw text NOT NULL,
                part integer NOT NULL DEFAULT 1,
                facts json,
                PRIMARY KEY (delivery_id, number)
            )
            SQL,
            // Computed once by a worker, and again if it is gone.
            <<<'SQL'
            CREATE TABLE delivery_profiles (
                delivery_id bigint PRIMARY KEY REFERENCES deliveries,
                columns json,
                problem text,
                created_at timestamptz NOT NULL
            )
            SQL,
            <<<'SQL'
            CREATE TABLE claim_explanations (
                id bigserial PRIMARY KEY,
                delivery_id bigint NOT NULL REFERENCES deliveries,
                claim integer NOT NULL,
                explanation text NOT NULL,
                user_id bigint NOT NULL REFERENCES users,
                explained_at timestamptz NOT NULL
            )
            SQL,
            'CREATE INDEX claim_explanations_delivery_id_idx ON claim_explanations (delivery_id)',
        ];
    }

    protected function rights(): array
    {
        return [
            'receipts' => 'SELECT, INSERT, DELETE, UPDATE',
            'deliveries' => 'SELECT, INSERT',
            'delivery_parts' => 'SELECT, INSERT',
            'refused_records' => 'SELECT, INSERT',
            'delivery_profiles' => 'SELECT, INSERT, DELETE, UPDATE',
            'claim_explanations' => 'SELECT, INSERT',
        ];
    }
};
