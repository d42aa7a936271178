<?php

declare(strict_types=1);

namespace App\Questions;

use App\Adapters\Database\DatabaseRow;
use App\Models\Pattern;
use App\Models\Tally;
use Illuminate\Database\Connection;
use NineTally\Core\Cause\CauseId;
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

    private const KINDS = [
        'cells' => [
            'cell_findings',
            '',
            'n.source_value = o.source_value AND n.target_value = o.target_value',
            'coalesce(np.source_column, op.source_column)',
            'coalesce(n.cause, o.cause)',
            'LEFT JOIN patterns op ON op.tally_id = o.tally_id AND op.number = o.pattern_number LEFT JOIN patterns np '.
                'ON np.tally_id = n.tally_id AND np.number = n.pattern_number',
        ],
        'rows' => [
            'row_findings',
            "AND class <> 'changed'",
            'n.source_cells::text IS NOT DISTINCT FROM o.source_cells::text AND n.target_cells::text IS NOT DISTINCT '.
                'FROM o.target_cells::text',
            "''",
            'coalesce(n.class, o.class)',
            '',
        ],
    ];

    public function __construct(private int $earlier, private int $later) {}

    public function kind(): string
    {
        return 'what-became-of-findings';
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
        $groups = $examples = [];
        foreach (array_keys(self::KINDS) as $nth => $kind) {
            $onProgress($nth, 2);
            foreach ($this->groups($material->database, $kind, $earlier->dataset_id, $earlier->number) as $group) {
                $isUnpaired = $kind === 'cells' && ! in_array($group['column'], $planNow->pairedNames(Side::Source), true);
                $byPlan = $isUnpaired ? $group['settled'] : ($kind === 'cells' ? $passed["{$group['column']} {$group['cause']}"] ?? 0 : 0);
                $settledBy = ['data' => 0, 'plan' => $byPlan, 'either' => 0];
                $settledBy[$rest] += $group['settled'] - $byPlan;
                $groups[] = $group + ['settledBy' => $settledBy];
            }
            $examples = [...$examples, ...$this->examples($material->database, $kind)];
        }

        return ['hasOtherKey' => false, 'groups' => $groups, 'examples' => $examples];
    }

    private function prepareAlike(Plan $before, Plan $now): bool
    {
        $alike = static fn(SideRules $one, SideRules $other): bool => $one->preparation->digest() === $other->preparation->digest() &&
            $one->repeats == $other->repeats;

        return $alike($before->source, $now->source) && $alike($before->target, $now->target);
    }

    /**
     * @return list<array{kind: string, column: string, cause: string, sentence: string, still: int, changed: int, settled: int, new: int,
     *     cameBack: int}> most of what moved first
     */
    private function groups(Connection $database, string $kind, int $dataset, int $number): array
    {
        [$table, $where, $isSame, $column, $cause, $joins] = self::KINDS[$kind];
        $rows = $database->select(<<<SQL
            WITH o AS (SELECT * FROM {$table} WHERE tally_id = :earlier {$where}), n AS (SELECT * FROM {$table}
                WHERE tally_id = :later {$where}),
            older AS (SELECT DISTINCT f.identity FROM {$table} f JOIN tallies t ON t.id = f.tally_id WHERE t.dataset_id = :dataset
                AND t.number < :number)
            SELECT * FROM (SELECT {$column} AS "column", {$cause} AS cause,
                count(*) FILTER (WHERE o.identity = n.identity AND ({$isSame})) AS still,
                count(*) FILTER (WHERE o.identity = n.identity AND NOT ({$isSame})) AS changed,
                count(*) FILTER (WHERE n.identity IS NULL) AS settled,
                count(*) FILTER (WHERE o.identity IS NULL AND older.identity IS NULL) AS new,
                count(*) FILTER (WHERE o.identity IS NULL AND older.identity IS NOT NULL) AS came_back
            FROM o FULL JOIN n ON n.identity = o.identity LEFT JOIN older ON older.identity = n.identity {$joins}
            GROUP BY 1, 2) counted ORDER BY settled + changed + new + came_back DESC, 1, 2
            SQL, ['earlier' => $this->earlier, 'later' => $this->later, 'dataset' => $dataset, 'number' => $number]);
        $sentences = $this->sentences();
        $groups = [];
        foreach ($rows as $fields) {
            /** @var \stdClass $fields */
            $row = DatabaseRow::of($fields);
            $cause = $row->text('cause');
            $groups[] = [
                'kind' => $kind,
                'column' => $row->text('column'),
                'cause' => $cause,
                'sentence' => $sentences[$row->text('column').' '.$cause] ?? $cause,
                'still' => $row->int('still'),
                'changed' => $row->int('changed'),
                'settled' => $row->int('settled'),
                'new' => $row->int('new'),
                'cameBack' => $row->int('came_back'),
            ];
        }

        return $groups;
    }

    /** @return array<string, string> column and cause => in words, as the largest pattern of either tally has it */
    private function sentences(): array
    {
        $sentences = [];
        foreach (Pattern::query()->whereIn('tally_id', [$this->earlier, $this->later])->orderByDesc('cells')->get() as $pattern) {
            $sentences["{$pattern->source_column} {$pattern->cause}"] ??= CauseId::sentenceFor($pattern->cause, $pattern->facts);
        }

        return $sentences;
    }

    /**
     * @return list<array{kind: string, what: string, key: string, before: string|null, now: string|null, column: string}> the first of
     *     those that are settled, new, and changed
     */
    private function examples(Connection $database, string $kind): array
    {
        if ($kind === 'rows') {
            return [];
        }
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
                    'kind' => $kind,
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
