<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

/** Rows of one partition and side, in the order of their delivery: the same place in each list is the same row. */
final readonly class SpilledRows
{
    /**
     * @param  list<string>  $keys
     * @param  list<string>  $bodies
     * @param  list<string>  $rests  empty when rows are kept whole, or nothing but the key is left
     */
    public function __construct(public array $keys, public array $bodies, public array $rests, public PackedLines $lines) {}
}
