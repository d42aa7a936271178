<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Adapters\Database\DatabaseRow;

/**
 * What was ruled on a finding in a tally before, and whether it is open again: because its values have changed since, or because its
 * pattern has more cells than were ruled on for tallies to come.
 */
final readonly class CarriedRuling
{
    private function __construct(
        public int $tally,
        public string $decision,
        public string $reason,
        public string $by,
        public bool $isChanged,
        public bool $isBeyond,
    ) {}

    public static function fromDatabase(DatabaseRow $row): self
    {
        return new self(
            $row->int('tally'),
            $row->text('decision'),
            $row->text('reason'),
            $row->text('by'),
            // What is beyond its ruling is open again, and has not changed.
            $row->int('is_changed') === 1 && $row->int('is_beyond') === 0,
            $row->int('is_beyond') === 1,
        );
    }

    /** @return array{tally: int, decision: string, reason: string, by: string, isChanged: bool, isBeyond: bool} */
    public function toArray(): array
    {
        return [
            'tally' => $this->tally,
            'decision' => $this->decision,
            'reason' => $this->reason,
            'by' => $this->by,
            'isChanged' => $this->isChanged,
            'isBeyond' => $this->isBeyond,
        ];
    }
}
