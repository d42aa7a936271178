<?php

declare(strict_types=1);

namespace NineTally\Core\Cause;

use NineTally\Core\Comparison\CellPair;

/**
 * Recognises a cause that only a whole column can show.
 *
 * Each cell says what it would be evidence for; when all cells are known, the counts decide which of that holds. Counts add up,
 * so it does not matter how the cells were divided among workers.
 */
interface PatternRule
{
    /** From so few findings nothing is concluded. */
    public const LEAST = 3;

    public function id(): CauseId;

    /** @return list<string> what this pair is evidence for, the likeliest first */
    public function evidence(CellPair $pair): array;

    /**
     * @param  array<string, int>  $counts  evidence => cells
     * @param  int  $cells  cells of the column whose value differs
     * @return array<string, array<string, string|int>> the evidence that holds => facts of the cause
     */
    public function decide(array $counts, int $cells): array;
}
