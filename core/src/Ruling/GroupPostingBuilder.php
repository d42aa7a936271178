<?php

declare(strict_types=1);

namespace NineTally\Core\Ruling;

/** Notes in which rows the findings of each group stand, while they come in the order of their rows. No more than one part is held. */
final class GroupPostingBuilder
{
    private int $part = 0;

    /** @var array<string, array<int, int>> group => stretch of the part => findings */
    private array $counts = [];

    /** @var array<string, string> group => rows */
    private array $rows = [];

    /**
     * @param  int  $row  its sequence, not less than any before
     * @return array<string, GroupPostingBlock> the part that it ends, by group; mostly none
     */
    public function add(string $group, int $row): array
    {
        $stretch = intdiv($row, GroupPostingBlock::ROWS);
        $part = intdiv($stretch, GroupPostingBlock::STRETCHES);
        $ended = $part === $this->part ? [] : $this->end();
        $this->part = $part;
        $place = $row % GroupPostingBlock::ROWS;
        $within = $stretch % GroupPostingBlock::STRETCHES;
        $this->counts[$group][$within] = ($this->counts[$group][$within] ?? 0) + 1;
        $this->rows[$group] ??= '';
        // In place: put together anew for each row it would be copied for each row.
        $this->rows[$group] .= chr($place & 0xFF).chr($place >> 8);

        return $ended;
    }

    /** @return array<string, GroupPostingBlock> the last part, by group */
    public function end(): array
    {
        $ended = [];
        foreach ($this->rows as $group => $rows) {
            $ended[$group] = new GroupPostingBlock(
                $this->part,
                pack('v*', ...array_replace(array_fill(0, GroupPostingBlock::STRETCHES, 0), $this->counts[$group])),
                $rows,
            );
        }
        $this->counts = $this->rows = [];

        return $ended;
    }
}
