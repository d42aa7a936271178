<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Steps;

use NineTally\Core\Cause\CanonicalForm;
use NineTally\Core\Intake\Batch;
use NineTally\Core\Preparation\ColumnIndex;
use NineTally\Core\Preparation\Grouping;
use NineTally\Core\Preparation\Step;
use NineTally\Core\Preparation\StepContext;
use NineTally\Core\Preparation\UnusableStep;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\NumberStyle;
use NineTally\Core\Value\Reading;

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

    /** @param list<array{column: string, total: string}> $holds */
    public function __construct(private SurvivorKeys $keys, private array $holds) {}

    public function columns(array $columns): array
    {
        ColumnIndex::of($columns)->all([...$this->keys->key, ...array_column($this->holds, 'column')]);
        $twice = array_intersect($this->keys->key, array_column($this->holds, 'column'));
        if ($twice !== []) {
            throw UnusableStep::because(sprintf('"%s" is of the key, which is the survivor\'s.', implode('", "', $twice)));
        }

        return $columns;
    }

    public function sentence(): string
    {
        $holds = array_map(static fn(array $held): string => "{$held['total']} of {$held['column']}", $this->holds);

        return 'Put rows together by '.Words::listed($this->keys->key).' as '.$this->keys->said().
            ($holds === [] ? '' : ', with '.Words::listed($holds));
    }

    public function run(iterable $rows, array $columns, StepContext $context): \Generator
    {
        $key = ColumnIndex::of($columns)->all($this->keys->key);
        $totals = $this->totals($context);
        $readings = [];
        foreach ($columns as $column) {
            $readings[] = $context->reading($column, Kind::Text);
        }
        [$forms, $map] = [$this->keys->forms($context), $this->keys->map($context)];

        return (new Grouping($context->folder))->run(
            self::marked(Words::counted($rows, $context->figures), $key, $forms, $map),
            range(count($columns), count($columns) + count($key) - 1),
            static fn(array $group): array => self::together($group, $key, $columns, $totals, $readings, $context),
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
     * @param  list<int>  $key  its places
     * @param  list<string>  $columns
     * @param  array<string, TotalOfRows>  $totals  by column
     * @param  list<Reading>  $readings  of the columns
     * @return list<array{int, int, list<string>}>
     */
    private static function together(
        array $group,
        array $key,
        array $columns,
        array $totals,
        array $readings,
        StepContext $context,
    ): array {
        $rows = $own = $gone = [];
        foreach ($group as $nth => [$number, $packedPlace, $cells]) {
            $rows[$nth] = [$number, $packedPlace, array_slice($cells, 0, count($columns))];
            $cells[count($cells) - 1] === self::OWN ? $own[] = $nth : $gone[] = $nth;
        }
        if ($gone !== []) {
            $survivor = $own[0] ?? $gone[0];
            $joined = array_unique([$survivor, ...$gone]);
            sort($joined);
            [$number, $packedPlace, $cells] = $rows[$survivor];
            $together = array_map(static fn(int $nth): array => $rows[$nth][2], $joined);
            $rows[$survivor] = [$number, $packedPlace, self::held($cells, $together, $columns, $totals, $readings, $context)];
            if ($own === []) {
                $context->figures->note(
                    self::WITHOUT_OWN_ROW,
                    implode(' + ', array_map(static fn(int $place): string => $cells[$place], $key)),
                );
            }
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
     * @param  list<Reading>  $readings  of the columns
     * @return list<string> what the survivor holds
     */
    private static function held(
        array $survivor,
        array $joined,
        array $columns,
        array $totals,
        array $readings,
        StepContext $context,
    ): array {
        $held = [];
        foreach ($columns as $place => $column) {
            [$cell, $values] = [$survivor[$place], array_column($joined, $place)];
            $held[] = isset($totals[$column]) ? $totals[$column]->of($values) : $cell;
            if ($held[$place] !== $cell) {
                $context->figures->alter($column);
            }
            foreach (isset($totals[$column]) ? [] : array_diff($values, [$cell]) as $lost) {
                $readings[$place]->isBlank($lost) || $context->figures->note(self::NOT_HELD, "{$column}: {$lost}");
            }
        }

        return $held;
    }
}
