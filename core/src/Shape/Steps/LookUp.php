<?php

declare(strict_types=1);

namespace NineTally\Core\Shape\Steps;

use NineTally\Core\Intake\Batch;
use NineTally\Core\Shape\Cells;
use NineTally\Core\Shape\ColumnPlaces;
use NineTally\Core\Shape\RowByRow;
use NineTally\Core\Shape\StepContext;
use NineTally\Core\Shape\UnusableStep;

/** Takes columns from the record of a reference that has the same key. */
final class LookUp extends RowByRow
{
    public const NO_RECORD = 'without a record';

    public const FOUND_BLANK = 'found but blank';

    public const SEVERAL = 'more than one record';

    /**
     * @param  non-empty-list<array{column: string, reference: string}>  $on
     * @param  non-empty-list<array{reference: string, into: string}>  $take
     */
    public function __construct(private readonly string $reference, private readonly array $on, private readonly array $take) {}

    public function columns(array $columns): array
    {
        $places = ColumnPlaces::of($columns);
        $places->all(array_column($this->on, 'column'));
        $places->mustBeFree(array_column($this->take, 'into'));

        return [...$columns, ...array_column($this->take, 'into')];
    }

    public function sentence(): string
    {
        return 'Look up '.Words::listed(array_column($this->take, 'into'))." in {$this->reference} by ".Words::listed(array_column($this->on, 'column'));
    }

    protected function bind(array $columns, StepContext $context): \Closure
    {
        $places = ColumnPlaces::of($columns)->all(array_column($this->on, 'column'));
        $records = $this->records($context);
        $nothing = array_fill(0, count($this->take), '');
        $figures = $context->figures;

        $taken = array_column($this->take, 'into');

        return static function (Cells $row) use ($places, $records, $nothing, $figures, $taken): array {
            $cells = $row->cells;
            $key = [];
            foreach ($places as $place) {
                $key[] = $cells[$place];
            }
            $found = $records[implode(Batch::CELL_END, $key)] ?? null;
            if ($found === null || $found === false) {
                $figures->note($found === null ? self::NO_RECORD : self::SEVERAL, implode(' + ', $key));

                return [...$cells, ...$nothing];
            }
            if (in_array('', $found, true)) {
                $figures->note(self::FOUND_BLANK, implode(' + ', $key));
            }
            $figures->alter(...$taken);

            return [...$cells, ...$found];
        };
    }

    /** @return array<string, list<string>|false> by key; false where several records have it, for none of them may be taken in silence */
    private function records(StepContext $context): array
    {
        $table = $context->references->named($this->reference);
        try {
            [$on, $take] = [$table->places(array_column($this->on, 'reference')), $table->places(array_column($this->take, 'reference'))];
        } catch (UnusableStep $problem) {
            throw UnusableStep::because(sprintf('In the reference "%s": %s', $this->reference, $problem->getMessage()));
        }
        $records = [];
        foreach ($table->rows as $cells) {
            $key = implode(Batch::CELL_END, array_map(static fn(int $place): string => $cells[$place], $on));
            $records[$key] = isset($records[$key]) ? false : array_map(static fn(int $place): string => $cells[$place], $take);
        }

        return $records;
    }
}
