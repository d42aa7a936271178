<?php

declare(strict_types=1);

namespace NineTally\Core\Repeats;

use Brick\Math\BigDecimal;
use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Value\Moment;

/**
 * Finds the row that a policy keeps while the rows of one key pass in the order of their delivery. Holds one row.
 *
 * Ties keep the first; where the highest or lowest value decides, blank and unreadable values come last.
 */
final class KeptRow
{
    /** @var array{line: int, cells: string}|null the row kept so far */
    private ?array $kept = null;

    /** @var list<BigDecimal|Moment|bool|string|null> of the row kept so far, by decider */
    private array $ranks = [];

    /** Whether another row is as good as the one kept so far. */
    private bool $isTied = false;

    private bool $hasConflict = false;

    private int $rows = 0;

    /**
     * @param  list<Decider>  $deciders  the first decides; the second where the first does not
     * @param  list<int>  $uncompared  positions of cells in which copies may differ
     */
    public function __construct(
        private readonly PolicyId $policy,
        private readonly array $deciders = [],
        private readonly array $uncompared = [],
    ) {}

    /** @param string $cells of the row, joined by KeyTuple::SEPARATOR */
    public function see(int $line, string $cells): void
    {
        $isFirst = ++$this->rows === 1;
        $takes = match ($this->policy) {
            PolicyId::KeepLast => true,
            PolicyId::KeepHighest, PolicyId::KeepLowest => $this->isBetter($cells, $isFirst),
            PolicyId::CollapseCopies => $isFirst,
            PolicyId::SetAside, PolicyId::KeepFirst, PolicyId::PairInOrder => $isFirst,
        };
        if ($this->policy === PolicyId::CollapseCopies && ! $isFirst) {
            $this->hasConflict =
                $this->hasConflict || $this->kept === null || $this->comparable($this->kept['cells']) !== $this->comparable($cells);
        }
        if ($takes) {
            $this->kept = ['line' => $line, 'cells' => $cells];
        }
    }

    /** @return array{line: int, cells: string}|null null when no row is kept: all are set aside */
    public function row(): ?array
    {
        $isSetAside = $this->policy === PolicyId::SetAside || $this->policy === PolicyId::CollapseCopies && $this->hasConflict;

        return $isSetAside && $this->rows > 1 ? null : $this->kept;
    }

    /** Whether the deciding columns left several rows that are equally good, so that the first of them was kept. */
    public function isUndecided(): bool
    {
        return $this->deciders !== [] && $this->rows > 1 && $this->isTied;
    }

    private function comparable(string $cells): string
    {
        return $this->uncompared === []
            ? $cells
            : implode(KeyTuple::SEPARATOR, array_diff_key(explode(KeyTuple::SEPARATOR, $cells), array_flip($this->uncompared)));
    }

    private function isBetter(string $row, bool $isFirst): bool
    {
        $cells = explode(KeyTuple::SEPARATOR, $row);
        $ranks = array_map(
            static fn(Decider $decider): BigDecimal|Moment|bool|string|null => $decider->rank($cells[$decider->position]),
            $this->deciders,
        );
        $order = 0;
        foreach ($isFirst ? [] : $this->deciders as $place => $decider) {
            $order = $order !== 0 ? $order : $decider->compare($ranks[$place], $this->ranks[$place]);
        }
        $isBetter = $isFirst || $order > 0;
        $this->isTied = ! $isFirst && $order === 0 || ! $isBetter && $this->isTied;
        $this->ranks = $isBetter ? $ranks : $this->ranks;

        return $isBetter;
    }
}
