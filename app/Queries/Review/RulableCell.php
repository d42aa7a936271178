<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Adapters\Database\DatabaseRow;
use NineTally\Core\Comparison\CellClass;
use NineTally\Core\Comparison\CellFinding;
use NineTally\Core\Comparison\PatternPlace;
use NineTally\Core\Comparison\SignedDifference;
use NineTally\Core\Row\KeyTuple;

/** A cell that needs an explanation, with the row that it stands in and what stands for it. */
final readonly class RulableCell
{
    /** @param KeyTuple|null $key of the row, as it was delivered */
    private function __construct(
        public CellFinding $finding,
        public int $sequence,
        public int $rowSequence,
        public ?KeyTuple $key,
        public ?int $sourceLine,
        public ?int $targetLine,
        public Standing $standing,
    ) {}

    /**
     * The same cell as somebody is shown it.
     *
     * @param  string|null  $hidden  what stands for a value, where values are hidden; blank cells stay blank
     */
    public function shownAs(?KeyTuple $key, ?string $hidden): self
    {
        $shown = static fn(string $value): string => $value === '' ? '' : (string) $hidden;

        return new self(
            $hidden === null ? $this->finding : $this->finding->withValues($shown($this->finding->source), $shown($this->finding->target)),
            $this->sequence,
            $this->rowSequence,
            $key,
            $this->sourceLine,
            $this->targetLine,
            $this->standing,
        );
    }

    /** @param DatabaseRow $row of the cell, joined with its row, its pattern and its standing */
    public static function fromDatabase(DatabaseRow $row, ?CarriedRuling $earlier): self
    {
        $key = $row->textOrNull('key');

        return new self(
            new CellFinding(
                $row->int('pair_position'),
                CellClass::from($row->text('class')),
                $row->text('cause'),
                $row->facts('facts'),
                $row->text('source_value'),
                $row->text('target_value'),
                SignedDifference::kept($row->textOrNull('difference'), $row->floatOrNull('relative_difference')),
                new PatternPlace($row->int('pattern_number')),
            ),
            $row->int('sequence'),
            $row->int('row_sequence'),
            $key === null ? null : KeyTuple::fromCsv($key),
            $row->intOrNull('source_line'),
            $row->intOrNull('target_line'),
            Standing::fromDatabase($row, $earlier),
        );
    }
}
