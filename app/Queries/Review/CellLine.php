<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Adapters\DatabaseRow;
use App\Models\Decision;

/** A cell that needs an explanation, with its standing. */
final readonly class CellLine
{
    /** @param array<string, string|int> $facts of the cause, as its pattern has them */
    private function __construct(
        public int $sequence,
        public int $rowSequence,
        public int $pairPosition,
        public int $pattern,
        public string $class,
        public string $cause,
        public array $facts,
        public string $source,
        public string $target,
        public ?string $key,
        public Decision $decision,
        public ?int $rulingId,
        public ?int $sourceLine,
        public ?int $targetLine,
        public ?Earlier $earlier,
    ) {}

    public function withValues(string $source, string $target): self
    {
        return new self($this->sequence, $this->rowSequence, $this->pairPosition, $this->pattern, $this->class, $this->cause, $this->facts, $source, $target, $this->key, $this->decision, $this->rulingId, $this->sourceLine, $this->targetLine, $this->earlier);
    }

    public function withKey(?string $key): self
    {
        return new self($this->sequence, $this->rowSequence, $this->pairPosition, $this->pattern, $this->class, $this->cause, $this->facts, $this->source, $this->target, $key, $this->decision, $this->rulingId, $this->sourceLine, $this->targetLine, $this->earlier);
    }

    public static function fromDatabase(DatabaseRow $row, ?Earlier $earlier): self
    {
        return new self(
            $row->int('sequence'),
            $row->int('row_sequence'),
            $row->int('pair_position'),
            $row->int('pattern_number'),
            $row->text('class'),
            $row->text('cause'),
            $row->facts('facts'),
            $row->text('source_value'),
            $row->text('target_value'),
            $row->textOrNull('key'),
            Decision::ofCode($row->intOrNull('decided') ?? 0),
            $row->intOrNull('ruling_id'),
            $row->intOrNull('source_line'),
            $row->intOrNull('target_line'),
            $earlier,
        );
    }
}
