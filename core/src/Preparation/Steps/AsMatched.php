<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Steps;

use NineTally\Core\Preparation\ColumnIndex;
use NineTally\Core\Preparation\RowByRow;
use NineTally\Core\Preparation\RowCursor;
use NineTally\Core\Preparation\StepContext;
use NineTally\Core\Preparation\UnusableStep;

/**
 * Puts for a value of the old system what the new one has for it, as the rows say that a tally of another dataset matched: where the new
 * system gives new numbers, one dataset's match is the crosswalk of all that refer to it. A value without such a row stays as it stands,
 * and so does one that was matched to several; both are counted, and listed.
 */
final class AsMatched extends RowByRow
{
    public const SEVERAL = 'matched to more than one';

    /**
     * @param  string  $dataset  whose tally has matched them
     * @param  non-empty-list<array{column: string, reference: string}>  $on  columns here, and of the source there
     * @param  non-empty-list<array{reference: string, into: string}>  $take  columns of the target there, and where they go here: into a
     *     column that is there its values are put
     */
    public function __construct(private readonly string $dataset, private readonly array $on, private readonly array $take) {}

    /** What the table of its matched rows is called among references. */
    public static function table(string $dataset): string
    {
        return "{$dataset} as matched";
    }

    /** The dataset of such a table; null for any other reference. */
    public static function datasetOf(string $table): ?string
    {
        return str_ends_with($table, self::table('')) ? substr($table, 0, -strlen(self::table(''))) : null;
    }

    /**
     * @param  list<string>  $source
     * @param  list<string>  $target
     * @return list<string> what columns of both sides are called in such a table
     */
    public static function columnsOf(array $source, array $target): array
    {
        return [...array_map(self::sourceColumn(...), $source), ...array_map(self::targetColumn(...), $target)];
    }

    public static function sourceColumn(string $name): string
    {
        return "source {$name}";
    }

    public static function targetColumn(string $name): string
    {
        return "target {$name}";
    }

    public function columns(array $columns): array
    {
        ColumnIndex::of($columns)->all(array_column($this->on, 'column'));
        $new = array_values(array_diff(array_column($this->take, 'into'), $columns));
        ColumnIndex::of($columns)->mustBeFree($new);

        return [...$columns, ...$new];
    }

    public function sentence(): string
    {
        return sprintf(
            'Put for %s what %s matched: %s',
            Words::listed(array_column($this->on, 'column')),
            $this->dataset,
            Words::listed(array_map(
                static fn(array $taken): string => "{$taken['reference']} into {$taken['into']}",
                $this->take,
            )),
        );
    }

    /** @throws UnusableStep */
    protected function bind(array $columns, StepContext $context): \Closure
    {
        $name = self::table($this->dataset);
        $table = $context->references->named($name);
        $on = array_map(
            static fn(array $pair): array => ['column' => $pair['column'], 'reference' => self::sourceColumn($pair['reference'])],
            $this->on,
        );
        $finder = RecordFinder::of($name, $on, [], $columns, $context);
        $take = $table->places(array_map(static fn(array $taken): string => self::targetColumn($taken['reference']), $this->take));
        $behind = ColumnIndex::of($this->columns($columns));
        $into = $behind->all(array_column($this->take, 'into'));
        $new = count($this->columns($columns)) - count($columns);
        [$figures, $names] = [$context->figures, array_column($this->take, 'into')];

        return static function (RowCursor $row) use ($finder, $take, $into, $new, $figures, $names): array {
            $cells = $row->cells;
            $taken = [];
            foreach ($finder->find($cells) as $record) {
                $taken[] = $finder->cells($record, $take);
            }
            $taken = array_values(array_unique($taken, SORT_REGULAR));
            if (count($taken) > 1) {
                $figures->note(self::SEVERAL, $finder->given($cells));
            }
            array_push($cells, ...array_fill(0, $new, ''));
            if (count($taken) !== 1) {
                return $cells;
            }
            foreach ($into as $nth => $place) {
                if ($cells[$place] !== $taken[0][$nth]) {
                    $figures->alter($names[$nth]);
                    $cells[$place] = $taken[0][$nth];
                }
            }

            return array_values($cells);
        };
    }
}
