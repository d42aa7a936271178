<?php

declare(strict_types=1);

namespace NineTally\Core\Advice;

/** Columns that tell the rows of a sample apart, and why fewer of them do not. */
final readonly class AdvisedKey
{
    /**
     * @param  non-empty-list<int>  $places  of the column pairs, rising
     * @param  array{source: int, target: int}  $repeats  rows of the sample that share their key
     * @param  array{source: int, target: int}  $rows  of the sample
     * @param  array<int, array{source: int, target: int}>  $shorter  the column left out => rows that would then share their key
     */
    public function __construct(public array $places, public array $repeats, public array $rows, public array $shorter = []) {}
}
