<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/**
 * Content can be purged by a recorded act: what a delivery held, and every copy of it. Hashes, counts, who and when stay. The serving role
 * can neither change nor delete most of these rows, so the owner of the tables does it, for a purge that was entered and for nothing else.
 */
return new class () extends Migration {
    public function up(): void
    {
        foreach (
            [
                <<<'SQL'
                CREATE TABLE purges (
                    id bigserial PRIMARY KEY,
                    migration_id bigint NOT NULL REFERENCES migrations,
                    delivery_id bigint NOT NULL UNIQUE REFERENCES deliveries,
                    reason text NOT NULL CHECK (reason <> ''),
                    was_due boolean NOT NULL,
                    removed json NOT NULL,
                    user_id bigint NOT NULL REFERENCES users,
                    created_at timestamptz NOT NULL
                )
                SQL,
                'CREATE INDEX ON purges (migration_id, id)',
                // Tallies whose content went with a delivery.
                <<<'SQL'
                CREATE TABLE purged_tallies (
                    tally_id bigint PRIMARY KEY REFERENCES tallies,
                    purge_id bigint NOT NULL REFERENCES purges
                )
                SQL,
                // Versions of plans without the values that they held: the digest stays that of what they were.
                <<<'SQL'
                CREATE TABLE purged_plans (
                    plan_version_id bigint PRIMARY KEY REFERENCES plan_versions,
                    purge_id bigint NOT NULL REFERENCES purges,
                    values_removed integer NOT NULL
                )
                SQL,
                'CREATE TABLE purge_ends (purge_id bigint PRIMARY KEY REFERENCES purges, created_at timestamptz NOT NULL)',
                // What a run read: its sides, what it looked up, and the records it held values against.
                <<<'SQL'
                CREATE VIEW run_deliveries AS
                    SELECT id AS run_id, source_delivery_id AS delivery_id, 'side' AS how FROM runs
                    UNION SELECT id, target_delivery_id, 'side' FROM runs
                    UNION SELECT r.id, of.value::bigint, 'reference' FROM runs r, json_each_text(
                        CASE json_typeof(r.reference_deliveries) WHEN 'object' THEN r.reference_deliveries ELSE '{}' END) of
                    UNION SELECT r.id, of.value::bigint, 'records' FROM runs r, json_each(
                        CASE json_typeof(r.record_deliveries) WHEN 'object' THEN r.record_deliveries ELSE '{}' END) named, json_each_text(
                        CASE json_typeof(named.value) WHEN 'object' THEN named.value ELSE '{}' END) of WHERE of.value IS NOT NULL
                SQL,
                'CREATE TABLE removed_packs (pack_id bigint PRIMARY KEY REFERENCES packs, created_at timestamptz NOT NULL)',
                // Everything that bytes are kept for under a digest. A report that was made after a purge holds nothing of what was purged.
                <<<'SQL'
                CREATE VIEW kept_digests AS
                    WITH gone AS (SELECT t.tally_id, p.created_at FROM purged_tallies t JOIN purges p ON p.id = t.purge_id)
                    SELECT digest::text, file_name || ' (delivery ' || delivery_id || ')' AS what, true AS is_stored
                        FROM delivery_parts p
                        WHERE NOT EXISTS (SELECT 1 FROM purges WHERE delivery_id = p.delivery_id)
                    UNION ALL SELECT packed_in->>'digest', packed_in->>'name', true FROM delivery_parts p
                        WHERE packed_in IS NOT NULL AND NOT EXISTS (SELECT 1 FROM purges WHERE delivery_id = p.delivery_id)
                    UNION ALL SELECT digest::text, file_name, state = 'unpacked' FROM receipts
                        WHERE digest IS NOT NULL AND state <> 'refused'
                    UNION ALL SELECT of.digest, 'report ' || r.id, true
                        FROM reports r, unnest(ARRAY[html_digest::text, pdf_digest::text]) of (digest)
                        WHERE NOT EXISTS (SELECT 1 FROM gone WHERE tally_id = r.tally_id AND gone.created_at >= r.created_at)
                    UNION ALL SELECT html_digest, 'report behind link ' || l.id, true FROM report_links l
                        WHERE NOT EXISTS (SELECT 1 FROM gone WHERE tally_id = l.tally_id AND gone.created_at >= l.created_at)
                    UNION ALL SELECT html_digest, 'signed page ' || g.signature_id, true
                        FROM signed_pages g JOIN signatures s ON s.id = g.signature_id
                        WHERE NOT EXISTS (SELECT 1 FROM gone WHERE tally_id = s.tally_id AND gone.created_at >= s.created_at)
                    UNION ALL SELECT digest, 'evidence pack ' || k.id, true FROM packs k
                        WHERE NOT EXISTS (SELECT 1 FROM gone WHERE tally_id = k.tally_id AND gone.created_at >= k.created_at)
                            AND NOT EXISTS (SELECT 1 FROM removed_packs WHERE pack_id = k.id)
                SQL,
                'GRANT SELECT, INSERT ON purges, purged_tallies, purged_plans, purge_ends, removed_packs TO tally_app',
                'GRANT SELECT ON run_deliveries, kept_digests TO tally_app',
                'GRANT USAGE ON SEQUENCE purges_id_seq TO tally_app',
            ] as $statement
        ) {
            DB::statement($statement);
        }
        $this->define('without_examples(json)', <<<'SQL'
            CREATE FUNCTION without_examples(patterns json) RETURNS json
                LANGUAGE sql IMMUTABLE
                RETURN (
                    SELECT coalesce(json_agg((
                        SELECT json_object_agg(key, CASE WHEN key = 'examples' THEN '[]'::json ELSE value END ORDER BY place)
                        FROM json_each(pattern) WITH ORDINALITY AS of_pattern (key, value, place)
                    ) ORDER BY nth), '[]'::json)
                    FROM json_array_elements(patterns) WITH ORDINALITY AS all_of_them (pattern, nth)
                )
            SQL);
        $this->define('purge_delivery(bigint)', <<<'SQL'
            CREATE FUNCTION purge_delivery(purge bigint) RETURNS void
                LANGUAGE plpgsql SECURITY DEFINER
                SET search_path = {schema}, pg_temp
                SET lock_timeout = '20s'
                AS $$ DECLARE purged bigint; tally bigint; BEGIN
                SELECT delivery_id INTO purged FROM purges WHERE id = purge;
                IF NOT FOUND THEN RAISE EXCEPTION 'purge % is not entered', purge; END IF;
                UPDATE refused_records SET raw = '', facts = NULL WHERE delivery_id = purged;
                DELETE FROM delivery_profiles WHERE delivery_id = purged;
                DELETE FROM receipts WHERE delivery_id = purged OR state = 'unpacked' AND digest IN (
                    SELECT packed_in->>'digest' FROM delivery_parts WHERE delivery_id = purged
                    EXCEPT SELECT packed_in->>'digest' FROM delivery_parts p
                        WHERE packed_in IS NOT NULL AND NOT EXISTS (SELECT 1 FROM purges WHERE delivery_id = p.delivery_id)
                );
                -- Who held values against its records has a list of those that nothing refers to, and nothing else of it.
                DELETE FROM record_lines WHERE tally_id IN (
                    SELECT t.id FROM tallies t JOIN run_deliveries u ON u.run_id = t.run_id WHERE u.delivery_id = purged AND how = 'records'
                );
                FOR tally IN SELECT tally_id FROM purged_tallies WHERE purge_id = purge ORDER BY tally_id LOOP
                    EXECUTE format('DROP TABLE IF EXISTS row_findings_%s, cell_findings_%s', tally, tally);
                    UPDATE patterns SET examples = '[]' WHERE tally_id = tally;
                    UPDATE tallies SET summary = (
                        SELECT json_object_agg(key,
                            CASE WHEN key IN ('forgiven', 'keyForgiven') THEN without_examples(value) ELSE value END ORDER BY place)
                        FROM json_each(summary) WITH ORDINALITY AS of_summary (key, value, place)
                    ) WHERE id = tally;
                    DELETE FROM total_groups WHERE tally_id = tally;
                    DELETE FROM record_lines WHERE tally_id = tally;
                    DELETE FROM counted_filters WHERE tally_id = tally;
                    -- Nobody can find a purged key by trying: what it was known by is replaced by what nobody drew from it.
                    UPDATE rulings SET
                        identity = CASE WHEN identity IS NULL THEN NULL ELSE uuid_send(gen_random_uuid()) END,
                        filter = CASE WHEN filter IS NULL THEN NULL ELSE json_build_object('of', coalesce(filter->>'of', 'rows')) END,
                        holds_for = NULL
                    WHERE tally_id = tally;
                    UPDATE comments SET subject = 'purged:' || gen_random_uuid(), place = '{}', text = '' WHERE tally_id = tally;
                    DELETE FROM comment_mentions WHERE comment_id IN (SELECT id FROM comments WHERE tally_id = tally);
                    UPDATE eye_verdicts SET key = '', remark = ''
                        WHERE eye_check_id IN (SELECT id FROM eye_checks WHERE tally_id = tally);
                    DELETE FROM correction_lines WHERE set_id IN (SELECT id FROM correction_sets WHERE tally_id = tally);
                END LOOP;
            END $$
            SQL);
        $this->define('purge_plan(bigint, bigint, text)', <<<'SQL'
            CREATE FUNCTION purge_plan(purge bigint, version bigint, without_values text) RETURNS void
                LANGUAGE plpgsql SECURITY DEFINER
                SET search_path = {schema}, pg_temp
                AS $$ BEGIN
                IF NOT EXISTS (SELECT 1 FROM purged_plans WHERE purge_id = purge AND plan_version_id = version) THEN
                    RAISE EXCEPTION 'purge % does not reach version %', purge, version;
                END IF;
                UPDATE plan_versions SET document = without_values WHERE id = version;
            END $$
            SQL);
    }

    /** Those who serve may call it, and nobody else. */
    private function define(string $signature, string $definition): void
    {
        $schema = DB::scalar('SELECT current_schema()');
        DB::statement(str_replace('{schema}', is_string($schema) ? $schema : 'public', $definition));
        DB::statement("REVOKE ALL ON FUNCTION {$signature} FROM PUBLIC");
        DB::statement("GRANT EXECUTE ON FUNCTION {$signature} TO tally_app");
    }
};
