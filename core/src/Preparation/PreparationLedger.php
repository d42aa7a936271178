<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation;

use NineTally\Core\Figures\UnbalancedTally;

/**
 * What became of the rows of a side while it was prepared.
 *
 * @phpstan-import-type ReferenceLedger from ReferenceShelf
 *
 * @phpstan-type StepLedger array{number: int, id: string, kind: string, sentence: string, columns: list<string>, figures: array{in: int,
 *     made: int, condensed: int, leftOut: int, out: int, altered: int, alteredOf?: array<string, int>, notes: array<string, int>,
 *     values: array<string, array<string, int>>}}
 */
final readonly class PreparationLedger
{
    /**
     * @param  list<string>  $columns  of the prepared side
     * @param  list<string>  $deliveredColumns
     * @param  list<StepLedger>  $steps
     * @param  list<ReferenceLedger>  $references  that the steps looked up from
     */
    private function __construct(
        public array $columns,
        public array $deliveredColumns,
        public int $read,
        public int $refused,
        public int $delivered,
        public int $prepared,
        public array $steps,
        public array $references,
    ) {}

    /** @param array<string, mixed> $ledger */
    public static function of(array $ledger): self
    {
        /**
         * @var array{columns: list<string>, deliveredColumns: list<string>, read: int, refused: int, delivered: int, prepared: int,
         *     steps: list<StepLedger>, references?: list<ReferenceLedger>} $ledger
         */
        return new self(
            $ledger['columns'],
            $ledger['deliveredColumns'],
            $ledger['read'],
            $ledger['refused'],
            $ledger['delivered'],
            $ledger['prepared'],
            $ledger['steps'],
            $ledger['references'] ?? [],
        );
    }

    public function leftOut(): int
    {
        return $this->sum('leftOut');
    }

    public function made(): int
    {
        return $this->sum('made');
    }

    public function condensed(): int
    {
        return $this->sum('condensed');
    }

    /**
     * @return array<string, int> cells that steps altered, by the column of the prepared side that they stand in now; what columns were
     *     called before they were renamed is followed
     */
    public function alteredOf(): array
    {
        $altered = [];
        foreach ($this->steps as $position => ['kind' => $kind, 'columns' => $before, 'figures' => $figures]) {
            if ($kind === 'rename-columns') {
                $names = array_combine($before, $this->steps[$position + 1]['columns'] ?? $this->columns);
                $renamed = [];
                foreach ($altered as $column => $cells) {
                    $renamed[$names[$column] ?? $column] = $cells;
                }
                $altered = $renamed;
            }
            foreach ($figures['alteredOf'] ?? [] as $column => $cells) {
                $altered[$column] = ($altered[$column] ?? 0) + $cells;
            }
        }

        return array_intersect_key($altered, array_flip($this->columns));
    }

    /** @throws UnbalancedTally when rows are lost or invented */
    public function mustHold(): void
    {
        $rows = $this->delivered;
        foreach ($this->steps as ['number' => $number, 'figures' => $figures]) {
            $this->equal("rows into step {$number}", $figures['in'], $rows);
            $this->equal(
                "step {$number}: rows in + made = rows out + left out + merged",
                $figures['in'] + $figures['made'],
                $figures['out'] + $figures['leftOut'] + $figures['condensed'],
            );
            $rows = $figures['out'];
        }
        $this->equal('rows out of the last step = prepared', $rows, $this->prepared);
        $this->equal('records read = refused + delivered', $this->read, $this->refused + $this->delivered);
    }

    private function equal(string $equation, int $left, int $right): void
    {
        if ($left !== $right) {
            throw UnbalancedTally::inEquation($equation, $left, $right);
        }
    }

    /** @param 'leftOut'|'made'|'condensed' $figure */
    private function sum(string $figure): int
    {
        return array_sum(array_map(static fn(array $step): int => $step['figures'][$figure], $this->steps));
    }
}
