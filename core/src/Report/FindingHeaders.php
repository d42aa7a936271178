<?php

declare(strict_types=1);

namespace NineTally\Core\Report;

use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Records\RequiredRecord;
use NineTally\Core\Row\Columns;
use NineTally\Core\Row\Side;

/** Which files the findings of a plan are written to, and what stands in the first line of each. */
final readonly class FindingHeaders
{
    /** Before the cells of a row that a step left out: where it was delivered, which step, and why. */
    public const LEFT_OUT = ['side', 'part', 'line', 'step', 'what the step does', 'reason', 'who answers for it'];

    private const OF_REPEATED = ['side', 'part', 'line', 'kept part', 'kept line', 'decided', 'source rows', 'target rows'];

    /** @var list<string> the source's columns, then those that only the target has */
    public array $unitedNames;

    public function __construct(private Plan $plan, private Columns $source, private Columns $target)
    {
        $this->unitedNames = [
            ...$source->names,
            ...array_values(array_filter($target->names, static fn(string $name): bool => ! $source->has($name))),
        ];
    }

    /** @return array<string, list<string>> by file that rows are written to as they are found */
    public function ofFindings(bool $listsForgiven): array
    {
        return [
            'differences.csv' => $this->ofCells(),
            'missing.csv' => ['part', 'line', 'reason', ...$this->source->names],
            'extra.csv' => ['part', 'line', 'reason', ...$this->target->names],
            'repeated.csv' => [...self::OF_REPEATED, ...$this->unitedNames],
            'unkeyed.csv' => ['side', 'part', 'line', ...$this->unitedNames],
            'refused.csv' => ['side', 'part', 'line', 'reason', 'what is wrong', 'raw'],
            ...$listsForgiven ? ['forgiven.csv' => $this->ofCells()] : [],
        ];
    }

    /** @return array<string, list<string>> by file, in their order */
    public function all(bool $listsForgiven): array
    {
        $all = [];
        foreach ($this->ofFindings($listsForgiven) as $name => $header) {
            $all = [...$all, ...$name === 'refused.csv' ? $this->others() : [], $name => $header];
        }

        return $all;
    }

    /** @return positive-int how many columns name a record at most */
    public function widestRecord(): int
    {
        return max(1, ...array_map(static fn(RequiredRecord $rule): int => count($rule->columns), $this->plan->columnRules->records));
    }

    /** @return array<string, list<string>> by file of what is no finding of a row */
    private function others(): array
    {
        $others = [];
        if (array_filter($this->plan->columnPairs, static fn(ColumnPair $pair): bool => $pair->crosswalk !== []) !== []) {
            $others['without-entry.csv'] = ['source', 'target', 'value', 'cells'];
        }
        if ($this->plan->columnRules->records !== []) {
            $values = array_map(static fn(int $nth): string => "value {$nth}", range(1, $this->widestRecord()));
            $others['without-record.csv'] = ['records of', 'side', 'what it is', 'rows', ...$values];
        }

        return [...$others, 'left-out.csv' => [...self::LEFT_OUT, ...$this->unitedNames]];
    }

    /** @return list<string> */
    private function ofCells(): array
    {
        return [...$this->plan->keyNames(Side::Source), 'column', 'class', 'cause', 'source', 'target', 'difference'];
    }
}
