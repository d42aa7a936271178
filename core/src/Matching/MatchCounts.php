<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Row\Side;
use NineTally\Core\Totals\ShareCounts;

/** What matching counted: rows of both sides by class, and the cells of each column pair. Counts of several tasks of work add up. */
final class MatchCounts
{
    /** @var array<string, array<string, int>> side => class => rows */
    private array $rows = ['source' => [], 'target' => []];

    /** @var array<string, int> side => keys that repeat there and do not exist on the other side: a loss hides there */
    private array $repeatedOnOneSide = ['source' => 0, 'target' => 0];

    /** @var array<string, int> side => keys that repeat only because the key forgives */
    private array $repeatedByForgiving = ['source' => 0, 'target' => 0];

    /** @var array<string, int> side => keys of several rows whose deciding columns do not decide */
    private array $undecided = ['source' => 0, 'target' => 0];

    /** @var array<string, array{kept: int, notKept: int}> side => rows of keys that repeat there, and of which a policy keeps one */
    private array $byPolicy = ['source' => ['kept' => 0, 'notKept' => 0], 'target' => ['kept' => 0, 'notKept' => 0]];

    /** @var array<string, array<string, bool>> side => canonical key => whether what a person chose for it holds */
    private array $choices = ['source' => [], 'target' => []];

    /** Rows that met, and were compared. */
    public int $compared = 0;

    public int $bridged = 0;

    /** Rows that agree, but only for a rule that lets one of their cells pass. */
    public int $agreedByRule = 0;

    /** @var array{identical: int, byRule: int} rows that agree, to which no key leads alone: it repeats, or a bridge joins two keys */
    public array $agreedWithoutOneKey = ['identical' => 0, 'byRule' => 0];

    /** @var list<int> positions in the plan of bridges that joined nothing */
    public array $idleBridges = [];

    /** @var list<PairCounts> by column pair */
    public array $pairs;

    /** @var array<int, array<string, ForgivenPattern>> by key column and cause: what the key let pass */
    public array $keyForgiven = [];

    /** Of rows that agree and are not the same bytes, in the control totals. */
    public readonly ShareCounts $shares;

    public function __construct(int $pairs)
    {
        $this->shares = new ShareCounts;
        $this->pairs = array_map(static fn(): PairCounts => new PairCounts, $pairs === 0 ? [] : range(1, $pairs));
    }

    public function count(Side $side, RowClass $class, int $rows = 1): void
    {
        $this->rows[$side->value][$class->value] ??= 0;
        $this->rows[$side->value][$class->value] += $rows;
    }

    public function countMet(RowClass $class, int $rows = 1): void
    {
        $this->count(Side::Source, $class, $rows);
        $this->count(Side::Target, $class, $rows);
        $this->compared += $rows;
    }

    public function countRepeatedKey(Side $side, bool $isOnThisSideOnly, bool $isByForgiving): void
    {
        $this->repeatedOnOneSide[$side->value] += $isOnThisSideOnly ? 1 : 0;
        $this->repeatedByForgiving[$side->value] += $isByForgiving ? 1 : 0;
    }

    public function countUndecided(Side $side): void
    {
        $this->undecided[$side->value]++;
    }

    /** @return array<string, int> by side */
    public function undecided(): array
    {
        return $this->undecided;
    }

    public function countChoice(Side $side, bool $holds, string $key): void
    {
        $this->choices[$side->value][$key] = $holds;
    }

    /** @return bool|null whether what a person chose for a key holds; null where its rows do not repeat any more */
    public function choice(Side $side, string $key): ?bool
    {
        return $this->choices[$side->value][$key] ?? null;
    }

    public function countByPolicy(Side $side, bool $isKept): void
    {
        $this->byPolicy[$side->value][$isKept ? 'kept' : 'notKept']++;
    }

    /** @return array{kept: int, notKept: int} rows of keys that repeat on this side, and of which a policy keeps one */
    public function byPolicy(Side $side): array
    {
        return $this->byPolicy[$side->value];
    }

    public function of(Side $side, RowClass $class): int
    {
        return $this->rows[$side->value][$class->value] ?? 0;
    }

    public function keysRepeatedOnOneSideOnly(Side $side): int
    {
        return $this->repeatedOnOneSide[$side->value];
    }

    public function keysRepeatedByForgiving(Side $side): int
    {
        return $this->repeatedByForgiving[$side->value];
    }

    public function merge(self $other): void
    {
        foreach ($other->rows as $side => $classes) {
            foreach ($classes as $class => $rows) {
                $this->rows[$side][$class] = ($this->rows[$side][$class] ?? 0) + $rows;
            }
            $this->repeatedOnOneSide[$side] += $other->repeatedOnOneSide[$side];
            $this->repeatedByForgiving[$side] += $other->repeatedByForgiving[$side];
            $this->undecided[$side] += $other->undecided[$side];
            $this->choices[$side] += $other->choices[$side];
            ['kept' => $kept, 'notKept' => $notKept] = $this->byPolicy[$side];
            $this->byPolicy[$side] = [
                'kept' => $kept + $other->byPolicy[$side]['kept'],
                'notKept' => $notKept + $other->byPolicy[$side]['notKept'],
            ];
        }
        $this->compared += $other->compared;
        $this->bridged += $other->bridged;
        $this->agreedByRule += $other->agreedByRule;
        $this->agreedWithoutOneKey['identical'] += $other->agreedWithoutOneKey['identical'];
        $this->agreedWithoutOneKey['byRule'] += $other->agreedWithoutOneKey['byRule'];
        $this->idleBridges = [...$this->idleBridges, ...$other->idleBridges];
        foreach ($other->pairs as $position => $counts) {
            $this->pairs[$position]->merge($counts);
        }
        $this->shares->merge($other->shares);
        foreach ($other->keyForgiven as $column => $causes) {
            foreach ($causes as $cause => $pattern) {
                ($this->keyForgiven[$column][$cause] ??= new ForgivenPattern($pattern->cause, $pattern->facts))->merge($pattern);
            }
        }
    }
}
