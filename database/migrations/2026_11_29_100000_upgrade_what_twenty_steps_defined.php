<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\File;
use Illuminate\Support\Facades\Schema;
use NineTally\Core\Plan\PlanUpgrade;

/**
 * The definitions that follow stand for twenty steps that led to them. An installation that went all of these steps has the same tables
 * under
 * some other names; it is brought here, with all that it holds. On a new one there is nothing to do.
 */
return new class () extends Migration {
    private const LAST_STEP = '2026_11_29_000020_call_tasks_tasks';

    /**
     * Jobs that hold objects whose classes or properties have other names now. What waits for one of the others is queued again by the
     * watch.
     */
    private const JOBS_OF_OLD = 'ShapeDelivery|WriteShapedSide|DeliveryTerms|SideRules';

    public function up(): void
    {
        if (! Schema::hasTable('users')) {
            return;
        }
        if (DB::table('schema_changes')->where('migration', self::LAST_STEP)->doesntExist()) {
            throw new RuntimeException(
                'This installation is older than the version of 29 November 2026. Start that version once on it (commit 4816874), then '.
                    'this one.',
            );
        }
        foreach ($this->renamings() as $statement) {
            DB::statement($statement);
        }
        $this->rewrite('tallies', 'id', 'summary', $this->summary(...));
        $this->rewrite('receipts', 'id', 'taking', $this->terms(...));
        $this->rewrite('plan_drafts', 'dataset_id', 'document', PlanUpgrade::toCurrent(...));
        // What was found out is found out again, in the words of today; the sides are prepared again when they are asked for.
        DB::table('answers')->delete();
        DB::table('jobs')
            ->whereRaw('payload ~ ?', [self::JOBS_OF_OLD])
            ->delete();
        DB::table('workbooks')
            ->where('state', 'asked')
            ->update(['state' => 'failed', 'problem' => 'Nine Tally was upgraded while the workbook was written. Ask for it again.']);
        DB::table('schema_changes')->where('migration', '<=', self::LAST_STEP)->delete();
        File::deleteDirectory(storage_path('shaped'));
    }

    /** @return list<string> */
    private function renamings(): array
    {
        $callable = [
            'attach_findings(bigint)', 'drop_findings(bigint)', 'index_findings(bigint, integer)', 'open_findings(bigint)',
            'held_by_key_index(regclass)', 'key_cell(text, integer)', 'quoted_key_cell(text, integer)',
        ];

        return [
            'ALTER TABLE plan_templates RENAME TO starting_plans',
            'ALTER SEQUENCE plan_templates_id_seq RENAME TO starting_plans_id_seq',
            'ALTER TABLE deliveries RENAME COLUMN origin_column TO part_label_column',
            'ALTER TABLE delivery_parts RENAME COLUMN origin TO part_label',
            'ALTER TABLE receipts VALIDATE CONSTRAINT receipts_state_check',
            // Backups that hold an index on parts of a key can be restored since their functions are bound where they are defined.
            <<<'SQL'
            CREATE OR REPLACE FUNCTION quoted_key_cell(key text, place integer) RETURNS text
                LANGUAGE sql IMMUTABLE STRICT PARALLEL SAFE
                RETURN (
                    SELECT CASE WHEN cell[1] LIKE '"%' THEN replace(substr(cell[1], 2, length(cell[1]) - 2), '""', '"') ELSE cell[1] END
                    FROM regexp_matches(key, '(?:^|,)("(?:[^"]|"")*"|[^,"]*)', 'g') WITH ORDINALITY AS cells (cell, nth) WHERE nth = place
                )
            SQL,
            <<<'SQL'
            CREATE OR REPLACE FUNCTION key_cell(key text, place integer) RETURNS text
                LANGUAGE sql IMMUTABLE PARALLEL SAFE
                RETURN CASE WHEN strpos(key, '"') = 0 THEN split_part(key, ',', place) ELSE quoted_key_cell(key, place) END
            SQL,
            ...array_map(static fn(string $function): string => "REVOKE ALL ON FUNCTION {$function} FROM PUBLIC", $callable),
            ...array_map(static fn(string $function): string => "GRANT EXECUTE ON FUNCTION {$function} TO tally_app", $callable),
        ];
    }

    /** @param \Closure(\stdClass): void $change */
    private function rewrite(string $table, string $key, string $column, Closure $change): void
    {
        /** @var object{key: int|string, document: string} $row */
        foreach (DB::table($table)->whereNotNull($column)->get(["{$key} as key", "{$column} as document"]) as $row) {
            $document = json_decode($row->document, false, 512, JSON_THROW_ON_ERROR);
            if ($document instanceof \stdClass) {
                $change($document);
                $written = json_encode(
                    $document,
                    JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_PRESERVE_ZERO_FRACTION,
                );
                DB::table($table)
                    ->where($key, $row->key)
                    ->update([$column => $written]);
            }
        }
    }

    private function summary(stdClass $summary): void
    {
        $this->call($summary, ['measures' => 'figures']);
        $steps = (array) ($summary->steps ?? []);
        foreach ([$summary->rows ?? [], $summary->references ?? [], $steps['source'] ?? [], $steps['target'] ?? []] as $list) {
            foreach ((array) $list as $figures) {
                if ($figures instanceof \stdClass) {
                    $this->call($figures, ['merged' => 'condensed', 'shaped' => 'prepared']);
                }
            }
        }
    }

    private function terms(stdClass $taking): void
    {
        if (($taking->terms ?? null) instanceof \stdClass) {
            $this->call($taking->terms, ['origins' => 'partLabels', 'originColumn' => 'partLabelColumn']);
        }
    }

    /**
     * Other names in the same order.
     *
     * @param  array<string, string>  $names  old => new
     */
    private function call(stdClass $object, array $names): void
    {
        foreach (get_object_vars($object) as $name => $value) {
            unset($object->{$name});
            $object->{$names[$name] ?? $name} = $value;
        }
    }
};
