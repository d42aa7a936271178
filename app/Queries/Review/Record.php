<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Models\Tally;
use NineTally\Core\Cause\Cause;
use NineTally\Core\Cause\ColumnComparison;
use NineTally\Core\Comparison\CellClass;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Plan\KeyColumn;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Side;
use NineTally\Core\Tally\PlanComparisons;

/** The whole record of both sides of one row, field by field: the key, the pairs in the order of the plan, then what is not compared. */
final readonly class Record
{
    /**
     * @param  list<RecordField>  $fields
     * @param  array{source: string|null, target: string|null}  $files  that the row came in, where its delivery has several
     */
    private function __construct(public RulableRow $row, public array $fields, public array $files) {}

    public static function read(FindingPages $pages, Tally $tally, Mask $mask, int $sequence): self
    {
        $row = $pages->row($tally, $mask, $sequence);
        $layout = TallyColumns::ofTally($tally);
        $cells = [];
        foreach ($pages->cellsOfRows($tally, $mask, $sequence, $sequence)[$sequence] ?? [] as $cell) {
            $cells[$cell->finding->pairPosition] = $cell;
        }

        $files = [
            'source' => $layout->file(Side::Source, $row->finding->placeOn(Side::Source)?->part),
            'target' => $layout->file(Side::Target, $row->finding->placeOn(Side::Target)?->part),
        ];

        return new self(
            $row,
            $row->finding->refused === null ? self::fields($layout->plan, $cells, self::values($row->finding, $layout)) : [],
            $files,
        );
    }

    /** @return list<int> the acts that stand for the row or for one of its cells */
    public function rulingIds(): array
    {
        $ids = array_map(static fn(RecordField $field): ?int => $field->finding?->standing->rulingId, $this->fields);

        return array_values(array_unique(array_filter([$this->row->standing->rulingId, ...$ids])));
    }

    /** Of a row that is no finding: nothing in it differs but what a rule lets pass. */
    public static function ofAgreeing(RowFinding $row, TallyColumns $layout): self
    {
        return new self(new RulableRow($row, Standing::open()), self::fields($layout->plan, [], self::values($row, $layout)), [
            'source' => null,
            'target' => null,
        ]);
    }

    /** @return array{source: array<string, string>, target: array<string, string>} */
    private static function values(RowFinding $row, TallyColumns $layout): array
    {
        return [
            'source' => self::byColumn($layout->sourceColumns, $row->source?->cells),
            'target' => self::byColumn($layout->targetColumns, $row->target?->cells),
        ];
    }

    /**
     * @param  array<int, RulableCell>  $cells  by pair position
     * @param  array{source: array<string, string>, target: array<string, string>}  $values
     * @return list<RecordField>
     */
    private static function fields(Plan $plan, array $cells, array $values): array
    {
        $field = static fn(
            string $role,
            ?string $source,
            ?string $target,
            ?RulableCell $finding = null,
            ?\Closure $comparison = null,
        ): RecordField => new RecordField(
            $role,
            $source,
            $target,
            $ofSource = $source === null ? null : $values['source'][$source] ?? null,
            $ofTarget = $target === null ? null : $values['target'][$target] ?? null,
            $finding,
            $finding === null && $comparison !== null ? self::letPass($comparison, $ofSource, $ofTarget) : null,
        );
        $comparisons = new PlanComparisons($plan);
        $notCompared = static fn(Side $side): array => array_diff(
            array_map(strval(...), array_keys($values[$side->value])),
            $plan->keyNames($side),
            $plan->pairedNames($side),
        );

        return [
            ...array_map(static fn(KeyColumn $column): RecordField => $field(
                'key',
                $column->source,
                $column->target,
                comparison: static fn(): ColumnComparison => $comparisons->ofKey($column),
            ), $plan->key),
            ...array_map(
                static fn(ColumnPair $pair, int $position): RecordField => $field(
                    'compared',
                    $pair->source,
                    $pair->target,
                    $cells[$position] ?? null,
                    static fn(): ColumnComparison => $comparisons->ofPair($pair),
                ),
                $plan->columnPairs,
                array_keys($plan->columnPairs),
            ),
            ...array_map(
                static fn(string $name): RecordField => $field('not-compared', $name, null),
                array_values($notCompared(Side::Source)),
            ),
            ...array_map(
                static fn(string $name): RecordField => $field('not-compared', null, $name),
                array_values($notCompared(Side::Target)),
            ),
        ];
    }

    /** @param \Closure(): ColumnComparison $comparison */
    private static function letPass(\Closure $comparison, ?string $source, ?string $target): ?Cause
    {
        // A bridge joins keys that no rule lets pass, and a value that is masked is like any other.
        if ($source === null || $target === null || $source === $target || in_array(Mask::VALUE, [$source, $target], true)) {
            return null;
        }
        $judgement = $comparison()->classify($source, $target);

        return $judgement->class === CellClass::Forgiven ? $judgement->cause : null;
    }

    /**
     * A name that stands twice is shown by its first column.
     *
     * @param  list<string>  $names
     * @param  list<string>|null  $cells
     * @return array<string, string>
     */
    private static function byColumn(array $names, ?array $cells): array
    {
        return $cells === null ? [] : array_combine(array_reverse($names), array_reverse($cells));
    }
}
