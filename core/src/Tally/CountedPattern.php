<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Comparison\CellClass;

/** A pattern while its cells are counted. */
final class CountedPattern
{
    public int $cells = 0;

    /** @var array<string, array{source: string, target: string}> by both values */
    public array $examples = [];

    /** @var array<string, int> cells by what tells those of the pattern apart */
    public array $breakdown = [];

    public readonly WorthCount $worth;

    /**
     * @param  int  $pair  position of the column pair
     * @param  array<string, string|int>  $facts
     */
    public function __construct(
        public readonly int $number,
        public readonly int $pair,
        public readonly CellClass $class,
        public readonly string $cause,
        public readonly array $facts,
    ) {
        $this->worth = new WorthCount;
    }
}
