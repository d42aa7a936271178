<?php

declare(strict_types=1);

namespace NineTally\Core\Totals;

use NineTally\Core\Cause\ColumnComparison;
use NineTally\Core\Comparison\CellClass;
use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Value\Decimal;

/**
 * Which rows make the difference between two totals: each row that does not leave both sides alike adds what it adds to the target less
 * what it adds to the source, to the share of its class, its pattern, or the cause that lets it pass. So all shares together are the
 * difference, and {@see TotalReport} holds that against the totals themselves.
 */
final readonly class TotalShares
{
    /** Of rows whose counterpart is in another group. */
    public const ELSEWHERE = 'elsewhere';

    /** Of values that one side cannot read, where the comparison has nothing against them. */
    public const UNREADABLE = 'unreadable';

    /** Of quantities whose unit value one side lacks. */
    public const UNVALUED = 'unvalued';

    /** Of values that nobody compares, or that are compared as something else. */
    public const UNCOMPARED = 'uncompared';

    /** @var array<int, list<array{int, int}>> by total that the same bytes leave alike: where each of its cells is in source and target */
    private array $places;

    /**
     * @param  Sides<list<TotalColumns>>  $columns  by total
     * @param  list<list<array{pair: int, source: int, target: int}>>  $pairs  by total: the column pairs that compare its quantity and its
     *     unit value, with the places of their cells
     * @param  list<ColumnComparison>  $comparisons  by column pair
     * @param  ShareCounts  $shares  so far
     * @param  list<int>  $keyPlaces  in the source
     */
    public function __construct(
        private Sides $columns,
        private array $pairs,
        private array $comparisons,
        private ShareCounts $shares,
        private array $keyPlaces,
    ) {
        $places = [];
        foreach ($columns->source as $number => $source) {
            if ($source->readsLike($columns->target[$number]) && ! $source->isTranslated()) {
                $places[$number] = array_map(
                    static fn(int $place, int $placeInTarget): array => [$place, $placeInTarget],
                    $source->countedPlaces(),
                    $columns->target[$number]->countedPlaces(),
                );
            }
        }
        $this->places = $places;
    }

    /** A row that is a finding. */
    public function see(RowFinding $row): void
    {
        foreach ($this->columns->source as $number => $source) {
            if (! $source->total->measure->hasShares()) {
                continue;
            }
            match ($row->class) {
                RowClass::Missing, RowClass::Extra, RowClass::Repeated, RowClass::Unkeyed => $this->ofOneSide($number, $row),
                RowClass::Changed => $this->ofBoth(
                    $number,
                    $row->source->cells ?? [],
                    $row->target->cells ?? [],
                    fn(): string => $this->nameIn($number, $row),
                ),
                default => null,
            };
        }
    }

    /**
     * A row that agrees, though its two sides are not the same bytes.
     *
     * @param  list<string>  $source
     * @param  list<string>  $target
     */
    public function seeAgreed(array $source, array $target): void
    {
        foreach ($this->columns->source as $number => $columns) {
            if ($columns->total->measure->hasShares() && ! $this->isSame($number, $source, $target)) {
                $this->ofBoth($number, $source, $target, fn(): string => $this->nameOf($number, $source, $target));
            }
        }
    }

    /**
     * Whether the cells that a total looks at are the same bytes, and so the same amount: nearly all are, and reading them costs much.
     *
     * @param  list<string>  $source
     * @param  list<string>  $target
     */
    private function isSame(int $number, array $source, array $target): bool
    {
        foreach ($this->places[$number] ?? [] as [$place, $placeInTarget]) {
            if ($source[$place] !== $target[$placeInTarget]) {
                return false;
            }
        }

        return isset($this->places[$number]);
    }

    private function ofOneSide(int $number, RowFinding $row): void
    {
        $side = $row->source === null ? Side::Target : Side::Source;
        $cells = $row->record()->cells ?? [];
        $columns = $this->columns->of($side)[$number];
        $amount = $columns->amount($cells);
        if ($amount !== null) {
            $signed = $side === Side::Source ? $amount->negated() : $amount;
            $name = in_array($row->class, [RowClass::Missing, RowClass::Extra], true)
                ? $row->class->value
                : "{$row->class->value} {$side->value}";
            $this->shares->add($number, $columns->group($cells), $name, $signed);
            $this->shares->add($number, ShareCounts::ALL, $name, $signed);
        }
    }

    /**
     * @param  list<string>  $source
     * @param  list<string>  $target
     * @param  \Closure(): string  $name  of the share, where one is needed
     */
    private function ofBoth(int $number, array $source, array $target, \Closure $name): void
    {
        [$ofSource, $ofTarget] = [$this->columns->source[$number], $this->columns->target[$number]];
        [$from, $to] = [$ofSource->amount($source) ?? Decimal::zero(), $ofTarget->amount($target) ?? Decimal::zero()];
        [$fromGroup, $toGroup] = [$ofSource->group($source), $ofTarget->group($target)];
        $apart = $from->isEqualTo($to) ? null : $to->minus($from);
        if ($apart !== null) {
            $said = $name();
            $key = str_starts_with($said, 'pattern ')
                ? null
                : implode(KeyTuple::SEPARATOR, array_map(static fn(int $place): string => $source[$place], $this->keyPlaces));
            $this->shares->add($number, ShareCounts::ALL, $said, $apart, $key);
            if ($fromGroup === $toGroup) {
                $this->shares->add($number, $fromGroup, $said, $apart, $key);
            }
        }
        if ($fromGroup !== $toGroup) {
            $from->isZero() || $this->shares->add($number, $fromGroup, self::ELSEWHERE, $from->negated());
            $to->isZero() || $this->shares->add($number, $toGroup, self::ELSEWHERE, $to);
        }
    }

    /** By what a changed row adds: the pattern of its cell, what lets the cell pass, or that nobody compares it. */
    private function nameIn(int $number, RowFinding $row): string
    {
        foreach ($this->pairs[$number] as ['pair' => $pair]) {
            foreach ($row->cells as $cell) {
                if ($cell->pairPosition === $pair) {
                    return "pattern {$cell->place->number}";
                }
            }
        }

        return $this->nameOf($number, $row->source->cells ?? [], $row->target->cells ?? []);
    }

    /**
     * @param  list<string>  $source
     * @param  list<string>  $target
     */
    private function nameOf(int $number, array $source, array $target): string
    {
        [$ofSource, $ofTarget] = [$this->columns->source[$number], $this->columns->target[$number]];
        foreach ($this->pairs[$number] as ['pair' => $pair, 'source' => $place, 'target' => $placeInTarget]) {
            $judgement = $this->comparisons[$pair]->classify($source[$place], $target[$placeInTarget]);
            if ($judgement->class === CellClass::Forgiven) {
                return "forgiven {$judgement->cause?->id}";
            }
        }

        return match (true) {
            $ofSource->lacksUnit($source) || $ofTarget->lacksUnit($target) => self::UNVALUED,
            $ofSource->amount($source) === null || $ofTarget->amount($target) === null => self::UNREADABLE,
            default => self::UNCOMPARED,
        };
    }
}
