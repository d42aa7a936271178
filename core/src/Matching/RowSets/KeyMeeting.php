<?php

declare(strict_types=1);

namespace NineTally\Core\Matching\RowSets;

/** How the keys of two sides meet. */
final readonly class KeyMeeting
{
    /**
     * @param  int  $met  rows of the source that meet one of the target: of a key that repeats as many as stand on both sides
     * @param  int  $oneToOne  rows of them whose key stands once on each side
     * @param  array{source: int, target: int}  $sharing  rows that have their key in common with another of their side
     */
    public function __construct(public int $met, public int $oneToOne, public array $sharing) {}
}
