<?php

declare(strict_types=1);

namespace NineTally\Core\Comparison;

/** All cells of a tally with the same column pair, cell class, cause and facts of the cause. */
final readonly class Pattern
{
    /**
     * @param  int  $number  from 1, in the order in which the patterns first occur
     * @param  array<string, string|int>  $facts
     * @param  list<array{source: string, target: string}>  $examples  the first 20 distinct value pairs, in source order
     */
    public function __construct(
        public int $number,
        public int $pairPosition,
        public CellClass $class,
        public string $cause,
        public array $facts,
        public int $cells,
        public array $examples,
        public PatternDetail $detail = new PatternDetail,
    ) {}
}
