<?php

declare(strict_types=1);

namespace NineTally\Core\Comparison;

/** What only patterns of some causes or kinds have. */
final readonly class PatternDetail
{
    /**
     * @param  array<string, int>  $breakdown  of texts that are near each other: which letters became which => cells, the most frequent
     *     first
     * @param  Worth|null  $worth  of the cells of a pair of numbers
     */
    public function __construct(public array $breakdown = [], public ?Worth $worth = null) {}
}
