<?php

declare(strict_types=1);

namespace App\Questions;

use App\Adapters\Database\DatabaseRow;
use App\Models\Tally;
use Illuminate\Database\Connection;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Plan\SideRules;
use NineTally\Core\Row\Side;

/**
 * What became of the findings of one tally in a later one of the same dataset: a finding is known by its identity. Neither tally ever
 * changes, so it is found out once.
 */
final readonly class TallyDiff implements Question
{
    private const EXAMPLES = 20;

    /** Where findings of each kind stand, what they are told apart by, and when their values are the same. */
    private const KINDS = [
        'cells' => ['cell_findings', '', 'pattern_number', 'n.source_value = o.source_value AND n.target_value = o.target_value'],
        'rows' => [
            'row_findings',
            "AND class <> 'changed'",
            'class',
            'n.source_cells::text IS NOT DISTINCT FROM o.source_cells::text AND n.target_cells::text IS NOT DISTINCT '.
                'FROM o.target_cells::text',
        ],
    ];

    public function __construct(private int $earlier, private int $later) {}

    public function kind(): string
    {
        return 'what-became-of-patterns';
    }

    public function about(): array
    {
        return [$this->earlier, $this->later];
    }

    public function answer(QuestionContext $material, \Closure $onProgress): array
    {
        $earlier = Tally::query()->with('planVersion')->findOrFail($this->earlier);
        $later = Tally::query()->with('planVersion')->findOrFail($this->later);
        [$planBefore, $planNow] = [$earlier->planVersion->plan(), $later->planVersion->plan()];
        if ($planBefore->keyDefinition() !== $planNow->keyDefinition()) {
            return ['hasOtherKey' => true, 'groups' => [], 'examples' => []];
        }
        $samePlan = $earlier->getAttribute('plan_version_id') === $later->getAttribute('plan_version_id');
        $sameData =
            $earlier->getAttribute('source_delivery_id') === $later->getAttribute('source_delivery_id') &&
            $earlier->getAttribute('target_delivery_id') === $later->getAttribute('target_delivery_id');
        $onlyBy = $samePlan ? 'data' : ($sameData ? 'plan' : null);
        $passed = $onlyBy === null ? (new SettledCells($material->database))->letPassBy($planNow, $this->earlier, $this->later) : [];
        // A step, or what is done with repeats, may have settled what no rule lets pass; where these are as they were, only the deliveries
        // can have.
        $rest = $onlyBy ?? ($this->prepareAlike($planBefore, $planNow) ? 'data' : 'either');
        $paired = $planNow->pairedNames(Side::Source);
        $lines = PatternLines::ofTallies($this->earlier, $this->later);
        foreach (array_keys(self::KINDS) as $nth => $kind) {
            $onProgress($nth, 2);
            $this->count($material->database, $kind, $earlier->dataset_id, $earlier->number, $lines);
        }

        return [
            'hasOtherKey' => false,
            'groups' => array_map(static function (PatternLine $line) use ($paired, $passed, $rest): array {
                $isUnpaired = $line->kind === 'cells' && ! in_array($line->column, $paired, true);
                $byPlan = $isUnpaired ? $line->settled : $passed[$line->earlierPattern ?? 0] ?? 0;
                $settledBy = ['data' => 0, 'plan' => $byPlan, 'either' => 0];
                $settledBy[$rest] += $line->settled - $byPlan;

                return $line->toArray() + ['settledBy' => $settledBy];
            }, $lines->all()),
            'examples' => $this->examples($material->database),
        ];
    }

    private function prepareAlike(Plan $before, Plan $now): bool
    {
        $alike = static fn(SideRules $one, SideRules $other): bool => $one->preparation->digest() === $other->preparation->digest() &&
            $one->repeats == $other->repeats;

        return $alike($before->source, $now->source) && $alike($before->target, $now->target);
    }

    /** Each finding of either tally, in the line that it belongs to; one that turned into another belongs to two. */
    private function count(Connection $database, string $kind, int $dataset, int $number, PatternLines $lines): void
    {
        [$table, $where, $group, $isSame] = self::KINDS[$kind];
        $rows = DatabaseRow::all($database, <<<SQL
            WITH o AS (SELECT * FROM {$table} WHERE tally_id = :earlier {$where}), n AS (SELECT * FROM {$table}
                WHERE tally_id = :later {$where}),
            older AS (SELECT DISTINCT f.identity FROM {$table} f JOIN tallies t ON t.id = f.tally_id WHERE t.dataset_id = :dataset
                AND t.number < :number)
            SELECT o.{$group} AS before, n.{$group} AS now, coalesce({$isSame}, false)::int AS same,
                (older.identity IS NOT NULL)::int AS known, count(*) AS findings
            FROM o FULL JOIN n ON n.identity = o.identity LEFT JOIN older ON older.identity = n.identity
            GROUP BY 1, 2, 3, 4
            SQL, ['earlier' => $this->earlier, 'later' => $this->later, 'dataset' => $dataset, 'number' => $number]);
        foreach ($rows as $row) {
            $before = $this->line($lines, $row, 'before', 'earlier', $kind);
            $now = $this->line($lines, $row, 'now', 'later', $kind);
            $findings = $row->int('findings');
            match (true) {
                $now === null => $before === null ? null : ($before->settled += $findings),
                $before === null => $row->int('known') === 1 ? ($now->cameBack += $findings) : ($now->new += $findings),
                $before === $now && $row->int('same') === 1 => ($now->still += $findings),
                default => [$before->otherwiseNow += $findings, $now->otherwiseBefore += $findings],
            };
        }
    }

    /** @param 'earlier'|'later' $tally */
    private function line(PatternLines $lines, DatabaseRow $row, string $name, string $tally, string $kind): ?PatternLine
    {
        if ($kind === 'cells') {
            $pattern = $row->intOrNull($name);

            return $pattern === null ? null : $lines->ofPattern($tally, $pattern);
        }
        $class = $row->textOrNull($name);

        return $class === null ? null : $lines->ofClass($class);
    }

    /**
     * @return list<array{kind: string, what: string, key: string, before: string|null, now: string|null, column: string}> the first of
     *     those that are settled, new, and changed
     */
    private function examples(Connection $database): array
    {
        $examples = [];
        foreach (
            [
                'settled' => 'n.identity IS NULL',
                'new' => 'o.identity IS NULL',
                'changed' => 'o.identity = n.identity AND NOT (n.source_value = o.source_value AND n.target_value = o.target_value)',
            ]
            as $what => $holds
        ) {
            $rows = $database->select(
                <<<SQL
                WITH o AS (SELECT * FROM cell_findings WHERE tally_id = :earlier), n AS (SELECT * FROM cell_findings
                    WHERE tally_id = :later)
                SELECT r.key, p.source_column AS "column", CASE WHEN o.identity IS NOT NULL THEN o.source_value || ' → ' || o.target_value
                    END AS before, CASE WHEN n.identity IS NOT NULL THEN n.source_value || ' → ' || n.target_value END AS now
                FROM o FULL JOIN n ON n.identity = o.identity
                JOIN row_findings r ON r.tally_id = coalesce(n.tally_id, o.tally_id)
                    AND r.sequence = coalesce(n.row_sequence, o.row_sequence)
                JOIN patterns p ON p.tally_id = coalesce(n.tally_id, o.tally_id) AND p.number = coalesce(n.pattern_number, o.pattern_number)
                WHERE {$holds} ORDER BY coalesce(n.sequence, o.sequence) LIMIT :limit
                SQL,
                ['earlier' => $this->earlier, 'later' => $this->later, 'limit' => self::EXAMPLES]
            );
            foreach ($rows as $fields) {
                /** @var \stdClass $fields */
                $row = DatabaseRow::of($fields);
                $examples[] = [
                    'kind' => 'cells',
                    'what' => $what,
                    'key' => $row->textOrNull('key') ?? '',
                    'column' => $row->text('column'),
                    'before' => $row->textOrNull('before'),
                    'now' => $row->textOrNull('now'),
                ];
            }
        }

        return $examples;
    }
}
