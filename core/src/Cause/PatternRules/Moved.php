<?php

declare(strict_types=1);

namespace NineTally\Core\Cause\PatternRules;

use NineTally\Core\Cause\CauseId;
use NineTally\Core\Cause\PatternRule;
use NineTally\Core\Comparison\CellPair;
use NineTally\Core\Row\KeyTuple;

/** The value stands in another column of the same row. What it is evidence for comes from the whole row: see RowComparison. */
final readonly class Moved implements PatternRule
{
    public const SHORTEST = 4;

    public const SEPARATOR = KeyTuple::SEPARATOR;

    public function id(): CauseId
    {
        return CauseId::Moved;
    }

    public function evidence(CellPair $pair): array
    {
        return [];
    }

    public function decide(array $counts, int $cells): array
    {
        $holds = [];
        foreach ($counts as $evidence => $count) {
            if ($count >= self::LEAST) {
                [$from, $to] = explode(self::SEPARATOR, $evidence);
                $holds[$evidence] = ['from' => $from, 'to' => $to];
            }
        }

        return $holds;
    }
}
