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

    /** @var list<string> cells of the first row, where policies of their own ask which columns differ */
    private array $first = [];

    /** @var array<int, true> positions of columns in which a row differs from the first */
    private array $differing = [];

    /**
     * @param  list<Decider>  $deciders  the first decides; the second where the first does not
     * @param  list<int>  $uncompared  positions of cells in which copies may differ
     * @param  ChosenRow|null  $chosen  what a person chose for the key
     * @param  array<string, KeptRow>  $own  by {@see columnsKey()}: what is kept where rows differ in just these columns
     */
    public function __construct(
        private readonly PolicyId $policy,
        private readonly array $deciders = [],
        private readonly array $uncompared = [],
        ?ChosenRow $chosen = null,
        private readonly array $own = [],
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
        $this->own === [] || $this->seeForOwn($line, $cells);
    }

    /** @param list<int> $positions of columns */
    public static function columnsKey(array $positions): string
    {
        sort($positions);

        return implode(' ', $positions);
    }

    /** @return int|null the line of the row that is kept; null when none is: all are set aside */
    public function line(): ?int
    {
        if ($this->isChosen()) {
            return $this->choice?->line();
        }
        $own = $this->ofItsOwn();
        if ($own !== null) {
            return $own->line();
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
        $own = $this->ofItsOwn();
        $isUndecided = $own === null ? $this->deciders !== [] && $this->rows > 1 && $this->isTied : $own->isUndecided();

        return $isUndecided && ! $this->isChosen();
    }

    /** What is kept by a policy that these rows have of their own. */
    private function ofItsOwn(): ?self
    {
        return $this->own === [] || $this->rows < 2 ? null : $this->own[self::columnsKey(array_keys($this->differing))] ?? null;
    }

    private function seeForOwn(int $line, string $row): void
    {
        $cells = explode(KeyTuple::SEPARATOR, $row);
        $this->first = $this->first === [] ? $cells : $this->first;
        foreach ($cells as $position => $cell) {
            if ($cell !== $this->first[$position]) {
                $this->differing[$position] = true;
            }
        }
        foreach ($this->own as $own) {
            $own->see($line, $row);
        }
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
