<?php

declare(strict_types=1);

namespace NineTally\Core\Profile;

use NineTally\Core\Intake\Reader;
use NineTally\Core\Row\RefusedRecord;
use NineTally\Core\Row\Row;

/** All columns of a side, in one pass over it. */
final readonly class SideProfile
{
    /** @param list<ColumnProfile> $columns */
    private function __construct(public int $read, public int $refused, public array $columns) {}

    /** @throws \NineTally\Core\Intake\UnreadableFile */
    public static function of(Reader $reader): self
    {
        return self::ofRecords($reader->columns()->names, $reader->records());
    }

    /**
     * @param  list<string>  $names
     * @param  iterable<Row|RefusedRecord|list<string>>  $records
     */
    public static function ofRecords(array $names, iterable $records): self
    {
        $budget = new DistinctBudget;
        $columns = array_map(static fn(string $name): ColumnProfile => new ColumnProfile($name, $budget), $names);
        $read = $refused = 0;
        foreach ($records as $record) {
            $read++;
            if ($record instanceof RefusedRecord) {
                $refused++;

                continue;
            }
            foreach ($record instanceof Row ? $record->cells : $record as $position => $cell) {
                $columns[$position]->see($cell);
            }
        }

        return new self($read, $refused, $columns);
    }

    /** @return array{rows: array{read: int, refused: int, delivered: int}, columns: list<array<string, mixed>>} */
    public function toArray(): array
    {
        return [
            'rows' => ['read' => $this->read, 'refused' => $this->refused, 'delivered' => $this->read - $this->refused],
            'columns' => array_map(static fn(ColumnProfile $column): array => $column->toArray(), $this->columns),
        ];
    }
}
