<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Adapters\DatabaseRow;
use App\Models\Decision;
use NineTally\Core\Comparison\RowClass;

/** A row that did not agree, with its standing. */
final readonly class RowLine
{
    /**
     * @param  list<string>|null  $sourceCells
     * @param  list<string>|null  $targetCells
     * @param  string|null  $refusal  the sentence, a line end, the raw text
     */
    private function __construct(
        public int $sequence,
        public string $class,
        public ?string $side,
        public ?string $key,
        public int $sourceRows,
        public int $targetRows,
        public ?int $sourceLine,
        public ?int $targetLine,
        public ?array $sourceCells,
        public ?array $targetCells,
        public ?string $refusal,
        public int $differingCells,
        public Decision $decision,
        public ?int $rulingId,
        public ?Earlier $earlier,
        public ?string $remark,
        public ?int $sourcePart,
        public ?int $targetPart,
    ) {}

    /**
     * @param  list<string>  $sourceCells
     * @param  list<string>  $targetCells
     */
    public static function agreeing(string $key, int $sourceLine, int $targetLine, array $sourceCells, array $targetCells): self
    {
        return new self(0, RowClass::Agreed->value, null, $key, 1, 1, $sourceLine, $targetLine, $sourceCells, $targetCells, null, 0, Decision::Open, null, null, null, null, null);
    }

    /**
     * @param  list<string>|null  $sourceCells
     * @param  list<string>|null  $targetCells
     */
    public function withCells(?array $sourceCells, ?array $targetCells, ?string $refusal): self
    {
        return new self($this->sequence, $this->class, $this->side, $this->key, $this->sourceRows, $this->targetRows, $this->sourceLine, $this->targetLine, $sourceCells, $targetCells, $refusal, $this->differingCells, $this->decision, $this->rulingId, $this->earlier, $this->remark, $this->sourcePart, $this->targetPart);
    }

    public function withKey(?string $key): self
    {
        return new self($this->sequence, $this->class, $this->side, $key, $this->sourceRows, $this->targetRows, $this->sourceLine, $this->targetLine, $this->sourceCells, $this->targetCells, $this->refusal, $this->differingCells, $this->decision, $this->rulingId, $this->earlier, $this->remark, $this->sourcePart, $this->targetPart);
    }

    public static function fromDatabase(DatabaseRow $row, ?Earlier $earlier): self
    {
        return new self(
            $row->int('sequence'),
            $row->text('class'),
            $row->textOrNull('side'),
            $row->textOrNull('key'),
            $row->int('source_rows'),
            $row->int('target_rows'),
            $row->intOrNull('source_line'),
            $row->intOrNull('target_line'),
            $row->cellsOrNull('source_cells'),
            $row->cellsOrNull('target_cells'),
            $row->textOrNull('refusal'),
            $row->int('differing_cells'),
            Decision::ofCode($row->intOrNull('decided') ?? 0),
            $row->intOrNull('ruling_id'),
            $earlier,
            $row->textOrNull('remark'),
            $row->intOrNull('source_part'),
            $row->intOrNull('target_part'),
        );
    }

    /** @return list<string>|null of the side that has the row; of a changed row the source */
    public function cells(): ?array
    {
        return $this->sourceCells ?? $this->targetCells;
    }

    public function line(): ?int
    {
        return $this->sourceLine ?? $this->targetLine;
    }
}
