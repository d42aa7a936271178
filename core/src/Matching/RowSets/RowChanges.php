<?php

declare(strict_types=1);

namespace NineTally\Core\Matching\RowSets;

/** What became of rows from one delivery to the next. */
final readonly class RowChanges
{
    /**
     * @param  int  $same  rows that stand in both
     * @param  int  $changed  rows of the earlier one whose key stands in the later one with other cells; 0 where no key is known
     * @param  int  $gone  rows of the earlier one that have no counterpart
     * @param  int  $new  rows of the later one that have none
     */
    public function __construct(public int $same, public int $changed, public int $gone, public int $new) {}

    /** Whether half of the rows of one of them, or more, stand in the other too. */
    public function overlapByHalf(): bool
    {
        $fewest = $this->same + min($this->gone, $this->new) + $this->changed;

        return $fewest > 0 && 2 * $this->same >= $fewest;
    }

    /** @return array{same: int, changed: int, gone: int, new: int} */
    public function toArray(): array
    {
        return ['same' => $this->same, 'changed' => $this->changed, 'gone' => $this->gone, 'new' => $this->new];
    }
}
