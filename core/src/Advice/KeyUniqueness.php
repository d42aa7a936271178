<?php

declare(strict_types=1);

namespace NineTally\Core\Advice;

use NineTally\Core\Intake\Reader;
use NineTally\Core\Row\Columns;
use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Row\RefusedRecord;
use NineTally\Core\Row\Row;

/**
 * Counts how well some columns tell the rows of a side apart.
 *
 * Memory: 16 bytes and an array slot for each distinct key (some 80 MB for a million). Keys are told apart by a hash of
 * 128 bits: at 10 million keys the chance that any two meet is under 10^-24. The tally itself compares bytes.
 */
final readonly class KeyUniqueness
{
    private function __construct(
        public int $rows,
        public int $uniqueRows,
        public int $repeatedRows,
        public int $unkeyedRows,
        public bool $isWhole,
    ) {}

    /**
     * @param  list<string>  $names
     * @param  int|null  $atMost  stop after so many rows; null counts them all
     */
    public static function count(Reader $reader, array $names, ?int $atMost = null): self
    {
        return self::ofRecords($reader->columns(), $reader->records(), $names, $atMost);
    }

    /**
     * @param  iterable<Row|RefusedRecord>  $records
     * @param  list<string>  $names
     */
    public static function ofRecords(Columns $columns, iterable $records, array $names, ?int $atMost = null): self
    {
        $positions = $columns->positionsOf($names);
        $seen = [];
        $rows = $unkeyed = $unique = 0;
        $isWhole = true;
        foreach ($records as $record) {
            if (! $record instanceof Row) {
                continue;
            }
            if ($rows === $atMost) {
                $isWhole = false;
                break;
            }
            $rows++;
            $key = KeyTuple::of(array_map(static fn(int $position): string => $record->cells[$position], $positions));
            if ($key->isBlank()) {
                $unkeyed++;

                continue;
            }
            $hash = hash('xxh128', $key->bytes(), true);
            $unique += match ($seen[$hash] ?? 0) {
                0 => 1,
                1 => -1,
                default => 0,
            };
            $seen[$hash] = isset($seen[$hash]) ? 2 : 1;
        }

        return new self($rows, $unique, $rows - $unkeyed - $unique, $unkeyed, $isWhole);
    }
}
