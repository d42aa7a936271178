<?php

declare(strict_types=1);

namespace NineTally\Core\Repeats;

use Brick\Math\BigDecimal;
use NineTally\Core\Value\Moment;
use NineTally\Core\Value\Reading;
use NineTally\Core\Value\ValueOrder;

/**
 * Finds the row that a policy keeps while the rows of one key pass in the order of their delivery. Holds one row.
 *
 * Ties keep the first; where the highest or lowest value decides, blank and unreadable values come last.
 */
final class KeptRow
{
    /** @var array{line: int, cells: string}|null the row kept so far */
    private ?array $kept = null;

    /** Of the row kept so far, where its value can be ranked. */
    private BigDecimal|Moment|bool|string|null $rank = null;

    private readonly ?ValueOrder $order;

    private bool $hasConflict = false;

    private int $rows = 0;

    public function __construct(private readonly RepeatsPolicy $policy, ?Reading $reading = null)
    {
        $this->order = $reading === null ? null : new ValueOrder($reading);
    }

    /**
     * @param  string  $cells  the bytes of all cells, for copies
     * @param  string  $value  of the column that decides, '' where none does
     */
    public function see(int $line, string $cells, string $value = ''): void
    {
        $isFirst = ++$this->rows === 1;
        $takes = match ($this->policy->id) {
            PolicyId::KeepLast => true,
            PolicyId::KeepHighest, PolicyId::KeepLowest => $this->isBetter($value, $isFirst),
            PolicyId::CollapseCopies => $isFirst || ! $this->seeCopy($cells),
            PolicyId::SetAside, PolicyId::KeepFirst, PolicyId::PairInOrder => $isFirst,
        };
        if ($takes && ($isFirst || $this->policy->id !== PolicyId::CollapseCopies)) {
            $this->kept = ['line' => $line, 'cells' => $cells];
        }
    }

    /** @return array{line: int, cells: string}|null null when no row is kept: all are set aside */
    public function row(): ?array
    {
        $isSetAside = $this->policy->id === PolicyId::SetAside || $this->policy->id === PolicyId::CollapseCopies && $this->hasConflict;

        return $isSetAside && $this->rows > 1 ? null : $this->kept;
    }

    private function seeCopy(string $cells): bool
    {
        $isCopy = $this->kept !== null && $this->kept['cells'] === $cells;
        $this->hasConflict = $this->hasConflict || ! $isCopy;

        return $isCopy;
    }

    private function isBetter(string $value, bool $isFirst): bool
    {
        $rank = $this->order?->rank($value);
        if ($this->order === null || $rank === null) {
            return $isFirst;
        }
        $order = $this->rank === null ? 0 : $this->order->compare($rank, $this->rank);
        $isBetter = $this->rank === null || ($this->policy->id === PolicyId::KeepHighest ? $order > 0 : $order < 0);
        $this->rank = $isBetter ? $rank : $this->rank;

        return $isBetter;
    }
}
