<?php

declare(strict_types=1);

namespace NineTally\Core\Figures;

/**
 * What became of the values of a column pair, or of all pairs: of every cell with a value on either side, those of rows that were not
 * compared included. Cells that are blank on both sides are counted apart and are in no percentage.
 */
final readonly class ValueFigures
{
    /**
     * @param  int  $right  identical or forgiven
     * @param  int  $differing  both sides have a value, or a crosswalk wants one, and it is another
     * @param  int  $blanked  of compared rows: the target has none
     * @param  int  $filled  of compared rows: the source has none
     * @param  int  $goneWithRow  of source rows that were not compared
     * @param  int  $cameWithRow  of target rows that were not compared
     * @param  int  $blankOnBoth  cells of compared rows
     */
    public function __construct(
        public int $right = 0,
        public int $differing = 0,
        public int $blanked = 0,
        public int $filled = 0,
        public int $goneWithRow = 0,
        public int $cameWithRow = 0,
        public int $blankOnBoth = 0,
    ) {}

    public static function sum(self ...$figures): self
    {
        /** @param \Closure(self): int $of */
        $sum = static fn(\Closure $of): int => array_sum(array_map($of, $figures));

        return new self(
            $sum(static fn(self $one): int => $one->right),
            $sum(static fn(self $one): int => $one->differing),
            $sum(static fn(self $one): int => $one->blanked),
            $sum(static fn(self $one): int => $one->filled),
            $sum(static fn(self $one): int => $one->goneWithRow),
            $sum(static fn(self $one): int => $one->cameWithRow),
            $sum(static fn(self $one): int => $one->blankOnBoth),
        );
    }

    public function lost(): int
    {
        return $this->blanked + $this->goneWithRow;
    }

    public function added(): int
    {
        return $this->filled + $this->cameWithRow;
    }

    /** Cells with a value on either side. */
    public function values(): int
    {
        return $this->right + $this->differing + $this->lost() + $this->added();
    }

    /** The one figure wherever one percentage stands alone. */
    public function agreement(): Percentage
    {
        return new Percentage($this->right, $this->values());
    }

    /** How right the values are that arrived: of compared rows alone. */
    public function ofArrived(): Percentage
    {
        return new Percentage($this->right, $this->right + $this->differing + $this->blanked + $this->filled);
    }

    /**
     * @return array{values: int, right: int, differing: int, lost: int, added: int, blank_on_both: int, agreement: string} by the names of
     *     the export
     */
    public function toArray(): array
    {
        return [
            'values' => $this->values(),
            'right' => $this->right,
            'differing' => $this->differing,
            'lost' => $this->lost(),
            'added' => $this->added(),
            'blank_on_both' => $this->blankOnBoth,
            'agreement' => $this->agreement()->text(),
        ];
    }
}
