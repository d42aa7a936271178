<?php

declare(strict_types=1);

namespace NineTally\Core\Intake;

use NineTally\Core\Row\Columns;
use NineTally\Core\Row\RecordPlace;
use NineTally\Core\Row\Row;

/** Some rows of a side, held in memory, to be compared like a delivery. Their lines lead to where they were delivered. */
final readonly class InMemoryReader implements Reader
{
    use RowByRowBatches;

    private Columns $columns;

    /**
     * @param  list<string>  $names
     * @param  list<array{int, list<string>}>  $rows  packed place and cells
     */
    public function __construct(private string $name, array $names, private array $rows)
    {
        $this->columns = Columns::named($name, $names);
    }

    public function columns(): Columns
    {
        return $this->columns;
    }

    public function name(): string
    {
        return $this->name;
    }

    public function bytes(): int
    {
        return array_sum(array_map(static fn(array $row): int => array_sum(array_map(strlen(...), $row[1])), $this->rows));
    }

    public function place(int $line): RecordPlace
    {
        return RecordPlace::ofPacked($this->rows[$line - 1][0]);
    }

    public function records(?callable $onBytes = null): \Generator
    {
        foreach ($this->rows as $nth => [, $cells]) {
            yield new Row($nth + 1, $cells);
        }
    }
}
