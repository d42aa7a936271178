<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/**
 * What stands for 240 findings of a group is one row instead of as many, and so are those that an act covers: see decision 21. Both
 * tables are rewritten with what they held.
 */
return new class () extends Migration {
    public function up(): void
    {
        foreach ($this->definitions() as $definition) {
            DB::statement($definition);
        }
    }

    /** @return list<string> */
    private function definitions(): array
    {
        return [
            'ALTER TABLE standings RENAME TO single_standings',
            'ALTER TABLE ruling_members RENAME TO packed_members',
            <<<'SQL'
            CREATE TABLE standings (
                tally_id bigint NOT NULL,
                "group" text NOT NULL,
                pattern_number int GENERATED ALWAYS AS (CASE WHEN starts_with("group", 'pattern:') THEN split_part("group", ':', 2)::int END) STORED,
                class text GENERATED ALWAYS AS (CASE WHEN starts_with("group", 'class:') THEN split_part("group", ':', 2) END) STORED,
                block bigint NOT NULL,
                acts bigint[] NOT NULL,
                decisions text[] NOT NULL,
                marks bytea NOT NULL,
                decided bytea NOT NULL,
                CONSTRAINT standings_blocks_pkey PRIMARY KEY (tally_id, "group", block)
            )
            SQL,
            <<<'SQL'
            CREATE TABLE ruling_members (
                ruling_id bigint NOT NULL,
                "group" text NOT NULL,
                block bigint NOT NULL,
                places bytea NOT NULL,
                CONSTRAINT ruling_blocks_pkey PRIMARY KEY (ruling_id, "group", block)
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
            CREATE TEMPORARY VIEW numbered AS
                SELECT tally_id, 'pattern:' || pattern_number AS "group", sequence, (pattern_ordinal - 1) / 240 AS block, ((pattern_ordinal - 1) % 240)::int AS place FROM cell_findings
                UNION ALL
                SELECT tally_id, 'class:' || class, sequence, (class_ordinal - 1) / 240, ((class_ordinal - 1) % 240)::int FROM row_findings
            SQL,
            <<<'SQL'
            INSERT INTO standings (tally_id, "group", block, acts, decisions, marks, decided)
            WITH placed AS (
                SELECT s.tally_id, s."group", n.block, n.place, s.ruling_id, s.decision, dense_rank() OVER (PARTITION BY s.tally_id, s."group", n.block ORDER BY s.ruling_id)::int AS mark
                FROM single_standings s JOIN numbered n ON n.tally_id = s.tally_id AND n."group" = s."group" AND n.sequence = s.sequence
            ), marked AS (
                SELECT tally_id, "group", block, jsonb_object_agg(place, mark) AS marks, jsonb_object_agg(place, array_position(ARRAY['expected', 'defect', 'ask'], decision)) AS decided FROM placed GROUP BY 1, 2, 3
            ), acts AS (
                SELECT tally_id, "group", block, array_agg(ruling_id ORDER BY mark) AS acts, array_agg(decision ORDER BY mark) AS decisions
                FROM (SELECT DISTINCT tally_id, "group", block, mark, ruling_id, decision FROM placed) each_act GROUP BY 1, 2, 3
            )
            SELECT a.tally_id, a."group", a.block, a.acts, a.decisions,
                (SELECT decode(string_agg(lpad(to_hex(coalesce((m.marks->>place::text)::int, 0)), 2, '0'), '' ORDER BY place), 'hex') FROM generate_series(0, 239) place),
                (SELECT decode(string_agg(lpad(to_hex(coalesce((m.decided->>place::text)::int, 0)), 2, '0'), '' ORDER BY place), 'hex') FROM generate_series(0, 239) place)
            FROM acts a JOIN marked m USING (tally_id, "group", block)
            SQL,
            <<<'SQL'
            INSERT INTO ruling_members
            SELECT m.ruling_id, m."group", n.block, decode(string_agg(lpad(to_hex(n.place), 2, '0'), '' ORDER BY n.place), 'hex')
            FROM (SELECT ruling_id, "group", unnest(sequences) AS sequence FROM packed_members) m
            JOIN rulings a ON a.id = m.ruling_id
            JOIN numbered n ON n.tally_id = a.tally_id AND n."group" = m."group" AND n.sequence = m.sequence
            GROUP BY 1, 2, 3
            SQL,
            // To find the blocks of findings without writing out the name of their group.
            'CREATE INDEX ON standings (tally_id, pattern_number, block) WHERE pattern_number IS NOT NULL',
            'CREATE INDEX ON standings (tally_id, class, block) WHERE class IS NOT NULL',
            'INSERT INTO standing_acts SELECT tally_id, ruling_id, count(*) FROM single_standings GROUP BY 1, 2',
            'DROP VIEW numbered',
            'DROP TABLE single_standings, packed_members',
            // A line for each finding that an act stands for. Who wants those of one act or decision says so of the block too: then no other is taken apart.
            <<<'SQL'
            CREATE VIEW standing_findings AS
                SELECT s.tally_id, s."group", s.pattern_number, s.class, s.block * 240 + n.place + 1 AS ordinal, s.acts[get_byte(s.marks, n.place)] AS ruling_id, s.decisions[get_byte(s.marks, n.place)] AS decision,
                    s.acts AS acts_of_block, s.decisions AS decisions_of_block
                FROM standings s CROSS JOIN LATERAL generate_series(0, 239) n (place) WHERE get_byte(s.marks, n.place) > 0
            SQL,
            'GRANT SELECT, INSERT, UPDATE, DELETE ON standings, standing_acts TO tally_app',
            'GRANT SELECT, INSERT ON ruling_members TO tally_app',
            'GRANT SELECT ON standing_findings TO tally_app',
            // In which rows the findings of each group stand, a hundred thousand rows at a time: the two numbers of two bytes have the lower byte first.
            <<<'SQL'
            CREATE TABLE group_places (
                tally_id bigint NOT NULL REFERENCES tallies,
                part int NOT NULL,
                "group" text NOT NULL,
                findings bytea NOT NULL,
                rows bytea NOT NULL,
                PRIMARY KEY (tally_id, part, "group")
            )
            SQL,
            <<<'SQL'
            INSERT INTO group_places
            WITH placed AS (
                SELECT tally_id, 'pattern:' || pattern_number AS "group", row_sequence, sequence FROM cell_findings
                UNION ALL
                SELECT tally_id, 'class:' || class, sequence, sequence FROM row_findings
            ), stretches AS (
                SELECT tally_id, "group", row_sequence / 1000 AS stretch, count(*)::int AS findings,
                    string_agg(set_byte(set_byte('\x0000', 0, (row_sequence % 1000)::int & 255), 1, (row_sequence % 1000)::int >> 8), ''::bytea ORDER BY sequence) AS rows
                FROM placed GROUP BY 1, 2, 3
            ), parts AS (
                SELECT DISTINCT tally_id, "group", stretch / 100 AS part FROM stretches
            )
            SELECT p.tally_id, p.part, p."group",
                string_agg(set_byte(set_byte('\x0000', 0, coalesce(s.findings, 0) & 255), 1, coalesce(s.findings, 0) >> 8), ''::bytea ORDER BY n),
                string_agg(s.rows, ''::bytea ORDER BY n)
            FROM parts p CROSS JOIN generate_series(0, 99) n LEFT JOIN stretches s ON s.tally_id = p.tally_id AND s."group" = p."group" AND s.stretch = p.part * 100 + n
            GROUP BY 1, 2, 3
            SQL,
            'GRANT SELECT, INSERT ON group_places TO tally_app',
            // Found again when they are asked for: where their findings stand is kept in another way.
            'DELETE FROM counted_filters',
        ];
    }
};
