<?php

declare(strict_types=1);

namespace Database\Demo;

/**
 * What is wrong with the target of a dataset, and with both files.
 *
 * @phpstan-type PlantedRows array{missing: int, extra: int, repeatedInSource: int, repeatedInTarget: int, repeatedInBoth: int,
 *     repeatedInSourceOnly: int, unkeyedInSource: int, unkeyedInTarget: int}
 */
final readonly class DemoFaults
{
    private const NONE = [
        'missing' => 0,
        'extra' => 0,
        'repeatedInSource' => 0,
        'repeatedInTarget' => 0,
        'repeatedInBoth' => 0,
        'repeatedInSourceOnly' => 0,
        'unkeyedInSource' => 0,
        'unkeyedInTarget' => 0,
    ];

    /** @var PlantedRows */
    public array $rows;

    /**
     * @param  list<Planted>  $cells
     * @param  array{missing?: int, extra?: int, repeatedInSource?: int, repeatedInTarget?: int, repeatedInBoth?: int,
     *     repeatedInSourceOnly?: int, unkeyedInSource?: int, unkeyedInTarget?: int}  $rows
     * @param  list<string>  $refusedInSource  raw records, which are no rows
     * @param  list<string>  $refusedInTarget
     */
    public function __construct(
        public array $cells,
        array $rows = [],
        public array $refusedInSource = [],
        public array $refusedInTarget = [],
    ) {
        $this->rows = [...self::NONE, ...$rows];
    }
}
