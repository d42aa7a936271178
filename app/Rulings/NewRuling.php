<?php

declare(strict_types=1);

namespace App\Rulings;

use App\Models\Decision;
use App\Models\RulingScope;
use App\Rulings\FindingSet\Filter;

/** What a person decides, before it is entered: the columns of an act of ruling. */
final readonly class NewRuling
{
    /**
     * @param  string  $target  of a finding its sequence, else the pattern's number or the row class; empty where a filter says what is
     *     covered
     * @param  int|null  $askedId  the person who is asked
     * @param  int|null  $holdsUpTo  in tallies to come too, while the pattern has no more cells than this
     * @param  list<array{source: string, target: string}>|null  $holdsFor  in tallies to come too, for these value pairs
     */
    public function __construct(
        public RulingScope $scope,
        public string $target,
        public ?Filter $filter,
        public Decision $decision,
        public string $reason,
        public ?string $ticket = null,
        public ?int $askedId = null,
        public ?int $holdsUpTo = null,
        public ?array $holdsFor = null,
    ) {}
}
