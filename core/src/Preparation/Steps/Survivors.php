<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Steps;

use NineTally\Core\Cause\CanonicalForm;
use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Intake\Batch;
use NineTally\Core\Preparation\ColumnIndex;
use NineTally\Core\Preparation\Grouping;
use NineTally\Core\Preparation\ReferenceTable;
use NineTally\Core\Preparation\Step;
use NineTally\Core\Preparation\StepContext;
use NineTally\Core\Preparation\UnusableStep;
use NineTally\Core\Value\DeclaredForms;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\NumberStyle;

/**
 * Puts rows together that the migration put together: each row goes into the row that a map calls its survivor, and is counted as
 * condensed. The survivor keeps its own values, but for the columns that say what they must hold then; where the survivor has no row of
 * its own, the first that went into it stands for it. Rows that the map does not name stay as they are, those that share a key too.
 */
final readonly class Survivors implements Step
{
    public const WITHOUT_OWN_ROW = 'survivor without a row of its own';

    public const NOT_HELD = 'not held by the survivor';

    private const OF_NUMBERS = ['sum', 'lowest', 'highest'];

    private const OWN = '';

    private const GONE_INTO = '1';

    /**
     * @param  non-empty-list<string>  $key  columns here
     * @param  array{reference: string, from: non-empty-list<string>, into: non-empty-list<string>}|null  $table  where the map is a
     *     reference: its columns of the key and of the survivor's key, in the order of the key
     * @param  list<array{source: string, target: string}>  $entries  where it stands in the step
     * @param  list<array{column: string, total: string}>  $holds
     * @param  list<string>  $forgives  causes of form, between the map and rows
     */
    public function __construct(
        private array $key,
        private ?array $table,
        private array $entries,
        private array $holds,
        private array $forgives = [],
    ) {}

    /**
     * The key and the table as a step says them by the columns that meet and those that are taken.
     *
     * @param  list<array{column: string, reference: string}>  $on
     * @param  list<array{reference: string, into: string}>  $take
     * @return array{non-empty-list<string>,
     *     array{reference: string, from: non-empty-list<string>, into: non-empty-list<string>}|null}
     *
     * @throws UnusableStep when the survivor's key does not go where the key stands
     */
    public static function keyed(string $column, string $reference, array $on, array $take): array
    {
        if ($reference === '') {
            return [[$column], null];
        }
        $taken = array_column($take, 'reference', 'into');
        $key = $from = $into = [];
        foreach ($on as ['column' => $name, 'reference' => $there]) {
            [$key[], $from[]] = [$name, $there];
            $into[] = $taken[$name] ?? throw UnusableStep::because(sprintf(
                'Nothing of the survivor\'s key goes into "%s". Say for each column of the key where the reference has it.',
                $name,
            ));
        }

        return $key === []
            ? throw UnusableStep::because(
                sprintf('Say which columns of the key are which of the old key in "%s", and where it has the new one.', $reference),
            )
            : [$key, ['reference' => $reference, 'from' => $from, 'into' => $into]];
    }

    public function columns(array $columns): array
    {
        ColumnIndex::of($columns)->all([...$this->key, ...array_column($this->holds, 'column')]);
        $twice = array_intersect($this->key, array_column($this->holds, 'column'));
        if ($twice !== []) {
            throw UnusableStep::because(sprintf('"%s" is of the key, which is the survivor\'s.', implode('", "', $twice)));
        }

        return $columns;
    }

    public function sentence(): string
    {
        $holds = array_map(static fn(array $held): string => "{$held['total']} of {$held['column']}", $this->holds);

        return 'Put rows together by '.Words::listed($this->key).' as '.
            match (true) {
                $this->table !== null => "{$this->table['reference']} says",
                count($this->entries) === 1 => '1 entry says',
                default => count($this->entries).' entries say',
            }.
            ($holds === [] ? '' : ', with '.Words::listed($holds));
    }

    public function run(iterable $rows, array $columns, StepContext $context): \Generator
    {
        $key = ColumnIndex::of($columns)->all($this->key);
        $forms = $this->forms($this->key, $context->forms ?? DeclaredForms::none());
        $totals = $this->totals($context);

        return (new Grouping($context->folder))->run(
            self::marked(Words::counted($rows, $context->figures), $key, $forms, $this->map($forms, $context)),
            range(count($columns), count($columns) + count($key) - 1),
            static fn(array $group): array => self::together($group, $columns, $totals, $context),
        );
    }

    /**
     * @param  list<CanonicalForm>  $here
     *
     * @throws UnusableStep
     */
    private function map(array $here, StepContext $context): SurvivorMap
    {
        if ($this->table === null) {
            return SurvivorMap::of($this->written(), $here, $here);
        }
        $table = $context->references->named($this->table['reference']);

        return SurvivorMap::of(
            self::delivered($table, $table->places($this->table['from']), $table->places($this->table['into'])),
            $this->forms($this->table['from'], $table->forms),
            $this->forms($this->table['into'], $table->forms),
        );
    }

    /** @return \Generator<string, array{list<string>, list<string>}> */
    private function written(): \Generator
    {
        foreach ($this->entries as $nth => ['source' => $key, 'target' => $survivor]) {
            yield 'entry '.($nth + 1) => [[$key], [$survivor]];
        }
    }

    /**
     * @param  list<int>  $from
     * @param  list<int>  $into
     * @return \Generator<string, array{list<string>, list<string>}>
     */
    private static function delivered(ReferenceTable $table, array $from, array $into): \Generator
    {
        foreach ($table->rows as $row => $cells) {
            yield $table->placeOf($row) => [
                array_map(static fn(int $place): string => $cells[$place], $from),
                array_map(static fn(int $place): string => $cells[$place], $into),
            ];
        }
    }

    /**
     * @param  list<string>  $columns
     * @return list<CanonicalForm>
     */
    private function forms(array $columns, DeclaredForms $declared): array
    {
        $combination = (new CauseCatalogue)->forms;

        return array_map(
            fn(string $column): CanonicalForm => new CanonicalForm($declared->reading($column, Kind::Text), $this->forgives, $combination),
            $columns,
        );
    }

    /**
     * Each row with the key that it has then, and behind its cells that key as it meets others, and whether the row went into another.
     *
     * @param  iterable<int, list<string>>  $rows
     * @param  list<int>  $key
     * @param  list<CanonicalForm>  $forms
     * @return \Generator<int, list<string>>
     */
    private static function marked(iterable $rows, array $key, array $forms, SurvivorMap $map): \Generator
    {
        foreach ($rows as $packedPlace => $cells) {
            $own = [];
            foreach ($key as $place) {
                $own[] = $cells[$place];
            }
            $canonical = SurvivorMap::canonical($own, $forms);
            $survivor = $map->survivorOf($canonical);
            if ($survivor !== null) {
                foreach ($key as $nth => $place) {
                    $cells[$place] = $survivor[$nth];
                }
                $canonical = SurvivorMap::canonical($survivor, $forms);
            }
            yield $packedPlace => [
                ...array_values($cells),
                ...explode(Batch::CELL_END, $canonical),
                $survivor === null ? self::OWN : self::GONE_INTO,
            ];
        }
    }

    /**
     * @return array<string, TotalOfRows> by column
     *
     * @throws UnusableStep where a number would be written among others that are written in another form
     */
    private function totals(StepContext $context): array
    {
        $totals = [];
        foreach ($this->holds as ['column' => $column, 'total' => $total]) {
            $isOfNumbers = in_array($total, self::OF_NUMBERS, true);
            $reading = $context->reading($column, $isOfNumbers ? Kind::Number : Kind::Text);
            if ($isOfNumbers && $reading->numbers != new NumberStyle) {
                throw UnusableStep::because(sprintf(
                    'The side declares how numbers of "%s" are written, and a %s is written plainly. '.
                    'Read the column as a number in a step before this one.',
                    $column,
                    $total,
                ));
            }
            $totals[$column] = new TotalOfRows($total, $reading, $context->figures);
        }

        return $totals;
    }

    /**
     * @param  list<array{int, int, list<string>}>  $group  rows that have one key then, each marked
     * @param  list<string>  $columns
     * @param  array<string, TotalOfRows>  $totals
     * @return list<array{int, int, list<string>}>
     */
    private static function together(array $group, array $columns, array $totals, StepContext $context): array
    {
        $width = count($columns);
        $rows = $own = $gone = [];
        foreach ($group as $nth => [$number, $packedPlace, $cells]) {
            $rows[$nth] = [$number, $packedPlace, array_slice($cells, 0, $width)];
            $cells[count($cells) - 1] === self::OWN ? $own[] = $nth : $gone[] = $nth;
        }
        if ($gone !== []) {
            $survivor = $own[0] ?? $gone[0];
            if ($own === []) {
                $context->figures->note(self::WITHOUT_OWN_ROW, implode(' + ', array_slice($group[0][2], $width, -1)));
            }
            $joined = array_unique([$survivor, ...$gone]);
            sort($joined);
            [$number, $packedPlace, $cells] = $rows[$survivor];
            $together = array_map(static fn(int $nth): array => $rows[$nth][2], $joined);
            $rows[$survivor] = [$number, $packedPlace, self::held($cells, $together, $columns, $totals, $context)];
            foreach (array_diff($joined, [$survivor]) as $nth) {
                $context->condense($packedPlace, $rows[$nth][1]);
                unset($rows[$nth]);
            }
        }
        $context->figures->out += count($rows);

        return array_values($rows);
    }

    /**
     * @param  list<string>  $survivor
     * @param  list<list<string>>  $joined  rows that are one now, the survivor among them, in their order
     * @param  list<string>  $columns
     * @param  array<string, TotalOfRows>  $totals  by column
     * @return list<string> what the survivor holds
     */
    private static function held(array $survivor, array $joined, array $columns, array $totals, StepContext $context): array
    {
        $held = [];
        foreach ($columns as $place => $column) {
            [$cell, $values] = [$survivor[$place], array_column($joined, $place)];
            $held[] = isset($totals[$column]) ? $totals[$column]->of($values) : $cell;
            if ($held[$place] !== $cell) {
                $context->figures->alter($column);
            }
            $reading = $context->reading($column, Kind::Text);
            foreach (isset($totals[$column]) ? [] : array_diff($values, [$cell]) as $lost) {
                $reading->isBlank($lost) || $context->figures->note(self::NOT_HELD, "{$column}: {$lost}");
            }
        }

        return $held;
    }
}
