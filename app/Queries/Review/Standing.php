<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Adapters\Database\DatabaseRow;
use App\Models\Decision;

/** What stands for a finding: the decision, the act that made it, and what was ruled in a tally before. */
final readonly class Standing
{
    private function __construct(public Decision $decision, public ?int $rulingId = null, public ?CarriedRuling $earlier = null) {}

    /** Of what nobody has ruled on. */
    public static function open(): self
    {
        return new self(Decision::Open);
    }

    /** @param DatabaseRow $row with the columns "decided" and "ruling_id" */
    public static function fromDatabase(DatabaseRow $row, ?CarriedRuling $earlier): self
    {
        return new self(Decision::ofCode($row->intOrNull('decided') ?? 0), $row->intOrNull('ruling_id'), $earlier);
    }

    /** @return array{decision: string, rulingId: int|null, earlier: array<string, mixed>|null} as the API has it */
    public function toArray(): array
    {
        return ['decision' => $this->decision->value, 'rulingId' => $this->rulingId, 'earlier' => $this->earlier?->toArray()];
    }
}
