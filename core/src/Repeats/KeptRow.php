<?php

declare(strict_types=1);

namespace NineTally\Core\Repeats;

use Brick\Math\BigDecimal;
use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Value\Moment;

/**
 * Finds the row that a policy keeps while the rows of one key pass in the order of their delivery. Holds one row.
 *
 * Ties keep the first; where the highest or lowest value decides, blank and unreadable values come last. What a person chose for the key
 * comes before the policy, as long as it holds.
 */
final class KeptRow
{
    private readonly ?ChoiceAmongRows $choice;

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
     * @param  ChosenRow|null  $chosen  what a person chose for the key
     */
    public function __construct(
        private readonly PolicyId $policy,
        private readonly array $deciders = [],
        private readonly array $uncompared = [],
        ?ChosenRow $chosen = null,
    ) {
        $this->choice = $chosen === null ? null : new ChoiceAmongRows($chosen);
    }

    /** @param string $cells of the row, joined by KeyTuple::SEPARATOR */
    public function see(int $line, string $cells): void
    {
        $isFirst = ++$this->rows === 1;
        $this->choice?->see($line, $cells);
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

    /** @return int|null the line of the row that is kept; null when none is: all are set aside */
    public function line(): ?int
    {
        if ($this->isChosen()) {
            return $this->choice?->line();
        }
        $isSetAside = $this->policy === PolicyId::SetAside || $this->policy === PolicyId::CollapseCopies && $this->hasConflict;

        return $isSetAside && $this->rows > 1 ? null : $this->kept['line'] ?? null;
    }

    /** Whether a person chose the row among these rows. */
    public function isChosen(): bool
    {
        return $this->rows > 1 && $this->choice?->line() !== null;
    }

    /** Whether a person chose among rows of this key that are not these rows any more. */
    public function isReopened(): bool
    {
        return $this->rows > 1 && $this->choice !== null && $this->choice->line() === null;
    }

    /** Whether the deciding columns left several rows that are equally good, so that the first of them was kept. */
    public function isUndecided(): bool
    {
        return $this->deciders !== [] && $this->rows > 1 && $this->isTied && ! $this->isChosen();
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
