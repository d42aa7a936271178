<?php

declare(strict_types=1);

namespace NineTally\Core\Profile;

use NineTally\Core\Intake\Reader;
use NineTally\Core\Row\RefusedRecord;
use NineTally\Core\Row\Row;

/** All columns of a side, in one pass over it. */
final readonly class SideProfile
{
    /** Of a block: records, cells, and bytes of memory. */
    private const RECORDS = 4_096;

    private const CELLS = 65_536;

    private const BYTES = 8_388_608;

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
        foreach (self::blocks($records, count($names)) as $block) {
            $rows = [];
            foreach ($block as $record) {
                if (! $record instanceof RefusedRecord) {
                    $rows[] = $record instanceof Row ? $record->cells : $record;
                }
            }
            $read += count($block);
            $refused += count($block) - count($rows);
            foreach ($columns as $position => $column) {
                $column->seeAll(array_column($rows, $position));
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

    /**
     * So many records together that values which are alike are seen at once, and no more than memory has room for.
     *
     * @param  iterable<Row|RefusedRecord|list<string>>  $records
     * @return \Generator<int, list<Row|RefusedRecord|list<string>>>
     */
    private static function blocks(iterable $records, int $columns): \Generator
    {
        $most = max(1, min(self::RECORDS, intdiv(self::CELLS, max(1, $columns))));
        $before = memory_get_usage();
        $block = [];
        foreach ($records as $record) {
            $block[] = $record;
            if (count($block) >= $most || memory_get_usage() - $before > self::BYTES) {
                yield $block;
                $block = [];
                $before = memory_get_usage();
            }
        }
        yield $block;
    }
}
