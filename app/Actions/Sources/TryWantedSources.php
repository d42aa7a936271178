<?php

declare(strict_types=1);

namespace App\Actions\Sources;

use App\Adapters\Sources\SourceDatabase;
use App\Adapters\Sources\SourceProblem;
use App\Adapters\Sources\Sources;
use App\Models\Dataset;
use App\Models\PlanDraft;
use App\Models\WantedSources;
use NineTally\Core\Row\Side;

/** A few rows of both sides, from connections that were chosen for those that an imported plan names; and whether its pairs are there. */
final readonly class TryWantedSources
{
    private const ROWS = 20;

    public function __construct(private Sources $sources) {}

    /**
     * @param  array<string, string>  $chosen  connections here, by side and name in the plan with a blank between
     * @return array{sides: array<string, array{columns: list<string>, rows: list<list<string|null>>, problem: string|null}>,
     *     pairs: list<array{source: string, target: string, isKey: bool, isThere: bool}>}
     */
    public function __invoke(Dataset $dataset, WantedSources $wanted, array $chosen): array
    {
        $sides = [];
        foreach (Side::cases() as $side) {
            $part = $wanted->drawn[$side->value][0] ?? null;
            if ($part !== null) {
                $name = $chosen["{$side->value} {$part['connection']}"] ?? $part['connection'];
                try {
                    $sides[$side->value] = $this->rows($dataset, $name, $part['query'], $part['values'] ?? []) + ['problem' => null];
                } catch (SourceProblem|\NineTally\Core\Intake\UnreadableFile $problem) {
                    $sides[$side->value] = ['columns' => [], 'rows' => [], 'problem' => $problem->getMessage()];
                }
            }
        }
        $draft = $dataset->draft()->first();

        return ['sides' => $sides, 'pairs' => $draft === null ? [] : $this->pairs($draft, $sides)];
    }

    /**
     * @param  array<string, string>  $values
     * @return array{columns: list<string>, rows: list<list<string|null>>}
     */
    private function rows(Dataset $dataset, string $name, string $query, array $values): array
    {
        $source = $this->sources->of($dataset->migration, $name);
        if (! $source instanceof SourceDatabase) {
            throw new SourceProblem("{$name} is no database: what it gives is seen when it is drawn.");
        }
        // A page waits for it, and no process can be begun there.
        $rows = $source->look(rtrim(trim($source->bound($query, $values)), ';'), self::ROWS);

        return ['columns' => array_map(strval(...), array_keys($rows[0] ?? [])), 'rows' => array_map(array_values(...), $rows)];
    }

    /**
     * @param  array<string, array{columns: list<string>, ...}>  $sides
     * @return list<array{source: string, target: string, isKey: bool, isThere: bool}>
     */
    private function pairs(PlanDraft $draft, array $sides): array
    {
        $plan = PlanDraft::planOf($draft->document);
        $pairs = [];
        foreach (['key' => $plan->key, 'pair' => $plan->columnPairs] as $kind => $columns) {
            foreach ($columns as $pair) {
                $isThere = true;
                foreach (Side::cases() as $side) {
                    $delivered = $sides[$side->value]['columns'] ?? [];
                    // What steps make is not there before they have run.
                    $isMade = ! $plan->side($side)->preparation->isEmpty();
                    $isThere =
                        $isThere &&
                        ($delivered === [] ||
                            $isMade ||
                            in_array($side === Side::Source ? $pair->source : $pair->target, $delivered, true));
                }
                $pairs[] = ['source' => $pair->source, 'target' => $pair->target, 'isKey' => $kind === 'key', 'isThere' => $isThere];
            }
        }

        return $pairs;
    }
}
