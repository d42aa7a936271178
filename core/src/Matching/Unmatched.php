<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

use NineTally\Core\Comparison\CellFinding;
use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Comparison\RowRecord;
use NineTally\Core\Row\RefusedRecord;
use NineTally\Core\Row\Side;

/** A row that did not agree, before it has its place among the findings. */
final readonly class Unmatched
{
    /**
     * @param  int  $number  by which the findings of its side are ordered
     * @param  string  $key  bytes of the KeyTuple; '' when there is none
     * @param  array{source: int, target: int}  $rowsOfKey
     * @param  list<CellFinding>  $cells
     */
    public function __construct(
        public int $number,
        public RowClass $class,
        public ?Side $side,
        public string $key,
        public int $ordinal,
        public ?RowRecord $source,
        public ?RowRecord $target,
        public array $rowsOfKey = ['source' => 0, 'target' => 0],
        public array $cells = [],
        public ?RefusedRecord $refused = null,
    ) {}
}
