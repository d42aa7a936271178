<?php

declare(strict_types=1);

use Database\Schema\Concept;

/** Acts of ruling are entered once; what stands because of them is a projection. */
return new class () extends Concept {
    protected function definitions(): array
    {
        return [
            <<<'SQL'
            CREATE TABLE rulings (
                id bigserial PRIMARY KEY,
                dataset_id bigint NOT NULL REFERENCES datasets,
                tally_id bigint NOT NULL REFERENCES tallies,
                scope text NOT NULL CHECK (scope IN ('row', 'cell', 'pattern', 'class', 'selection', 'filter', 'undo')),
                sequence bigint,
                identity bytea,
                pattern_number integer,
                row_class text,
                filter json,
                undoes_id bigint UNIQUE REFERENCES rulings,
                decision text CHECK (decision IN ('expected', 'defect', 'ask', 'open')),
                reason text NOT NULL,
                ticket text,
                asked_id bigint REFERENCES users,
                holds_up_to bigint,
                holds_for json,
                findings bigint NOT NULL,
                user_id bigint NOT NULL REFERENCES users,
                created_at timestamptz NOT NULL,
                CHECK (((scope = 'undo') = (undoes_id IS NOT NULL)) AND ((scope = 'undo') = (decision IS NULL))),
                CHECK ((scope IN ('row', 'cell')) = ((sequence IS NOT NULL) AND (identity IS NOT NULL))),
                CHECK (((scope = 'pattern') = (pattern_number IS NOT NULL)) AND ((scope = 'class') = (row_class IS NOT NULL))),
                CHECK ((scope IN ('selection', 'filter')) = (filter IS NOT NULL)),
                CHECK ((scope = 'pattern') OR ((holds_up_to IS NULL) AND (holds_for IS NULL)))
            )
            SQL,
            'CREATE INDEX rulings_tally ON rulings (tally_id, id)',
            // What an act on a selection or a filter covered, as it stood then. Entered before the act in one transaction, for the act says
            // how many they are: so there is no reference.
            <<<'SQL'
            CREATE TABLE ruling_members (
                ruling_id bigint NOT NULL,
                "group" text NOT NULL,
                block bigint NOT NULL,
                places bytea NOT NULL,
                PRIMARY KEY (ruling_id, "group", block)
            )
            SQL,
            // A projection of the rulings, which can be made again from them: the acts that stand for 240 findings of a group (decision
            // 21).
            <<<'SQL'
            CREATE TABLE standings (
                tally_id bigint NOT NULL,
                "group" text NOT NULL,
                pattern_number integer GENERATED ALWAYS AS (CASE
                    WHEN starts_with("group", 'pattern:') THEN split_part("group", ':', 2)::integer END) STORED,
                class text GENERATED ALWAYS AS (CASE WHEN starts_with("group", 'class:') THEN split_part("group", ':', 2) END) STORED,
                block bigint NOT NULL,
                acts bigint[] NOT NULL,
                decisions text[] NOT NULL,
                marks bytea NOT NULL,
                decided bytea NOT NULL,
                PRIMARY KEY (tally_id, "group", block)
            )
            SQL,
            'CREATE INDEX standings_tally_id_class_block_idx ON standings (tally_id, class, block) WHERE (class IS NOT NULL)',
            'CREATE INDEX standings_tally_id_pattern_number_block_idx ON standings (tally_id, pattern_number, block) WHERE '.
                '(pattern_number IS NOT NULL)',
            <<<'SQL'
            CREATE TABLE standing_counts (
                tally_id bigint NOT NULL REFERENCES tallies,
                "group" text NOT NULL,
                findings bigint NOT NULL,
                expected bigint NOT NULL DEFAULT 0,
                defect bigint NOT NULL DEFAULT 0,
                ask bigint NOT NULL DEFAULT 0,
                PRIMARY KEY (tally_id, "group")
            )
            SQL,
            <<<'SQL'
            CREATE TABLE standing_acts (
                tally_id bigint NOT NULL,
                ruling_id bigint NOT NULL,
                findings bigint NOT NULL,
                PRIMARY KEY (tally_id, ruling_id)
            )
            SQL,
            <<<'SQL'
            CREATE TABLE carry_overs (
                tally_id bigint PRIMARY KEY REFERENCES tallies,
                from_tally_id bigint NOT NULL REFERENCES tallies,
                ruled bigint NOT NULL,
                carried bigint NOT NULL,
                changed bigint NOT NULL,
                has_other_key boolean NOT NULL
            )
            SQL,
            <<<'SQL'
            CREATE TABLE carried_rulings (
                tally_id bigint NOT NULL REFERENCES tallies,
                "group" text NOT NULL,
                sequence bigint NOT NULL,
                ruling_id bigint NOT NULL REFERENCES rulings,
                decision text NOT NULL,
                is_changed boolean NOT NULL,
                is_beyond boolean NOT NULL DEFAULT false,
                from_sequence bigint,
                PRIMARY KEY (tally_id, "group", sequence)
            )
            SQL,
            // A line for each finding that an act stands for. Who wants those of one act or decision says so of the block too: then no
            // other
            // is taken apart.
            <<<'SQL'
            CREATE VIEW standing_findings AS
                SELECT s.tally_id, s."group", s.pattern_number, s.class, s.block * 240 + n.place + 1 AS ordinal,
                    s.acts[get_byte(s.marks, n.place)] AS ruling_id, s.decisions[get_byte(s.marks, n.place)] AS decision,
                    s.acts AS acts_of_block, s.decisions AS decisions_of_block
                FROM standings s CROSS JOIN LATERAL generate_series(0, 239) n (place)
                WHERE get_byte(s.marks, n.place) > 0
            SQL,
        ];
    }

    protected function rights(): array
    {
        return [
            'rulings' => 'SELECT, INSERT',
            'ruling_members' => 'SELECT, INSERT',
            'standings' => 'SELECT, INSERT, DELETE, UPDATE',
            'standing_counts' => 'SELECT, INSERT, DELETE, UPDATE',
            'standing_acts' => 'SELECT, INSERT, DELETE, UPDATE',
            'carry_overs' => 'SELECT, INSERT',
            'carried_rulings' => 'SELECT, INSERT',
            'standing_findings' => 'SELECT',
        ];
    }
};
