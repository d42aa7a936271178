<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/**
 * What is known of a row is kept as facts and no longer as a sentence, so that it can be filtered, counted, masked and said in other words.
 * Sentences of earlier tallies are read once, here: their wordings are known. Identities keep 16 of their 32 bytes: of a hundred million
 * findings, two are the same with a probability of 1 to 10^23 (NIST SP 800-107, section 5.1, on truncated hashes).
 */
return new class () extends Migration {
    public function up(): void
    {
        foreach ($this->statements() as $statement) {
            DB::statement($statement);
        }
    }

    /** @return list<string> */
    private function statements(): array
    {
        return [
            <<<'SQL'
            CREATE FUNCTION pg_temp.facts_of_refusal(said text) RETURNS json LANGUAGE sql IMMUTABLE AS $$
                SELECT json_strip_nulls(json_build_object(
                    'cells', substring(said FROM '^([0-9]+) cells where the header has')::bigint,
                    'columns', substring(said FROM 'cells where the header has ([0-9]+)')::bigint,
                    'encoding', substring(said FROM '^bytes that are not (.+) text$'),
                    'limit', replace(substring(said FROM 'longer than the row limit of ([0-9,]+) bytes'), ',', '')::bigint,
                    'error', substring(said FROM '^is no JSON object: (.*)$'),
                    'lines', replace(coalesce(substring(said FROM 'holds together over ([0-9,]+) lines'), substring(said FROM 'all ([0-9,]+) lines to the end of the file')), ',', '')::bigint))
            $$
            SQL,
            <<<'SQL'
            CREATE FUNCTION pg_temp.reason_of_refusal(said text) RETURNS text LANGUAGE sql IMMUTABLE AS $$
                SELECT CASE
                    WHEN said LIKE '%cells where the header has%' THEN 'wrong-number-of-cells'
                    WHEN said LIKE 'bytes that are not%' THEN 'undecodable-bytes'
                    WHEN said LIKE 'text follows a closing quote%' THEN 'text-after-quote'
                    WHEN said LIKE 'longer than the row limit%' THEN 'over-row-limit'
                    WHEN said LIKE 'is no JSON object%' THEN 'not-an-object'
                    ELSE 'quote-left-open' END
            $$
            SQL,
            'ALTER TABLE row_findings ADD COLUMN reason text, ADD COLUMN reason_facts json, ADD COLUMN kept_line bigint, ADD COLUMN kept_part int, ADD COLUMN is_bridged boolean NOT NULL DEFAULT false, ADD COLUMN ordinal int, ADD COLUMN refusal_facts json, ADD COLUMN refused_text text',
            <<<'SQL'
            UPDATE row_findings SET
                is_bridged = remark = 'Joined by a bridge.',
                kept_line = replace(substring(remark FROM 'the one of line ([0-9,]+)'), ',', '')::bigint,
                kept_part = CASE WHEN remark LIKE '%the one of line%' THEN coalesce(substring(remark FROM 'of part ([0-9]+) was kept')::int, 1) END,
                reason = CASE
                    WHEN remark LIKE '%no column decides between them%' THEN 'undecided'
                    WHEN remark LIKE '%: its key stands there in fewer rows.' THEN 'fewer-rows'
                    WHEN remark LIKE '%: its bridge joined nothing.' THEN 'idle-bridge'
                    WHEN remark LIKE '%: its key was left out there by step %' THEN 'left-out' END,
                reason_facts = CASE WHEN remark LIKE '%: its key was left out there by step %' THEN json_build_object(
                    'step', substring(remark FROM 'left out there by step ([0-9]+)')::bigint,
                    'does', substring(remark FROM 'left out there by step [0-9]+: (.*)\.$')) END
            WHERE remark IS NOT NULL
            SQL,
            <<<'SQL'
            UPDATE row_findings SET
                refusal = pg_temp.reason_of_refusal(split_part(refusal, E'\n', 1)),
                refusal_facts = pg_temp.facts_of_refusal(split_part(refusal, E'\n', 1)),
                refused_text = substr(refusal, strpos(refusal, E'\n') + 1)
            WHERE refusal IS NOT NULL
            SQL,
            'ALTER TABLE row_findings DROP COLUMN remark',
            'ALTER TABLE refused_records ADD COLUMN facts json',
            'UPDATE refused_records SET facts = pg_temp.facts_of_refusal(sentence)',
            'ALTER TABLE refused_records DROP COLUMN sentence',
            'ALTER TABLE row_findings ALTER COLUMN identity TYPE bytea USING substring(identity FROM 1 FOR 16)',
            'ALTER TABLE cell_findings ALTER COLUMN identity TYPE bytea USING substring(identity FROM 1 FOR 16)',
            'UPDATE rulings SET identity = substring(identity FROM 1 FOR 16) WHERE identity IS NOT NULL',
            "UPDATE comments SET subject = left(subject, length('finding:') + 32) WHERE subject LIKE 'finding:%'",
        ];
    }
};
