<?php

declare(strict_types=1);

namespace NineTally\Core\Repeats;

use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Reading;

/**
 * Finds the row that a policy keeps while the rows of one key pass in the order of their delivery. Holds one row.
 *
 * Ties keep the first; where the highest or lowest value decides, blank and unreadable values come last.
 */
final class KeptRow
{
    /** @var array{line: int, cells: string}|null the row kept so far */
    private ?array $kept = null;

    private ?string $value = null;

    private bool $hasConflict = false;

    private int $rows = 0;

    public function __construct(private readonly RepeatsPolicy $policy, private readonly ?Reading $reading = null) {}

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
        if (! $this->canBeRanked($value)) {
            return $isFirst;
        }
        $order = $this->value === null ? 0 : $this->compare($value, $this->value);
        $isBetter = $this->value === null || ($this->policy->id === PolicyId::KeepHighest ? $order > 0 : $order < 0);
        $this->value = $isBetter ? $value : $this->value;

        return $isBetter;
    }

    private function canBeRanked(string $value): bool
    {
        return $this->reading !== null && ! $this->reading->isBlank($value) && $this->reading->canRead($value);
    }

    private function compare(string $a, string $b): int
    {
        $reading = $this->reading ?? new Reading;
        if ($this->policy->kind === Kind::Number) {
            [$first, $second] = [$reading->number($a)?->toBigDecimal(), $reading->number($b)?->toBigDecimal()];

            return $first === null || $second === null ? 0 : $first->compareTo($second);
        }

        return match ($this->policy->kind) {
            Kind::Date, Kind::DateTime => [$reading->moment($a)?->secondsSinceEpoch(), $reading->moment($a)?->fraction] <=> [$reading->moment($b)?->secondsSinceEpoch(), $reading->moment($b)?->fraction],
            Kind::YesNo => $reading->yesOrNo($a) <=> $reading->yesOrNo($b),
            // By code points, which for UTF-8 is the order of the bytes: no locale decides which row is kept.
            default => strcmp($a, $b),
        };
    }
}
