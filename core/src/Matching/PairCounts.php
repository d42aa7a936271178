<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

use NineTally\Core\Cause\CellResult;
use NineTally\Core\Cause\ColumnEvidence;
use NineTally\Core\Comparison\CellClass;

/** What was counted in one column pair. Counts of several tasks of work add up. */
final class PairCounts
{
    /** @var array{forgiven: int, changed: int, blanked: int, filled: int} */
    public array $cells = ['forgiven' => 0, 'changed' => 0, 'blanked' => 0, 'filled' => 0];

    /** @var array<string, ForgivenPattern> by cause and facts */
    public array $forgiven = [];

    public ColumnEvidence $evidence;

    /** @var array<string, array<string, int>> blanked or filled => where its value may have moved => cells */
    public array $movedBlanks = ['blanked' => [], 'filled' => []];

    /** Beyond this many different values they are counted and no longer listed. */
    private const VALUES_WITHOUT_ENTRY = 10_000;

    /** Cells of the source that its crosswalk does not know. */
    public int $withoutEntry = 0;

    /** @var array<string, int>|null those values => cells; null: too many to list */
    public ?array $valuesWithoutEntry = [];

    /** @var array{source: int, target: int} cells of compared rows that have no value on this side alone */
    public array $blankOnOneSide = ['source' => 0, 'target' => 0];

    /**
     * @var array{forgiven: int, changed: int} cells without a value on both sides that are not identical: two tokens, or an entry of the
     *     crosswalk
     */
    public array $blankOnBoth = ['forgiven' => 0, 'changed' => 0];

    public function __construct()
    {
        $this->evidence = new ColumnEvidence;
    }

    /** What counts cells of the same cause and facts. */
    public function forgiven(CellResult $result): ForgivenPattern
    {
        return $this->forgiven[$result->key] ??= new ForgivenPattern($result->cause->id ?? '', $result->cause->facts ?? []);
    }

    public function lackEntry(string $value): void
    {
        $this->withoutEntry++;
        $this->listWithoutEntry($value, 1);
    }

    public function countBlank(CellClass $class, bool $isBlankInSource, bool $isBlankInTarget): void
    {
        if ($isBlankInSource && $isBlankInTarget) {
            $this->blankOnBoth[$class === CellClass::Forgiven ? 'forgiven' : 'changed']++;
        } elseif ($isBlankInSource || $isBlankInTarget) {
            $this->blankOnOneSide[$isBlankInSource ? 'source' : 'target']++;
        }
    }

    private function listWithoutEntry(string $value, int $cells): void
    {
        if ($this->valuesWithoutEntry === null) {
            return;
        }
        $this->valuesWithoutEntry[$value] = ($this->valuesWithoutEntry[$value] ?? 0) + $cells;
        if (count($this->valuesWithoutEntry) > self::VALUES_WITHOUT_ENTRY) {
            $this->valuesWithoutEntry = null;
        }
    }

    public function merge(self $other): void
    {
        foreach ($other->cells as $class => $cells) {
            $this->cells[$class] += $cells;
        }
        foreach ($other->forgiven as $key => $pattern) {
            ($this->forgiven[$key] ??= new ForgivenPattern($pattern->cause, $pattern->facts))->merge($pattern);
        }
        $this->evidence->merge($other->evidence);
        foreach ($other->movedBlanks as $class => $moves) {
            foreach ($moves as $move => $cells) {
                $this->movedBlanks[$class][$move] = ($this->movedBlanks[$class][$move] ?? 0) + $cells;
            }
        }
        $this->withoutEntry += $other->withoutEntry;
        $this->valuesWithoutEntry = $other->valuesWithoutEntry === null ? null : $this->valuesWithoutEntry;
        foreach ($other->valuesWithoutEntry ?? [] as $value => $cells) {
            $this->listWithoutEntry((string) $value, $cells);
        }
        foreach (['source', 'target'] as $side) {
            $this->blankOnOneSide[$side] += $other->blankOnOneSide[$side];
        }
        foreach (['forgiven', 'changed'] as $class) {
            $this->blankOnBoth[$class] += $other->blankOnBoth[$class];
        }
    }
}
