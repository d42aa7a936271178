<?php

declare(strict_types=1);

namespace App\Rulings\FindingSet;

use NineTally\Core\Ruling\GroupPostingBlock;

/** The findings that a filter means: those of its groups that are ruled on so, and of these those in some rows. */
final readonly class FilterBitmap
{
    /**
     * @param  array<string, string>  $groups  group
     *     => for each of its findings a byte, 1 where what stands for it is asked for, else 0; groups without any are left out
     * @param  array<int, string>|null  $rows  stretch
     *     => for each of its rows a byte, 1 where the row is meant, else 0; stretches without any are left out; null for all rows
     */
    public function __construct(public array $groups, public ?array $rows) {}

    /** @return list<string> by stretch of the part; empty where no row is meant */
    public function rowsOfPart(int $part): array
    {
        return array_map(
            fn(int $stretch): string => $this->rows[$part * GroupPostingBlock::STRETCHES + $stretch] ?? '',
            range(0, GroupPostingBlock::STRETCHES - 1),
        );
    }
}
