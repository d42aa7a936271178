<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Cause\CauseId;
use NineTally\Core\Cause\ColumnDecision;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Figures\ValueFigures;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Matching\MatchCounts;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Preparation\PreparedReader;
use NineTally\Core\Row\Sides;

/** What became of the cells and values of each column pair, once all findings have passed. */
final readonly class ColumnFigures
{
    /**
     * @param  Sides<Reader>  $readers
     * @param  list<ColumnDecision>  $decisions  by column pair
     */
    public function __construct(
        private Plan $plan,
        private Sides $readers,
        private MatchCounts $counts,
        private ValueCounts $values,
        private array $decisions,
    ) {}

    /**
     * @return list<array{pair: ColumnPair, compared: int, identical: int, forgiven: int, changed: int, blanked: int, filled: int,
     *     values: ValueFigures, altered: array{source: int, target: int}}> cells of the pair, what became of its values, and how many of
     *     each side the steps altered
     */
    public function all(): array
    {
        $columns = [];
        $altered = $this->readers->map(
            static fn(Reader $reader): array => $reader instanceof PreparedReader ? $reader->ledger->alteredOf() : [],
        );
        foreach ($this->plan->columnPairs as $position => $pair) {
            $cells = $this->counts->pairs[$position]->cells;
            foreach ($this->counts->pairs[$position]->movedBlanks as $class => $moves) {
                foreach ($moves as $move => $count) {
                    // A value that stands in another column was not lost: its blank cell is changed.
                    if ($this->decisions[$position]->cause(CauseId::Moved, [$move]) !== null) {
                        $cells[$class] -= $count;
                        $cells['changed'] += $count;
                    }
                }
            }
            ['forgiven' => $forgiven, 'changed' => $changed, 'blanked' => $blanked, 'filled' => $filled] = $cells;
            $identical = $this->counts->compared - array_sum($cells);
            $values = $this->values->of(
                $position,
                ['identical' => $identical, 'forgiven' => $forgiven, 'changed' => $changed, 'blanked' => $blanked, 'filled' => $filled],
                $this->counts->pairs[$position],
            );
            $columns[] = [
                'pair' => $pair,
                'compared' => $this->counts->compared,
                'identical' => $identical,
                'forgiven' => $forgiven,
                'changed' => $changed,
                'blanked' => $blanked,
                'filled' => $filled,
                'values' => $values,
                'altered' => ['source' => $altered->source[$pair->source] ?? 0, 'target' => $altered->target[$pair->target] ?? 0],
            ];
        }

        return $columns;
    }
}
